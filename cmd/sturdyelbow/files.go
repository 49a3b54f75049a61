package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/export"
)

func readFile(c *cobra.Command, name string) ([]byte, error) {
	if name == "-" {
		return io.ReadAll(c.InOrStdin())
	}
	data, err := os.ReadFile(name)
	var pe *os.PathError
	if errors.As(err, &pe) {
		return nil, fmt.Errorf("%s: %w", name, pe.Err)
	}
	return data, err
}

// inFile puts the file's name and, where known, the line before each error.
func inFile(name string, err error) error {
	var lines []string
	var we wireframe.Errors
	var le export.LineErrors
	switch {
	case errors.As(err, &we):
		for _, e := range we {
			lines = append(lines, fmt.Sprintf("%s:%d: %s: %s; %s", name, e.Line, e.Path, e.What, e.Hint))
		}
	case errors.As(err, &le):
		for _, e := range le {
			lines = append(lines, fmt.Sprintf("%s:%d: %s: %s; %s", name, e.Line, e.Column, e.What, e.Hint))
		}
	default:
		for l := range strings.SplitSeq(err.Error(), "\n") {
			lines = append(lines, name+": "+l)
		}
	}
	return errors.New(strings.Join(lines, "\n"))
}

func printJSON(w io.Writer, v any) error {
	e := json.NewEncoder(w)
	e.SetIndent("", " ")
	e.SetEscapeHTML(false)
	return e.Encode(v)
}
