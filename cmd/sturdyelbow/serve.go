package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"sturdyelbow/internal/demo"
	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
	"sturdyelbow/web"
)

// serving are the flags of a server.
type serving struct{ addr, data string }

func (f *serving) add(c *cobra.Command, addr, data string) {
	c.Flags().StringVar(&f.addr, "addr", addr, "HOST:PORT to listen on; anything but loopback lets the network in")
	c.Flags().StringVar(&f.data, "data", data, "directory of the database")
}

// userData is the directory for the user's data.
func userData() string {
	if d := os.Getenv("XDG_DATA_HOME"); d != "" {
		return filepath.Join(d, "sturdyelbow")
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return "sturdyelbow-data"
	}
	return filepath.Join(home, ".local", "share", "sturdyelbow")
}

func serveCommand() *cobra.Command {
	var f serving
	c := &cobra.Command{Use: "serve", Short: "Serve the workbench on this machine", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return failed(f.run(c, nil)) }}
	f.add(c, "127.0.0.1:7655", userData())
	return c
}

func demoCommand() *cobra.Command {
	var f serving
	c := &cobra.Command{Use: "demo", Short: "Serve the workbench with the demo club's projects", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return failed(f.run(c, demo.Seed)) }}
	f.add(c, "127.0.0.1:7656", filepath.Join(userData(), "demo"))
	return c
}

func (f *serving) run(c *cobra.Command, seed func(context.Context, *store.Store) error) (err error) {
	ctx := c.Context()
	st, err := store.Open(ctx, f.data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, st.Close()) }()
	if seed != nil {
		if err := seed(ctx, st); err != nil {
			return err
		}
	}
	host, _, err := net.SplitHostPort(f.addr)
	if err != nil {
		return fmt.Errorf("--addr %q: write HOST:PORT, like 127.0.0.1:7655", f.addr)
	}
	if host == "" {
		return errors.New("--addr: name the host to listen on, like 127.0.0.1:7655")
	}
	l, err := net.Listen("tcp", f.addr)
	if err != nil {
		return err
	}
	log := slog.New(slog.NewTextHandler(c.ErrOrStderr(), nil))
	fmt.Fprintf(c.OutOrStdout(), "Sturdy Elbow is at http://%s\n", l.Addr())
	return server.Serve(ctx, l, server.New(server.Config{Store: st, Web: web.Files(), Hosts: []string{host}, Version: version, Log: log}))
}

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{Use: "backup FILE", Short: "Copy the live database to a new file", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) (err error) {
			if _, err := os.Stat(filepath.Join(data, store.FileName)); err != nil {
				return failed(fmt.Errorf("there is no database in %s", data))
			}
			st, err := store.Open(c.Context(), data)
			if err != nil {
				return failed(err)
			}
			defer func() { err = errors.Join(err, st.Close()) }()
			if err := st.Backup(c.Context(), args[0]); err != nil {
				return failed(err)
			}
			fmt.Fprintln(c.OutOrStdout(), "copied to", args[0])
			return nil
		}}
	c.Flags().StringVar(&data, "data", userData(), "directory of the database")
	return c
}

func openapiCommand() *cobra.Command {
	c := printer("openapi", "Print the API's OpenAPI document", server.Spec)
	c.Hidden = true
	return c
}

func schemaCommand() *cobra.Command {
	return printer("schema", "Print the JSON Schema of a frame's document", server.Schema)
}

func wordsCommand() *cobra.Command {
	c := printer("words", "Print the labels of what a builder chooses among", server.Words)
	c.Hidden = true
	return c
}

// printer is a command that prints a document of the API.
func printer(use, short string, make func() ([]byte, error)) *cobra.Command {
	return &cobra.Command{Use: use, Short: short, Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			data, err := make()
			if err != nil {
				return failed(err)
			}
			var v any
			if err := json.Unmarshal(data, &v); err != nil {
				return failed(err)
			}
			return failed(printJSON(c.OutOrStdout(), v))
		}}
}
