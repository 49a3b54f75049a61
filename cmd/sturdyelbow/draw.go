package main

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

func drawCommand() *cobra.Command {
	var f planning
	var save string
	c := &cobra.Command{
		Use: "draw FILE", Short: "Draw a frame from a file of lines, and plan it (- reads standard input)", Args: cobra.ExactArgs(1),
		Long: "Draws a frame from lines such as \"right 24 cut\", one a row, and plans it.\n" +
			"A line that cannot be drawn is named, with what would mend it; nothing after it is drawn.\n" +
			"docs/lines.md tells all that can be said.",
		RunE: func(c *cobra.Command, args []string) error {
			job, shop, data, err := f.open(c, args[0])
			if err != nil {
				return err
			}
			all, err := lines.Parse(string(data))
			if err != nil {
				return failed(inFile(args[0], err))
			}
			copies := 1
			for i := range all {
				if many, said := all[i].HowMany(); said {
					copies, all[i].Text = many, ""
				}
			}
			tools, err := plan.LineTools(c.Context(), job, &shop)
			if err != nil {
				return failed(err)
			}
			page, doc, _ := (&lines.Page{Lines: all}).Draw(project.Blank(nameOf(args[0]), measure.Inches), tools)
			if w := page.Wrong; w != nil {
				return failed(fmt.Errorf(
					"%s:%d:%d: %s; %s", args[0], w.Line+1, w.At+1, mention.ByID(w.What), mention.ByID(w.Hint),
				))
			}
			switch {
			case save == "-":
				return failed(printJSON(c.OutOrStdout(), doc))
			case save != "":
				return failed(saveFrame(save, doc))
			}
			return f.print(c, job, shop, doc, copies)
		},
	}
	f.add(c)
	c.Flags().StringVar(&save, "save", "", "write the frame as JSON, to standard output or to --save=FILE, instead of a plan")
	c.Flags().Lookup("save").NoOptDefVal = "-"
	c.MarkFlagsMutuallyExclusive("save", "summary", "json")
	return c
}

// nameOf is what a frame of a file is called.
func nameOf(file string) string {
	if file == "-" {
		return "Frame"
	}
	return strings.TrimSuffix(filepath.Base(file), filepath.Ext(file))
}

func saveFrame(file string, doc *frame.Document) error {
	data, err := json.MarshalIndent(doc, "", " ")
	if err != nil {
		return err
	}
	return os.WriteFile(file, append(data, '\n'), 0o600)
}
