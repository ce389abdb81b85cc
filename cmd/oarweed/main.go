// Command oarweed serves the application and answers from the command line:
// JSON in, JSON out, the same documents as the API.
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"syscall"
)

const usage = `oarweed: knots chosen, proved and taught

  oarweed serve [--db FILE] [--addr HOST:PORT]   serve the application
  oarweed demo  [--db FILE] [--addr HOST:PORT]   the same, with demo data in an empty database
  oarweed choose [--school Q=S] < rig.json       rank the knots for a rig
  oarweed rig check < rig.json                   answer for a whole chain: weakest link, cut list, casting off
  oarweed rig chances < rig.json                 each ranked knot of a joint in ten thousand draws
  oarweed rig changes < rig.json                 what would change the first choice at a joint
  oarweed map --x INPUT --y INPUT [--columns N] [--rows N] < rig.json
  oarweed load wind --loa 30ft --wind 30kn       and share, snatch, drag, hand
  oarweed hold --hitch cleat-hitch --object D --line D --load F [--hand F] [--material M] [--surface S] [--wet]
  oarweed shackle --diameter 6mm                 clamps and stoppers of a soft shackle
  oarweed procedure ID [< rig.json]              a job as a card; without ID: which there are
  oarweed strength --material M --diameter D [--construction C] [--wet]
  oarweed friction --hitch H --object D --line D --mu N [--turns N] [--load F --hand F]
  oarweed shape check [KNOT]                     check the drawings and their proofs
  oarweed shape draw KNOT [--step N] [--view tie|across|left|opposite] [--look laid|braid|mono]
                     [--labels] [--ghost] [--format svg|png] [--width PIXELS]
  oarweed shape sheet                            every drawing on one page of HTML
  oarweed shape invariants KNOT                  invariants of every closure
  oarweed openapi                                the API's description
`

// errShown ends the command with status 1 after a problem document was printed.
var errShown = errors.New("problem shown")

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	err := run(ctx, os.Args[1:], os.Stdin, os.Stdout, os.Stderr)
	if err != nil {
		if !errors.Is(err, errShown) {
			fmt.Fprintln(os.Stderr, "oarweed:", err)
		}
		stop()
		os.Exit(1)
	}
}

func run(ctx context.Context, args []string, in io.Reader, out, errOut io.Writer) error {
	if len(args) == 0 {
		fmt.Fprint(errOut, usage)
		return errShown
	}
	commands := map[string]func([]string) error{
		"serve":     func(a []string) error { return serve(ctx, a, out, false) },
		"demo":      func(a []string) error { return serve(ctx, a, out, true) },
		"choose":    func(a []string) error { return chooseCommand(a, in, out) },
		"rig":       func(a []string) error { return rigCommand(a, in, out) },
		"map":       func(a []string) error { return mapCommand(ctx, a, in, out) },
		"load":      func(a []string) error { return loadCommand(a, out) },
		"hold":      func(a []string) error { return holdCommand(a, out) },
		"shackle":   func(a []string) error { return shackleCommand(a, out) },
		"procedure": func(a []string) error { return procedureCommand(a, in, out) },
		"strength":  func(a []string) error { return strengthCommand(a, out) },
		"friction":  func(a []string) error { return frictionCommand(a, out) },
		"shape":     func(a []string) error { return shapeCommand(a, out) },
		"openapi":   func(a []string) error { return openapiCommand(out) },
		"help":      func([]string) error { _, err := fmt.Fprint(out, usage); return err },
	}
	c, ok := commands[args[0]]
	if !ok {
		fmt.Fprint(errOut, usage)
		return fmt.Errorf("%q is not a command", args[0])
	}
	return c(args[1:])
}
