package main

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
)

const gate = `# a gate
size 3/4
right 24 cut   # j1, j2
up 30 cut      # j3
left to j1     # level with it
down to j1     # meets it
`

// A file of lines is drawn and planned; the summary is that of plan.
func TestDrawPlansAFileOfLines(t *testing.T) {
	file := t.TempDir() + "/gate.txt"
	require.NoError(t, os.WriteFile(file, []byte(gate), 0o600))
	out, code := run(t, "", "draw", file, "--summary", "--kerf", "1/8")
	require.Zero(t, code, out)
	var s struct {
		Pieces []struct {
			Size  string  `json:"size"`
			Cut   float64 `json:"cut_in"`
			Count int     `json:"count"`
		} `json:"pieces"`
		Fittings []struct {
			Kind  string `json:"kind"`
			Count int    `json:"count"`
		} `json:"fittings"`
		Warnings [][]string `json:"warnings"`
	}
	require.NoError(t, json.Unmarshal([]byte(out), &s), out)
	require.Len(t, s.Pieces, 2)
	for _, p := range s.Pieces {
		assert.Equal(t, 2, p.Count)
		assert.Contains(t, []float64{24, 30}, p.Cut)
	}
	require.Len(t, s.Fittings, 1)
	assert.Equal(t, "elbow-90", s.Fittings[0].Kind)
	assert.Equal(t, 4, s.Fittings[0].Count)
	assert.Empty(t, s.Warnings)

	out, code = run(t, gate, "draw", "-", "--stock", "60")
	assert.Zero(t, code, out)
	assert.Contains(t, out, "3/4 pipe: 2 to buy")
	out, code = run(t, "", "draw", file, "--save")
	require.Zero(t, code, out)
	var doc frame.Document
	require.NoError(t, json.Unmarshal([]byte(out), &doc))
	assert.Equal(t, "gate", doc.Name)
	assert.Len(t, doc.Root.Pipes, 4)
	saved := t.TempDir() + "/gate.json"
	out, code = run(t, "", "draw", file, "--save="+saved)
	assert.Zero(t, code, out)
	assert.FileExists(t, saved)
}

// A line that cannot be drawn is named with its place, why, and what would mend it.
func TestDrawSaysWhichLineFails(t *testing.T) {
	for text, want := range map[string]string{
		"right 24 cut\nup 4 cats\n":                                 `-:2:6: "cats"`,
		"right 24 cut\n\n# so\nj9: up 4\n":                          `-:4:1: there is no joint "j9"`,
		"right 24 cut\nup 10 cut\nj1: up 10 1/4 cut\nright to j3\n": "write an answer after the line: (",
		"sideways 4\n": "begins no line",
	} {
		out, code := run(t, text, "draw", "-")
		assert.Equal(t, 1, code, text)
		assert.Contains(t, out, want)
		assert.NotContains(t, out, "⟨", "things go by their names")
	}
	out, code := run(t, "right 24\n", "draw", "-", "--summary", "--save")
	assert.Equal(t, 2, code, out)
	_, code = run(t, "", "draw", "no such file.txt")
	assert.Equal(t, 1, code)
	out, code = run(t, "right 24\n", "draw", "-", "--kerf", "wide")
	assert.Equal(t, 2, code, out)
}
