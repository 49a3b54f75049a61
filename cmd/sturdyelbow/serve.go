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
	"time"

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
	url := "http://" + l.Addr().String()
	release, err := store.Lock(f.data, url)
	if err != nil {
		return errors.Join(err, l.Close())
	}
	defer func() { err = errors.Join(err, release()) }()
	st, err := store.Open(ctx, f.data)
	if err != nil {
		return errors.Join(err, l.Close())
	}
	defer func() { err = errors.Join(err, st.Close()) }()
	log := slog.New(slog.NewTextHandler(c.ErrOrStderr(), nil))
	if err := server.Upgrade(ctx, st); err != nil {
		log.Error("a project could not be brought up to date; it is left as it is", "error", err)
	}
	if seed != nil {
		if err := seed(ctx, st); err != nil {
			return errors.Join(err, l.Close())
		}
	}
	go daily(ctx, st, log)
	fmt.Fprintf(c.OutOrStdout(), "Sturdy Elbow is at %s\n", url)
	return server.Serve(ctx, l, server.New(server.Config{
		Store: st, Web: web.Files(), Hosts: []string{host}, Version: version, Log: log, Closing: ctx.Done(),
	}))
}

// daily makes the day's backup, and sweeps, at once and then whenever a day has begun. What
// fails is logged, and tried again within the hour.
func daily(ctx context.Context, st *store.Store, log *slog.Logger) {
	every := time.NewTicker(time.Hour)
	defer every.Stop()
	for {
		to, err := st.DailyBackup(ctx, time.Now())
		if err == nil && to != "" {
			log.Info("backed up", "file", to)
			err = st.Sweep(ctx)
		}
		if err != nil && ctx.Err() == nil {
			log.Error("the daily backup failed; it is tried again within the hour", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-every.C:
		}
	}
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
