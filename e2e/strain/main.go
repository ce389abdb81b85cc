// Command strain puts the built application under strain, as a class does and as a
// battery that runs out does, and says what it measured. It fails where something
// that was acknowledged is lost.
//
//	go run ./e2e/strain load --binary bin/oarweed
//	go run ./e2e/strain crash --binary bin/oarweed
package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"

	"github.com/alecthomas/kong"
)

type commands struct {
	Load  load  `cmd:"" help:"A class of 500: pages, choices and drawings at a fixed rate, and writes beside them."`
	Crash crash `cmd:"" help:"Kill the server again and again while it writes, and look for what it had acknowledged."`
}

func main() {
	k := kong.Parse(&commands{}, kong.Description("Puts Oarweed under strain."))
	if err := k.Run(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// server is a running application on a database of its own.
type server struct {
	url string
	cmd *exec.Cmd
}

// start starts the application and waits until it says where it is.
func start(binary, command, db string) (*server, error) {
	cmd := exec.Command(binary, command, "--db", db, "--addr", "127.0.0.1:0")
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	cmd.Stderr = os.Stderr
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	lines := bufio.NewReader(out)
	for {
		line, err := lines.ReadString('\n')
		if err != nil {
			return nil, fmt.Errorf("the server did not say where it is: %w", errors.Join(err, cmd.Wait()))
		}
		if _, rest, ok := strings.Cut(line, "http://"); ok {
			go func() { _, _ = io.Copy(io.Discard, lines) }()
			return &server{"http://" + strings.Fields(rest)[0], cmd}, nil
		}
	}
}

// stop ends the server as a person does.
func (s *server) stop() error {
	if err := s.cmd.Process.Signal(os.Interrupt); err != nil {
		return err
	}
	return s.cmd.Wait()
}

// kill ends it as a battery does. The error of a killed process is what was asked for.
func (s *server) kill() {
	_ = s.cmd.Process.Kill()
	_ = s.cmd.Wait()
}

// client keeps its connections, as browsers do.
var client = &http.Client{Timeout: 10 * time.Second, Transport: &http.Transport{MaxIdleConnsPerHost: 500, MaxIdleConns: 500}}

// do sends a request and reads the whole answer; anything but success is an error.
func do(method, url string, body, into any) error {
	var sent io.Reader
	if body != nil {
		text, err := json.Marshal(body)
		if err != nil {
			return err
		}
		sent = bytes.NewReader(text)
	}
	req, err := http.NewRequest(method, url, sent)
	if err != nil {
		return err
	}
	if body != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := client.Do(req)
	if err != nil {
		return err
	}
	text, err := io.ReadAll(res.Body)
	if err = errors.Join(err, res.Body.Close()); err != nil {
		return err
	}
	if res.StatusCode >= 300 {
		return fmt.Errorf("%s %s: %s %.200s", method, url, res.Status, text)
	}
	if into == nil {
		return nil
	}
	return json.Unmarshal(text, into)
}

// attempt as it is sent.
type attempt struct {
	Key       string  `json:"key"`
	LearnerID int64   `json:"learner_id"`
	Knot      string  `json:"knot"`
	Outcome   string  `json:"outcome"`
	Seconds   float64 `json:"seconds"`
}

// keys of all attempts in a database that nobody has open.
func keys(binary, db string) (map[string]int, error) {
	var errOut bytes.Buffer
	cmd := exec.Command(binary, "export", "--db", db)
	cmd.Stderr = &errOut
	text, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("export: %w: %s", err, errOut.String())
	}
	var data struct{ Attempts []attempt }
	if err := json.Unmarshal(text, &data); err != nil {
		return nil, err
	}
	found := map[string]int{}
	for _, a := range data.Attempts {
		found[a.Key]++
	}
	return found, nil
}

// lost names the keys that were acknowledged and are not there exactly once.
func lost(acknowledged []string, found map[string]int) error {
	for _, k := range acknowledged {
		if found[k] != 1 {
			return fmt.Errorf("attempt %s was acknowledged and is there %d times", k, found[k])
		}
	}
	return nil
}

// scratch is a folder for one run.
func scratch() (dir string, remove func(), err error) {
	dir, err = os.MkdirTemp("", "oarweed-strain")
	return dir, func() { _ = os.RemoveAll(dir) }, err
}

func dbIn(dir string) string { return filepath.Join(dir, "strain.db") }
