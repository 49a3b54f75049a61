package main

import (
	"errors"
	"fmt"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"sturdyelbow/internal/store"
)

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{Use: "backup FILE", Short: "Copy the database, in use or not, to a new file", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if err := store.Backup(c.Context(), filepath.Join(data, store.FileName), args[0]); err != nil {
				return failed(err)
			}
			fmt.Fprintln(c.OutOrStdout(), "copied to", args[0])
			return nil
		}}
	c.Flags().StringVar(&data, "data", userData(), "directory of the database")
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "restore FILE", Short: "Put a backup in the place of the database; what it replaces is kept beside it", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) (err error) {
			release, err := store.Lock(data, "a restore")
			if err != nil {
				return failed(err)
			}
			defer func() { err = errors.Join(err, release()) }()
			kept, err := store.Restore(c.Context(), args[0], data, time.Now())
			if err != nil {
				return failed(err)
			}
			fmt.Fprintln(c.OutOrStdout(), args[0], "is in place")
			if kept != "" {
				fmt.Fprintln(c.OutOrStdout(), "what was there is kept as", kept)
			}
			return nil
		},
	}
	c.Flags().StringVar(&data, "data", userData(), "directory of the database")
	return c
}

func checkCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "check [FILE]", Short: "Read all of the database, or of a backup, and say what is wrong with it", Args: cobra.MaximumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			path := filepath.Join(data, store.FileName)
			if len(args) > 0 {
				path = args[0]
			}
			r, err := store.Check(c.Context(), path)
			if err != nil {
				return failed(err)
			}
			out := c.OutOrStdout()
			if len(r.Wrong) == 0 {
				fmt.Fprintf(out, "%s is sound: %d projects, %d events, %d earlier states\n", path, r.Projects, r.Events, r.States)
				return nil
			}
			fmt.Fprintf(out, "%s is damaged:\n", path)
			for _, w := range r.Wrong {
				fmt.Fprintln(out, " ", w)
			}
			if b := store.NewestBackup(filepath.Dir(path)); b != "" {
				fmt.Fprintf(out, "The newest backup is %s: stop the server, then run: sturdyelbow restore %s\n", b, b)
			}
			return &exitError{1, nil}
		},
	}
	c.Flags().StringVar(&data, "data", userData(), "directory of the database")
	return c
}
