package main

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/store"
)

// run runs the command in process and gives what it printed and its exit code.
func run(t *testing.T, stdin string, args ...string) (out string, code int) {
	c := root()
	var b bytes.Buffer
	c.SetArgs(args)
	c.SetIn(strings.NewReader(stdin))
	c.SetOut(&b)
	c.SetErr(&b)
	code = exitCode(c.ExecuteContext(t.Context()), &b)
	return b.String(), code
}

const cases = "../../testdata/cases/"

func TestPlanSummaryOfEveryCase(t *testing.T) {
	files, err := filepath.Glob(cases + "*.wireframe.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, f := range files {
		out, code := run(t, "", "plan", f, "--summary", "--kerf", "0.125")
		require.Zero(t, code, out)
		var got, want struct {
			Pieces []struct {
				Size  string  `json:"size"`
				Cut   float64 `json:"cut_in"`
				Count int     `json:"count"`
			} `json:"pieces"`
			Overall []float64 `json:"overall_in"`
			Buy     []struct {
				Size  string `json:"size"`
				Count int    `json:"count"`
			} `json:"buy"`
			Sticks map[string]map[string]int `json:"sticks"`
		}
		require.NoError(t, json.Unmarshal([]byte(out), &got), out)
		data, err := os.ReadFile(strings.Replace(f, ".wireframe.", ".expected.", 1))
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(data, &want))
		require.Len(t, got.Pieces, len(want.Pieces), f)
		for i, p := range want.Pieces {
			assert.Equal(t, p.Size, got.Pieces[i].Size)
			assert.Equal(t, p.Count, got.Pieces[i].Count)
			assert.InDelta(t, p.Cut, got.Pieces[i].Cut, 1.0/16+1e-9)
		}
		for a := range want.Overall {
			assert.InDelta(t, want.Overall[a], got.Overall[a], 0.1)
		}
		for _, b := range got.Buy {
			assert.Equal(t, want.Sticks[b.Size]["0.125"], b.Count)
		}
	}
}

func TestPricesAndSeveralLengths(t *testing.T) {
	out, code := run(t, "", "plan", cases+"weave.wireframe.json", "--summary", "--kerf", "1/8", "--stock", "120@640", "--stock", "60@399")
	require.Zero(t, code, out)
	var s struct {
		Cost   *int `json:"cost_cents"`
		Bound  int  `json:"bound"`
		Proven bool `json:"proven"`
	}
	require.NoError(t, json.Unmarshal([]byte(out), &s))
	assert.Equal(t, 3*640, *s.Cost, "three long sticks are cheaper than any with short ones")
	assert.Equal(t, 3*640, s.Bound)
	assert.True(t, s.Proven)
}

func TestCutAlone(t *testing.T) {
	list := "size,length,count\n3/4,24,2\n3/4,18,1\n3/4,15,2\n3/4,12,4\n3/4,7,4\n3/4,2,2\n"
	out, code := run(t, list, "cut", "-", "--stock", "60", "--kerf", "0.125", "--summary")
	require.Zero(t, code, out)
	var s cutSummary
	require.NoError(t, json.Unmarshal([]byte(out), &s))
	require.Len(t, s.Sticks, 3)
	assert.Equal(t, map[string]any{"3/4": 3.0}, s.Bound)
	assert.True(t, s.Proven)
	assert.Nil(t, s.CostCents)
	for _, st := range s.Sticks {
		sum := 0.125 * float64(len(st.Pieces)-1)
		for _, p := range st.Pieces {
			sum += p
		}
		assert.InDelta(t, 60, sum+st.LeftIn, 1e-9)
	}
	human, code := run(t, list, "cut", "-", "--stock", "60")
	assert.Zero(t, code)
	assert.Contains(t, human, "3 to buy")
	_, code = run(t, "3/4,70,1", "cut", "-", "--stock", "60")
	assert.Equal(t, 3, code, "planned, but not everything can be cut")
}

func TestHumanOutputAndExitCodes(t *testing.T) {
	out, code := run(t, "", "plan", cases+"jump.wireframe.json")
	assert.Zero(t, code)
	assert.Regexp(t, regexp.MustCompile(`A\s+1\s+×\s+46 7/8"`), out)
	assert.NotContains(t, out, "\x1b[", "no colours away from a terminal")
	out, code = run(t, "", "plan", cases+"close-coupled.wireframe.json")
	assert.Equal(t, 3, code)
	assert.Contains(t, out, "too short")

	bad := filepath.Join(t.TempDir(), "bad.json")
	require.NoError(t, os.WriteFile(bad, []byte("{\"wireframe\":1,\n\"joints\":{\"a\":[0,0,0]},\n\"pipes\":[[\"a\",\"b\"]]}"), 0o600))
	out, code = run(t, "", "plan", bad)
	assert.Equal(t, 1, code)
	assert.Contains(t, out, bad+":3: /pipes/0")
	out, code = run(t, "3/4,x,1", "cut", "-")
	assert.Equal(t, 1, code)
	assert.Contains(t, out, "-:1: length")
	for _, args := range [][]string{{"plan"}, {"fly"}, {"plan", bad, "--kerf", "wide"}, {"plan", bad, "--stock", "120@cheap"}, {"plan", bad, "--stock", "0"}, {"plan", bad, "--step", "0"}, {"plan", bad, "--json", "--summary"}} {
		_, code = run(t, "", args...)
		assert.Equal(t, 2, code, args)
	}
	_, code = run(t, "", "plan", "nowhere.json")
	assert.Equal(t, 1, code)
	out, code = run(t, "", "version")
	assert.Zero(t, code)
	assert.Contains(t, out, "sturdyelbow")
}

func TestMetricStep(t *testing.T) {
	out, code := run(t, "", "plan", cases+"reach.wireframe.json", "--json", "--step", "1 mm")
	require.Zero(t, code, out)
	var p struct {
		Cuts []struct {
			Cut int64 `json:"cut"`
		} `json:"cuts"`
	}
	require.NoError(t, json.Unmarshal([]byte(out), &p))
	for _, c := range p.Cuts {
		assert.Zero(t, c.Cut%1_000_000, "whole millimetres")
	}
}

func TestDemoServesAndBackupCopies(t *testing.T) {
	data := filepath.Join(t.TempDir(), "x[1] *?") // a name that means something to a shell is one like another
	ctx, stop := context.WithCancel(t.Context())
	r, w, err := os.Pipe()
	require.NoError(t, err)
	c := root()
	c.SetArgs([]string{"demo", "--addr", "127.0.0.1:0", "--data", data})
	c.SetOut(w)
	ended := make(chan error, 1)
	go func() { ended <- c.ExecuteContext(ctx) }()
	line := make([]byte, 200)
	n, err := r.Read(line)
	require.NoError(t, err)
	url := regexp.MustCompile(`http://\S+`).FindString(string(line[:n]))
	require.NotEmpty(t, url)
	client := http.Client{Timeout: 10 * time.Second}
	res, err := client.Get(url + "/api/projects")
	require.NoError(t, err)
	var projects []struct{ ID, Name string }
	require.NoError(t, json.NewDecoder(res.Body).Decode(&projects))
	require.NoError(t, res.Body.Close())
	assert.GreaterOrEqual(t, len(projects), 4)

	copied := filepath.Join(t.TempDir(), "copy.db")
	out, code := run(t, "", "backup", copied, "--data", data) // while it serves
	assert.Zero(t, code, out)
	assert.FileExists(t, copied)
	_, code = run(t, "", "backup", copied, "--data", data)
	assert.Equal(t, 1, code, "never over another file")
	_, code = run(t, "", "backup", copied+"2", "--data", t.TempDir())
	assert.Equal(t, 1, code, "nothing to copy")
	out, code = run(t, "", "check", "--data", data)
	assert.Zero(t, code, out)
	assert.Contains(t, out, "is sound: 11 projects")
	for _, args := range [][]string{{"restore", copied, "--data", data}, {"serve", "--addr", "127.0.0.1:0", "--data", data}} {
		out, code = run(t, "", args...)
		assert.Equal(t, 1, code, args)
		assert.Contains(t, out, "stop it first", "a server has it")
	}
	req, err := http.NewRequestWithContext(t.Context(), http.MethodDelete, url+"/api/projects/"+projects[0].ID, nil)
	require.NoError(t, err)
	res, err = client.Do(req)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	client.CloseIdleConnections()
	stop()
	require.NoError(t, <-ended)
	out, code = run(t, "", "restore", copied, "--data", data)
	assert.Zero(t, code, out)
	assert.Contains(t, out, "what was there is kept as")
	st, err := store.Open(t.Context(), data)
	require.NoError(t, err)
	all, err := st.Projects(t.Context())
	require.NoError(t, err)
	assert.Len(t, all, len(projects), "the deleted one is back")
	require.NoError(t, st.Close())
	for _, addr := range []string{":7655", "nonsense"} {
		_, code = run(t, "", "serve", "--addr", addr, "--data", t.TempDir())
		assert.Equal(t, 1, code)
	}
}

// A database that cannot be opened is left as it is, and the command says what is the
// matter and what to do.
func TestADatabaseThatCannotBeServed(t *testing.T) {
	data := t.TempDir()
	path := filepath.Join(data, store.FileName)
	require.NoError(t, os.WriteFile(path, []byte("this is a letter, and no database"), 0o600))
	for _, args := range [][]string{{"serve", "--addr", "127.0.0.1:0", "--data", data}, {"check", "--data", data}} {
		out, code := run(t, "", args...)
		assert.Equal(t, 1, code, args)
		assert.Contains(t, out, "damaged", args)
		assert.Contains(t, out, "not a database", args)
	}
	out, code := run(t, "", "restore", path, "--data", t.TempDir())
	assert.Equal(t, 1, code)
	assert.Contains(t, out, "is damaged itself")
	out, code = run(t, "", "check", filepath.Join(data, "none.db"))
	assert.Equal(t, 1, code)
	assert.Contains(t, out, "there is no database")
	out, code = run(t, "", "restore", filepath.Join(data, "none.db"), "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, out, "there is no database")
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, "this is a letter, and no database", string(text))
}
