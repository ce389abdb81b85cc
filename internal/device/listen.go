package device

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"time"

	"oarweed/core/problem"
)

// longest line of an instrument, in bytes.
const longest = 4096

// checkAddr refuses what is no address of an instrument; the error names the field.
func checkAddr(field, addr, like string) error {
	if host, port, err := net.SplitHostPort(addr); addr != "" && (err != nil || host == "" || port == "") {
		return problem.New(field, fmt.Sprintf("%q is no address", addr), "write host and port, like "+like)
	}
	return nil
}

// listen dials an instrument and hands over its lines until the connection is lost or the context
// ends. line reports whether it could read one: quiet without any counts as silence.
func listen(ctx context.Context, addr string, quiet time.Duration, line func(conn net.Conn, text string) bool) error {
	d := net.Dialer{Timeout: dialTime}
	conn, err := d.DialContext(ctx, "tcp", addr)
	if err != nil {
		return err
	}
	defer conn.Close()
	stop := context.AfterFunc(ctx, func() { _ = conn.Close() })
	defer stop()
	in := bufio.NewScanner(conn)
	in.Buffer(make([]byte, longest), longest)
	read := false
	_ = conn.SetReadDeadline(time.Now().Add(quiet))
	for in.Scan() {
		if line(conn, in.Text()) {
			read = true
			_ = conn.SetReadDeadline(time.Now().Add(quiet))
		}
	}
	if timeout := net.Error(nil); !read || errors.As(in.Err(), &timeout) && timeout.Timeout() {
		return errSilent
	}
	return errBroken
}
