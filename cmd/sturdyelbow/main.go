// Command sturdyelbow plans PVC pipe frames: it serves the workbench, and
// plans and cuts from files on the command line.
//
// Exit codes: 0 done, 1 the input cannot be planned or the work failed, 2 the
// command was not understood, 3 planned, but a finding says that it cannot be
// built so.
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"

	"github.com/spf13/cobra"
)

// version is set by the build.
var version = "dev"

// exitError carries an exit code; a nil error prints nothing.
type exitError struct {
	code int
	err  error
}

func (e *exitError) Error() string {
	if e.err == nil {
		return ""
	}
	return e.err.Error()
}

func failed(err error) error {
	if err == nil {
		return nil
	}
	return &exitError{1, err}
}

// gcPercent lets the heap grow to five times what is alive before it is
// collected. A plan is a burst of small objects: it takes a fifth less time so,
// for some ten megabytes.
const gcPercent = 400

func main() {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(gcPercent)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	err := root().ExecuteContext(ctx)
	stop()
	os.Exit(exitCode(err, os.Stderr))
}

// exitCode tells on w what went wrong and gives the code to leave with.
func exitCode(err error, w io.Writer) int {
	var e *exitError
	switch {
	case err == nil:
		return 0
	case !errors.As(err, &e):
		fmt.Fprintln(w, err)
		fmt.Fprintln(w, "see sturdyelbow --help")
		return 2
	}
	if e.err != nil {
		fmt.Fprintln(w, e.err)
	}
	return e.code
}

func root() *cobra.Command {
	c := &cobra.Command{
		Use: "sturdyelbow", Short: "Plans PVC pipe frames: cuts, fittings, sticks, cost and joints",
		SilenceErrors: true, SilenceUsage: true,
	}
	c.AddCommand(
		planCommand(),
		drawCommand(),
		cutCommand(),
		serveCommand(),
		demoCommand(),
		backupCommand(),
		restoreCommand(),
		checkCommand(),
		openapiCommand(),
		schemaCommand(),
		wordsCommand(),
		&cobra.Command{Use: "version", Short: "Print the version", Args: cobra.NoArgs, Run: func(c *cobra.Command, _ []string) {
			fmt.Fprintln(c.OutOrStdout(), "sturdyelbow", version)
		}},
	)
	return c
}
