package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/alexedwards/scs/sqlite3store"

	"oarweed/core/problem"
	"oarweed/internal/api"
	"oarweed/internal/app"
	"oarweed/internal/demo"
	"oarweed/internal/device"
	"oarweed/internal/site"
	"oarweed/internal/store"
	"oarweed/web"
)

// database is the flag that names the file.
type database struct {
	DB string `name:"db" default:"oarweed.db" env:"OARWEED_DB" help:"database file" placeholder:"FILE"`
}

type serveCommand struct {
	database
	Addr string   `default:"127.0.0.1:8080" env:"OARWEED_ADDR" help:"address to listen on; 0.0.0.0:8080 lets phones on the same network in" placeholder:"HOST:PORT"`
	Host []string `env:"OARWEED_HOST" help:"name by which the server may be called, beside localhost and addresses; may be repeated" placeholder:"NAME"`
	Cert string   `name:"tls-cert" env:"OARWEED_TLS_CERT" help:"certificate (PEM) to serve over TLS" type:"existingfile" placeholder:"FILE"`
	Key  string   `name:"tls-key" env:"OARWEED_TLS_KEY" help:"its private key (PEM)" type:"existingfile" placeholder:"FILE"`
	Log  bool     `env:"OARWEED_LOG" help:"log each request"`
}

type demoCommand struct{ serveCommand }

func (c serveCommand) Run(e *env) error { return c.serve(e, false) }
func (c demoCommand) Run(e *env) error  { return c.serve(e, true) }

// mostWaiting computations that are heavy may wait for the processors.
const mostWaiting = 256

// Times after which a connection is given up. A body of 1 MiB must come through on a
// slow line; a stream extends its own.
const (
	headerTime = 10 * time.Second
	bodyTime   = 30 * time.Second
	answerTime = 60 * time.Second
	idleTime   = 60 * time.Second
	// lastTime is how long what is under way has when the server is asked to stop, and
	// lateTime what a heavy computation has after that to notice.
	lastTime = 3 * time.Second
	lateTime = 2 * time.Second
)

func (c serveCommand) serve(e *env, withDemo bool) error {
	cat, err := loaded()
	if err != nil {
		return err
	}
	if dir := filepath.Dir(c.DB); dir != "." {
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return err
		}
	}
	st, err := store.Open(e, c.DB)
	if err != nil {
		return err
	}
	defer st.Close()
	if st.New {
		fmt.Fprintf(e.out, "New database made at %s\n", c.DB)
	}
	if st.Copy != "" {
		fmt.Fprintf(e.out, "The database was updated; as it was before it is kept at %s\n", st.Copy)
	}
	school, err := app.NewSchool(e, cat, st, app.NewGate(mostWaiting))
	if err != nil {
		return err
	}
	if err := school.UseWind(e, device.NewVane()); err != nil {
		return err
	}
	if err := school.UseCell(e, device.NewHub(st.AppendReadings)); err != nil {
		return err
	}
	defer school.Close()
	if withDemo {
		if _, err := demo.Fill(e, school, time.Now()); err != nil {
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
	if (c.Cert == "") != (c.Key == "") {
		return problem.New("--tls-cert", "and --tls-key go together", "give both, or neither")
	}
	listen, err := net.Listen("tcp", c.Addr)
	if err != nil {
		return fmt.Errorf("cannot listen on %s (%w): stop what runs there, or give another --addr", c.Addr, err)
	}
	o := api.Options{Hosts: c.Host, Log: c.Log}
	setup := ""
	if beyond(listen.Addr()) {
		set, err := school.HasPassphrase(e)
		if err != nil {
			return err
		}
		if !set {
			setup = app.NewSetupCode()
		}
		o.Access = api.NewAccess(sqlite3store.New(st.Sessions()), setup, c.Cert != "")
	}
	handler, _ := api.New(school, pages, o)
	c.announce(e.out, listen.Addr(), setup)
	if c.Cert != "" {
		pair, err := tls.LoadX509KeyPair(c.Cert, c.Key)
		if err != nil {
			return problem.New("--tls-cert", "cannot be read: "+err.Error(), "give a certificate and its key in PEM")
		}
		listen = tls.NewListener(listen, &tls.Config{Certificates: []tls.Certificate{pair}, MinVersion: tls.VersionTLS12, NextProtos: []string{"http/1.1"}})
	}
	return listenUntil(e, listen, handler, school.Close)
}

// beyond reports whether an address is reached from other machines.
func beyond(addr net.Addr) bool {
	tcp, ok := addr.(*net.TCPAddr)
	return !ok || !tcp.IP.IsLoopback()
}

// announce says where Oarweed is, and what whoever reaches an open address can do.
func (c serveCommand) announce(out io.Writer, addr net.Addr, setup string) {
	scheme := "http"
	if c.Cert != "" {
		scheme = "https"
	}
	fmt.Fprintf(out, "Oarweed is at %s://%s   (database %s, stop with Ctrl-C)\n", scheme, addr, c.DB)
	if !beyond(addr) {
		return
	}
	if setup != "" {
		fmt.Fprintf(out, "Other machines reach it. Set the instructor's passphrase in the browser with this code: %s\n", setup)
	} else {
		fmt.Fprintln(out, "Other machines reach it: the instructor signs in with the passphrase, learners join with the code of a lesson.")
	}
	if c.Cert == "" {
		fmt.Fprintln(out, "Nothing is encrypted: whoever is on this network can read what is sent. --tls-cert and --tls-key encrypt it.")
	}
}

// listenUntil serves until the context ends, and then lets what is under way finish.
func listenUntil(ctx context.Context, listen net.Listener, handler http.Handler, stopping func()) error {
	base, cut := context.WithCancel(context.WithoutCancel(ctx))
	defer cut()
	srv := &http.Server{Handler: handler, ReadHeaderTimeout: headerTime, ReadTimeout: bodyTime, WriteTimeout: answerTime, IdleTimeout: idleTime,
		MaxHeaderBytes: 64 << 10, BaseContext: func(net.Listener) context.Context { return base }}
	srv.RegisterOnShutdown(stopping)
	done := make(chan error, 1)
	go func() { done <- srv.Serve(listen) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	wait, cancel := context.WithTimeout(base, lastTime)
	defer cancel()
	err := srv.Shutdown(wait)
	if errors.Is(err, context.DeadlineExceeded) {
		cut() // heavy computations stop
		late, cancel := context.WithTimeout(context.WithoutCancel(ctx), lateTime)
		defer cancel()
		if err = srv.Shutdown(late); errors.Is(err, context.DeadlineExceeded) {
			err = srv.Close()
		}
	}
	return err
}

type backupCommand struct {
	database
	Into string `arg:"" help:"new file for the copy" placeholder:"FILE"`
}

func (c backupCommand) Run(e *env) error {
	if err := store.Backup(e, c.DB, c.Into); err != nil {
		return err
	}
	fmt.Fprintf(e.out, "%s is a verified copy of %s.\n", c.Into, c.DB)
	return nil
}

type restoreCommand struct {
	database
	From string `arg:"" help:"backup to put in its place" placeholder:"FILE"`
}

func (c restoreCommand) Run(e *env) error {
	kept, err := store.Restore(e, c.From, c.DB)
	if err != nil {
		return err
	}
	fmt.Fprintf(e.out, "%s is as it was in %s.\n", c.DB, c.From)
	if kept != "" {
		fmt.Fprintf(e.out, "What was there before is kept at %s.\n", kept)
	}
	return nil
}

type verifyCommand struct{ database }

func (c verifyCommand) Run(e *env) error {
	if err := store.Verify(e, c.DB); err != nil {
		return err
	}
	fmt.Fprintf(e.out, "%s is sound: every page, every key, every row.\n", c.DB)
	return nil
}

type exportCommand struct{ database }

func (c exportCommand) Run(e *env) error {
	d, err := store.ExportFile(e, c.DB)
	return e.show(d, err)
}

type importCommand struct{ database }

func (c importCommand) Run(e *env) error {
	cat, err := loaded()
	if err != nil {
		return err
	}
	st, err := store.Open(e, c.DB)
	if err != nil {
		return err
	}
	defer st.Close()
	d, err := st.Import(e, e.in, cat)
	if err != nil {
		return err
	}
	slog.Info("imported", "learners", len(d.Learners), "attempts", len(d.Attempts), "rigs", len(d.Rigs), "lines", len(d.Lines))
	return nil
}
