package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"oarweed/catalogue"
	"oarweed/internal/api"
	"oarweed/internal/demo"
	"oarweed/internal/site"
	"oarweed/internal/store"
	"oarweed/web"
)

func serve(ctx context.Context, args []string, out io.Writer, withDemo bool) error {
	f := flag.NewFlagSet("serve", flag.ContinueOnError)
	db := f.String("db", "oarweed.db", "database file")
	addr := f.String("addr", "127.0.0.1:8080", "address to listen on")
	if err := f.Parse(args); err != nil {
		return err
	}
	cat, err := catalogue.Load()
	if err != nil {
		return err
	}
	if dir := filepath.Dir(*db); dir != "." {
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return err
		}
	}
	st, err := store.Open(ctx, *db)
	if err != nil {
		return err
	}
	defer st.Close()
	if withDemo {
		if _, err := demo.Fill(ctx, st, time.Now()); err != nil {
			return err
		}
	}
	dist, err := fs.Sub(web.Dist, "dist")
	if err != nil {
		return err
	}
	pages, err := site.Handler(dist)
	if err != nil {
		return err
	}
	handler, _ := api.New(cat, st, pages)
	listen, err := net.Listen("tcp", *addr)
	if err != nil {
		return fmt.Errorf("cannot listen on %s (%w): stop what runs there, or give another --addr", *addr, err)
	}
	fmt.Fprintf(out, "Oarweed is at http://%s   (database %s, stop with Ctrl-C)\n", listen.Addr(), *db)
	srv := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second}
	done := make(chan error, 1)
	go func() { done <- srv.Serve(listen) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	wait, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
	defer cancel()
	if err := srv.Shutdown(wait); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return nil
}
