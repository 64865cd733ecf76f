package main

import (
	"context"
	"crypto/tls"
	"fmt"
	"net"
	"time"

	"earlychorus/server/classcode"
	"earlychorus/server/demo"
)

// guardDemo refuses to show the demo to others than this machine: its passwords are
// published. A demo that is there already is one, too.
func (o serveOptions) guardDemo(ctx context.Context, r *running) error {
	if o.openDemo || o.public == "" && isLoopback(o.host) {
		return nil
	}
	state, err := r.Store.DemoState(ctx, demo.SchoolID())
	if err != nil {
		return err
	}
	if state.Begun || !state.Foreign && !o.noDemo {
		return fmt.Errorf(
			"the demo's passwords are published, so it is served to this machine alone: add --no-demo and an empty " +
				"--data folder to begin a school of your own, or --demo-anywhere if you mean it",
		)
	}
	return nil
}

func isLoopback(host string) bool {
	if host == "localhost" {
		return true
	}
	ip := net.ParseIP(host)
	return ip != nil && ip.IsLoopback()
}

// firstStart prints the code with which the first school is set up, while there is none.
func (r *running) firstStart(ctx context.Context, o serveOptions) error {
	empty, err := r.Store.NoSchoolYet(ctx)
	if err != nil || !empty {
		return err
	}
	code := classcode.New()
	if err := r.Store.AllowFirstStart(ctx, classcode.Key(code), time.Now()); err != nil {
		return err
	}
	fmt.Printf("\nThere is no school yet. Open the page and set yours up with this code: %s\n", code)
	fmt.Println("(It works once, until a school is there. Without a screen: earlychorus school create --help)")
	return nil
}

// secured serves HTTPS where a certificate was given.
func (o serveOptions) secured(l net.Listener) (net.Listener, error) {
	if o.cert == "" {
		return l, nil
	}
	pair, err := tls.LoadX509KeyPair(o.cert, o.key)
	if err != nil {
		_ = l.Close()
		return nil, fmt.Errorf("--tls-cert, --tls-key: %w", err)
	}
	return tls.NewListener(l, &tls.Config{
		Certificates: []tls.Certificate{pair},
		MinVersion:   tls.VersionTLS12,
		NextProtos:   []string{"h2", "http/1.1"},
	}), nil
}
