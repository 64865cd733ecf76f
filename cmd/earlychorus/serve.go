package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"os"
	"strconv"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/api"
	"earlychorus/server/demo"
	"earlychorus/web"
)

type serveOptions struct {
	where
	reach
	host     string
	port     int
	noDemo   bool
	noWorker bool
	proxies  []string
	watch    string
	openDemo bool
	cert     string
	key      string
}

func serveCommand() *cobra.Command {
	var o serveOptions
	c := &cobra.Command{
		Use:   "serve",
		Short: "Serve the program, with its own database unless told otherwise",
		Args:  cobra.NoArgs,
		RunE:  func(c *cobra.Command, _ []string) error { return unlessStopped(c.Context(), serve(c.Context(), o)) },
	}
	o.where.flags(c)
	o.reach.flags(c)
	c.Flags().StringVar(
		&o.host,
		"host",
		"127.0.0.1",
		"address to listen on; browsers give the microphone only to 127.0.0.1 or behind HTTPS",
	)
	c.Flags().IntVar(&o.port, "port", 8080, "port to listen on; the next free one if taken")
	c.Flags().BoolVar(&o.noDemo, "no-demo", false, "leave an empty database empty")
	c.Flags().BoolVar(&o.noWorker, "no-worker", false, "serve pages only: \"earlychorus worker\" listens to takes")
	c.Flags().StringSliceVar(
		&o.proxies,
		"proxies",
		nil,
		"networks of your proxies, such as 10.0.0.0/8: their X-Forwarded-For says who asks",
	)
	c.Flags().BoolVar(
		&o.openDemo,
		"demo-anywhere",
		false,
		"serve the demo beyond this machine, though its passwords are published",
	)
	c.Flags().StringVar(&o.cert, "tls-cert", "", "certificate to serve HTTPS with, where no proxy does: a PEM file")
	c.Flags().StringVar(&o.key, "tls-key", "", "the certificate's private key: a PEM file")
	watchFlag(c, &o.watch)
	return c
}

func serve(ctx context.Context, o serveOptions) error {
	if (o.cert == "") != (o.key == "") {
		return fmt.Errorf("--tls-cert and --tls-key: give both, or neither")
	}
	r, err := open(ctx, o.where)
	defer r.close()
	if err != nil {
		return err
	}
	if err := o.guardDemo(ctx, r); err != nil {
		return err
	}
	if err := r.watched(o.watch); err != nil {
		return err
	}
	if err := o.reach.apply(r); err != nil {
		return err
	}
	if err := o.believe(r); err != nil {
		return err
	}
	fill, err := o.begin(ctx, r)
	if err != nil {
		return err
	}
	defer fill() // before what it uses is closed
	page, built := web.Built()
	if !built {
		page = nil
		fmt.Println("The interface is not built (./start builds it): serving the API alone.")
	}
	handler, stopUpkeep := r.Handler(page)
	defer stopUpkeep()
	listener, err := listen(o.host, o.port)
	if err != nil {
		return err
	}
	if listener, err = o.secured(listener); err != nil {
		return err
	}
	announce(listener.Addr(), o)
	if r.parts.Provider != nil {
		if err := r.seeder().SignOn(ctx, "http://"+listener.Addr().String()+api.StandInProvider); err != nil {
			return err
		}
	}
	if err := r.firstStart(ctx, o); err != nil {
		return err
	}
	return serveUntil(ctx, listener, handler, r.EndLines)
}

// begin starts the half that works, and the demo where it belongs. Wait ends the demo's
// filling.
func (o serveOptions) begin(ctx context.Context, r *running) (wait func(), err error) {
	seeder, demos := r.seeder(), false
	if !o.noDemo {
		if demos, err = seeder.Begin(ctx); err != nil {
			return func() {}, err
		}
	}
	if demos {
		if err := r.simulate(); err != nil {
			return func() {}, err
		}
	}
	r.Parts = r.parts
	if !o.noWorker {
		if err := r.work(); err != nil {
			return func() {}, err
		}
	}
	if !demos {
		return func() {}, nil
	}
	return inBackground(ctx, seeder), nil
}

// believe takes the word of the proxies that are named.
func (o serveOptions) believe(r *running) error {
	for _, network := range o.proxies {
		if _, err := netip.ParsePrefix(network); err != nil {
			return fmt.Errorf("--proxies: write networks as 10.0.0.0/8")
		}
	}
	r.parts.Proxies = o.proxies
	return nil
}

// inBackground plays the demo's takes while the page is served already. The
// result waits for it to end.
func inBackground(ctx context.Context, seeder demo.Seeder) (wait func()) {
	filled := make(chan struct{})
	go func() {
		defer close(filled)
		if err := seeder.Fill(ctx); err != nil && ctx.Err() == nil {
			slog.Error("the demo's takes could not all be played; the next start goes on", "error", err)
		}
	}()
	return func() { <-filled }
}

const portsTried = 50

// listen takes the port, or the next free one.
func listen(host string, port int) (net.Listener, error) {
	for p := port; ; p++ {
		l, err := net.Listen("tcp", net.JoinHostPort(host, strconv.Itoa(p)))
		if err == nil {
			if p != port {
				fmt.Printf("Port %d is taken; using %d.\n", port, p)
			}
			return l, nil
		}
		if !errors.Is(err, syscall.EADDRINUSE) || p >= port+portsTried {
			return nil, err
		}
	}
}

func announce(addr net.Addr, o serveOptions) {
	scheme := "http"
	if o.cert != "" {
		scheme = "https"
	}
	fmt.Printf("\nEarly Chorus is at %s://%s\n", scheme, addr)
	if !o.noDemo {
		players := demo.SignIns()
		fmt.Printf(
			"\nDemo sign-ins\n  Director  %s  %s\n  Players   class code %s\n",
			demo.DirectorEmail,
			demo.DirectorPassword,
			demo.ClassCode,
		)
		for _, n := range []int{0, 5, 20, 31} {
			fmt.Printf("            %-12s %-12s PIN %s\n", players[n].Name, players[n].Instrument, players[n].PIN)
		}
		fmt.Println("            (all 32: earlychorus demo --sign-ins)")
		fmt.Printf("  Letters   %s://%s/stand-in/mail\n", scheme, addr)
	}
	fmt.Println("\nCtrl-C stops it.")
}

// serveUntil answers until it is to stop; what is under way then is finished, if it does
// not take long. endLines ends what would never finish.
func serveUntil(ctx context.Context, l net.Listener, handler http.Handler, endLines func()) error {
	server := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 2 * time.Minute}
	server.RegisterOnShutdown(endLines)
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(l) }()
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	fmt.Fprintln(os.Stderr, "\nStopping.")
	wait, cancel := context.WithTimeout(context.Background(), stopTimeout)
	defer cancel()
	if err := server.Shutdown(wait); err != nil {
		slog.Warn("some requests were still under way and are cut off", "error", err)
		return server.Close()
	}
	return nil
}
