package main

import (
	"log/slog"
	"net"
	"net/http"
	"time"

	"github.com/spf13/cobra"
)

func watchFlag(c *cobra.Command, address *string) {
	c.Flags().StringVar(
		address,
		"watch",
		"",
		"address that answers /healthz, /readyz and /metrics, such as 127.0.0.1:9090; the public must not reach it",
	)
}

// watched answers at an address of its own how the program is; "" is nowhere.
func (r *running) watched(address string) error {
	if address == "" {
		return nil
	}
	l, err := net.Listen("tcp", address)
	if err != nil {
		return err
	}
	server := &http.Server{Handler: r.Watch.Handler(), ReadHeaderTimeout: 10 * time.Second}
	go func() {
		if err := server.Serve(l); err != http.ErrServerClosed {
			slog.Error("nobody can watch any more", "error", err)
		}
	}()
	r.onClose(func() { _ = server.Close() })
	return nil
}
