// Command oarweed serves the application and answers from the command line: JSON in,
// JSON out, the same documents and the same limits as the API.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"sync"
	"syscall"

	"github.com/alecthomas/kong"

	"oarweed/catalogue"
	"oarweed/core/problem"
	"oarweed/core/trade"
	"oarweed/internal/api"
	"oarweed/internal/app"
)

// commands are all that oarweed does; the help of each comes from its fields.
type commands struct {
	Serve     serveCommand     `cmd:"" help:"Serve the application."`
	Demo      demoCommand      `cmd:"" help:"Serve it with demo data in an empty database."`
	Choose    chooseCommand    `cmd:"" help:"Rank the knots for a rig with one joint, read from standard input."`
	Rig       rigCommands      `cmd:"" help:"Judge a rig, read from standard input."`
	Map       mapCommand       `cmd:"" help:"Draw a choice map over two inputs of a rig, read from standard input."`
	Load      loadCommand      `cmd:"" help:"Work out a load: wind, share, snatch, drag or hand."`
	Hold      holdCommand      `cmd:"" help:"Say what hand holds a load by a hitch or by so many turns."`
	Shackle   shackleCommand   `cmd:"" help:"List clamps and stoppers of a soft shackle."`
	Tow       towCommand       `cmd:"" help:"Say where a tow line is made fast for the length a rider wants."`
	Leader    leaderCommand    `cmd:"" help:"Say how many changes a leader has left, read from standard input."`
	Moor      moorCommand      `cmd:"" help:"Share the wind on a moored boat among her lines, read from standard input."`
	Name      nameCommand      `cmd:"" help:"Name a knot from a tracing of it, read from standard input."`
	Knots     knotsCommands    `cmd:"" help:"Say which knots to learn."`
	Bench     benchCommands    `cmd:"" help:"Work out pulls on a bench."`
	CellSim   cellSimCommand   `cmd:"" name:"loadcell-sim" help:"Stand in for a load cell: listen, and pull a simulated specimen when asked."`
	WindSim   windSimCommand   `cmd:"" name:"wind-sim" help:"Stand in for a wind instrument: listen, and send NMEA 0183 wind to whoever connects."`
	Practice  practiceCommands `cmd:"" help:"Say what practice is due."`
	Lesson    lessonCommands   `cmd:"" help:"Plan a lesson."`
	Cut       cutCommand       `cmd:"" help:"Cut pieces from spools, read from standard input."`
	Procedure procedureCommand `cmd:"" help:"Give a job as a card; without an id, list them."`
	Sayings   sayingsCommand   `cmd:"" help:"Work common sayings out on a rig."`
	Method    methodCommand    `cmd:"" help:"Write the page of every formula, figure and source, as Markdown."`
	Strength  strengthCommand  `cmd:"" help:"Say what a line bears."`
	Friction  frictionCommand  `cmd:"" help:"Say whether a hitch holds at a friction."`
	Snug      snugCommands     `cmd:"" help:"Draw knots up in space."`
	Shape     shapeCommands    `cmd:"" help:"Check and draw the knots."`
	Backup    backupCommand    `cmd:"" help:"Copy a database while it is in use, and verify the copy."`
	Restore   restoreCommand   `cmd:"" help:"Put a backup in the place of a database."`
	Verify    verifyCommand    `cmd:"" help:"Read a database from end to end and compare every row with its checksum."`
	Export    exportCommand    `cmd:"" help:"Write all data as one JSON document to standard output."`
	Import    importCommand    `cmd:"" help:"Read all data from standard input into a new database."`
	Pack      packCommand      `cmd:"" help:"Write the catalogue as one file for the build for the browser."`
	Openapi   openapiCommand   `cmd:"" help:"Write the API's description."`
	Help      helpCommand      `cmd:"" hidden:"" help:"Show this."`
}

// env is what a command works with.
type env struct {
	context.Context
	in  io.Reader
	out io.Writer
}

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

// helped unwinds to run once help has been shown.
type helped struct{}

// run runs a command. An input error is printed as a problem document and ends it with
// [errShown].
func run(ctx context.Context, args []string, in io.Reader, out, errOut io.Writer) (err error) {
	var c commands
	parser, err := kong.New(&c, kong.Name("oarweed"), kong.Description("Knots chosen, proved and taught."), kong.UsageOnError(),
		kong.Writers(out, errOut), kong.Exit(func(int) { panic(helped{}) }), kong.ConfigureHelp(kong.HelpOptions{Compact: true}))
	if err != nil {
		return err
	}
	defer func() {
		if r := recover(); r != nil {
			if _, ok := r.(helped); !ok {
				panic(r)
			}
		}
	}()
	if len(args) == 0 || len(args) == 1 && args[0] == "help" {
		args = []string{"--help"}
	} else if args[0] == "help" {
		args = append(args[1:], "--help")
	}
	k, err := parser.Parse(args)
	if err == nil {
		err = k.Run(&env{ctx, in, out})
	} else {
		err = problem.New("", err.Error(), `see "oarweed --help"`)
	}
	if p := api.InputProblem(err); p != nil {
		if err := write(out, p); err != nil {
			return err
		}
		return errShown
	}
	return err
}

// show prints a document, unless there is an error.
func (e *env) show(v any, err error) error {
	if err != nil {
		return err
	}
	return write(e.out, v)
}

// answer prints what a use case of the school that teaches the usual way gives.
func (e *env) answer(of func(*app.School) (any, error)) error {
	s, err := e.usual()
	if err != nil {
		return err
	}
	return e.show(of(s))
}

func write(out io.Writer, v any) error {
	enc := json.NewEncoder(out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	return enc.Encode(v)
}

// loaded reads the built-in catalogue once.
var loaded = sync.OnceValues(catalogue.Load)

// school is one that keeps nothing, with some doctrines.
func school(ctx context.Context, doctrines map[string]string) (*app.School, error) {
	c, err := loaded()
	if err != nil {
		return nil, err
	}
	taught, err := c.WithDoctrines(doctrines)
	if err != nil {
		return nil, err
	}
	return app.NewSchool(ctx, taught, nil, nil)
}

// usual is the school that teaches the usual way.
func (e *env) usual() (*app.School, error) { return school(e, nil) }

func (e *env) trade() (*trade.Catalogue, error) { return loaded() }

type helpCommand struct{}

type packCommand struct{}

func (packCommand) Run(e *env) error {
	c, err := e.trade()
	if err != nil {
		return err
	}
	text, err := c.Pack()
	if err == nil {
		_, err = e.out.Write(text)
	}
	return err
}

type openapiCommand struct{}

func (openapiCommand) Run(e *env) error {
	s, err := e.usual()
	if err != nil {
		return err
	}
	_, a := api.New(s, nil, api.Options{})
	return write(e.out, api.Description(a))
}
