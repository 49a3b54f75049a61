package e2e_test

import (
	"context"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/lines"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

// told reads a build as it is told: its lines, without those that say nothing.
func told(t *testing.T, name string) (text string, said []string) {
	data, err := os.ReadFile("../testdata/builds/" + name + ".txt")
	require.NoError(t, err)
	all, err := lines.Parse(string(data))
	require.NoError(t, err)
	for _, l := range all {
		if before, _, _ := strings.Cut(l.Text, "#"); strings.TrimSpace(before) != "" {
			said = append(said, l.Text)
		}
	}
	return string(data), said
}

// comesTo is what a project comes to: its pieces, fittings and what is wrong with it.
func comesTo(t *testing.T, p *project.Project) (out []string) {
	job, err := p.Job()
	require.NoError(t, err)
	made, err := plan.Make(t.Context(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	for _, c := range made.Cuts {
		out = append(out, fmt.Sprintf("%d × %s %s", c.Count, c.Size, c.Cut))
	}
	for _, f := range made.Fittings {
		out = append(out, fmt.Sprintf("%d × %s %s", f.Count, f.Size, f.Kind))
	}
	for _, f := range made.Findings {
		out = append(out, f.Code)
	}
	return out
}

// drawnFrom is what a text of lines comes to.
func drawnFrom(t *testing.T, text string) []string {
	all, err := lines.Parse(text)
	require.NoError(t, err)
	shop := plan.ExampleShop()
	p, _, err := (&project.Project{Name: "My frame", Units: "in", Style: "inches", Copies: 1, Tool: "saw"}).Draw(
		context.Background(),
		all,
		project.Workshop{Shop: &shop},
	)
	require.NoError(t, err)
	require.Nil(t, p.Page.Wrong)
	return comesTo(t, p)
}

// stored is what the page's project comes to, once it is saved.
func (d *drawer) stored(w *workshop) []string {
	d.see("Saved")
	path := d.MustEval(`() => location.pathname`).Str()
	s, err := w.store.Project(d.t.Context(), strings.Split(path, "/")[2])
	require.NoError(d.t, err)
	p, err := project.Decode(s.Body)
	require.NoError(d.t, err)
	return comesTo(d.t, p)
}

// drawn waits until so many lines are drawn, and none waits or is refused.
func (d *drawer) drawn(line string, n int) {
	d.t.Helper()
	d.until(
		fmt.Sprintf("%s: line %d is drawn", line, n),
		`n => new RegExp("^" + n + " lines?$").test(document.querySelector("#lines-head .drawer-told")?.innerText ?? "")
			&& !document.querySelector(".walk [role=alert]")`,
		n,
	)
	d.actions++
}

// Builds as a builder tells them, by keyboard alone: each line goes in as it is told, in the order in
// which it is told, and nothing is asked, refused or found that the build does not deserve.
func TestBuildsByKeyboard(t *testing.T) {
	names := []string{"01-lead-stand", "02-ramp-stalls", "11-rain-tunnel", "16-shade-ring", "18-low-trestle", "20-judges-desk"}
	if os.Getenv("ALL_BUILDS") != "" {
		names = nil
		files, err := os.ReadDir("../testdata/builds")
		require.NoError(t, err)
		for _, f := range files {
			names = append(names, strings.TrimSuffix(f.Name(), ".txt"))
		}
	}
	for _, name := range names {
		t.Run(name, func(t *testing.T) {
			text, said := told(t, name)
			w := open(t)
			d := w.blank()
			began := time.Now()
			d.keys(input.KeyI)
			d.until("the line has the focus", `() => document.activeElement?.matches("[data-walk]")`)
			for i, line := range said {
				d.retype(line)
				d.keys(input.Escape, input.Enter)
				d.drawn(line, i+1)
			}
			t.Logf("%s: %d actions, %.0f s", name, d.actions, time.Since(began).Seconds())
			assert.Equal(t, drawnFrom(t, text), d.stored(w))
			if name == "18-low-trestle" {
				d.ctrl(input.KeyZ)
				d.drawn("undone", len(said)-1)
				d.axe("the Frame lens with its lines")
			}
		})
	}
}

// The same with the mouse: the direction by its button, and the line run by its own.
func TestBuildsByMouse(t *testing.T) {
	for _, name := range []string{"07-sign-stand", "10-glove-rack"} {
		t.Run(name, func(t *testing.T) {
			text, said := told(t, name)
			w := open(t)
			d := w.blank()
			for i, line := range said {
				d.until("the line is empty", `() => document.querySelector("[data-walk]").value === ""`)
				way, rest, _ := strings.Cut(line, " ")
				if d.MustEval(`w => [...document.querySelectorAll(".walk-way")].some(b => b.innerText.trim().endsWith(w) && !b.disabled)`, way).
					Bool() &&
					i > 1 {
					d.MustElementR(".walk-way", way+"$").MustClick()
					d.until("the direction is in the line", `w => document.querySelector("[data-walk]").value === w + " "`, way)
					require.NoError(t, d.InsertText(rest))
				} else {
					d.MustElement("[data-walk]").MustClick()
					require.NoError(t, d.InsertText(line))
				}
				d.keys(input.Escape) // no words are offered over the button
				d.MustElementR(".walk button", "^Run$").MustClick()
				d.drawn(line, i+1)
			}
			assert.Equal(t, drawnFrom(t, text), d.stored(w))
		})
	}
}

// A whole frame is pasted as lines, and a line that fails says why and leaves those before it; it is
// mended in its place, what waited is drawn, and the text is the same that was pasted.
func TestAPageOfLinesIsPasted(t *testing.T) {
	for _, name := range []string{"04-sponsor-wall", "15-ramp-cradle"} {
		t.Run(name, func(t *testing.T) {
			text, _ := told(t, name)
			all, err := lines.Parse(text)
			require.NoError(t, err)
			w := open(t)
			d := w.blank()
			d.press("Paste lines")
			broken := strings.Replace(text, all[4].Text, all[4].Text+"s", 1)
			require.NotEqual(t, text, broken)
			d.MustElement(".drawer-body textarea").MustInput(broken)
			d.press("Draw them")
			d.until("the line says why", `() => document.querySelector(".lines-wrong [role=alert]") !== null`)
			d.until("those before it are drawn", `n => document.querySelectorAll(".lines-row:not(.lines-waits)").length === n`, 4)
			d.axe("lines that wait")
			d.press("Line 5")
			d.until("the line is a field", `() => document.querySelector('input[aria-label="Line 5"]') === document.activeElement`)
			d.retype(all[4].Text)
			d.keys(input.Enter)
			d.until("all are drawn", `n => document.querySelectorAll(".lines-row:not(.lines-waits)").length === n`, len(all))
			assert.Equal(t, drawnFrom(t, text), d.stored(w))

			d.press("Take line " + fmt.Sprint(len(all)) + " away")
			d.until("it is gone", `n => document.querySelectorAll(".lines-row").length === n`, len(all)-1)
			d.MustElement(".stage-list").MustFocus()
			d.ctrl(input.KeyZ)
			d.until("and back", `n => document.querySelectorAll(".lines-row:not(.lines-waits)").length === n`, len(all))
			d.MustSetViewport(390, 844, 2, true)
			d.axe("lines on a phone")
			d.dark()
			d.axe("lines on a phone in the dark")
		})
	}
}

// What is offered while a line is typed is taken by Tab, by arrows, or by a press; what is marked
// is run from, each.
func TestALineIsCompleted(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 24 cut", 1)
	d.line("up 12 cut", 2)
	value := func() string { return d.MustElement("[data-walk]").MustProperty("value").Str() }
	d.retype("lef")
	d.until("it is offered", `() => document.querySelector(".walk-words [role=option]")?.innerText.startsWith("left")`)
	d.keys(input.Tab)
	d.until("it is taken", `() => document.querySelector("[data-walk]").value === "left "`)
	d.until(
		"what lies that way is offered",
		`() => [...document.querySelectorAll(".walk-words [role=option]")].some(o => o.innerText.startsWith("to j1"))`,
	)
	d.axe("words that are offered")
	d.keys(input.ArrowDown, input.Tab)
	assert.Equal(t, "left to j1 ", value())
	d.keys(input.Enter)
	d.has("level with j1", 3)
	d.mark("j1")
	d.mark("j2")
	d.line("near 6 cut capped", 5) // from both
	d.retype("j3: split")
	d.keys(input.Escape, input.Enter)
	d.until("it is refused beside the line", `() => document.querySelector(".walk [role=alert]") !== null`)
	assert.Equal(t, "j3: split", value())
}

// A text of lines opens like any file; what it cannot draw waits on its page.
func TestATextOfLinesIsOpened(t *testing.T) {
	w := open(t)
	p := w.window("/")
	file := t.TempDir() + "/gate.txt"
	require.NoError(t, os.WriteFile(file, []byte("# Gate\nright 30 cut\nup 40 cut\nleft to j1\ndown to j9\n"), 0o600))
	p.see("Open a file")
	p.MustElement(`input[type="file"]`).MustSetFiles(file)
	p.see("How big?")
	p.lens("Frame")
	p.see("There is no joint, place or pipe")
	p.until("three are drawn", `() => document.querySelectorAll(".lines-row:not(.lines-waits)").length === 4`)
	p.until("it is named for its file", `() => document.title.startsWith("gate")`)

	// a size that is typed over stands where it will be drawn: before the line that waits
	p.lens("Size")
	p.write("j1 → j2, wide", "32 cut")
	p.lens("Frame")
	p.until(
		"the size is a line",
		`() => [...document.querySelectorAll(".lines-row")].findIndex(r => /retype s1 32 cut\s+typed beside/.test(r.innerText)) === 4`,
	)
}

// Starters are found in a builder's own words.
func TestAStarterIsFound(t *testing.T) {
	w := open(t)
	p := w.window("/new")
	p.see("From nothing")
	search := p.MustElement(`input[type="search"]`)
	for typed, name := range map[string]string{
		"hold a load up off the ground": "Table or shelf frame", "a wall": "Wall with C feet", "a tunnel": "Tunnel of sprung hoops", "on wheels": "Hand cart",
	} {
		search.MustSelectAllText().MustInput(typed)
		p.until(
			typed,
			`n => document.querySelectorAll(".card-name").length < 6 && [...document.querySelectorAll(".card-name")].some(c => c.innerText.startsWith(n))`,
			name,
		)
	}
	p.axe("starters that were sought")
	search.MustSelectAllText().MustInput("castle")
	p.see("No starter is for that")
	search.MustSelectAllText().MustInput("mascot")
	p.see("Figure with arms")
	p.press("Figure with arms")
	p.see("How big?")
}
