package e2e_test

import (
	"compress/gzip"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/demo"
	"sturdyelbow/web"
)

// edits types into a field many times and gives, in milliseconds, how long
// the tape took to say something else.
const edits = `async (label, texts) => {
	const l = [...document.querySelectorAll("label")].find(x => x.innerText.trim().startsWith(label));
	const field = document.getElementById(l.htmlFor);
	const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
	const tape = document.querySelector('section[aria-label="The job in one line"]');
	const read = () => [...tape.querySelectorAll(".tape-figure")].map(e => e.innerText).join("|");
	const times = [];
	for (const text of texts) {
		const was = read();
		const t = performance.now();
		set.call(field, text);
		field.dispatchEvent(new Event("input", { bubbles: true }));
		await new Promise(done => {
			const o = new MutationObserver(() => { if (read() !== was) { o.disconnect(); done(); } });
			o.observe(tape, { subtree: true, childList: true, characterData: true });
		});
		times.push(performance.now() - t);
		await new Promise(go => setTimeout(go, 120));
	}
	return times;
}`

// turn pulls the frame round for a while and counts the pictures.
const turn = `async ms => {
	const c = document.querySelector(".stage canvas"), r = c.getBoundingClientRect();
	const at = (type, x) => c.dispatchEvent(new PointerEvent(type, { pointerId: 1, pointerType: "mouse", bubbles: true, button: 0, buttons: 1, clientX: r.x + x, clientY: r.y + r.height - 30 }));
	const tag = document.querySelector(".tag-letter");
	let drawn = 0;
	const o = new MutationObserver(() => drawn++);
	o.observe(tag, { attributes: true, attributeFilter: ["style"] });
	at("pointerdown", 100);
	const start = performance.now();
	let n = 0;
	while (performance.now() - start < ms) {
		document.dispatchEvent(new PointerEvent("pointermove", { pointerId: 1, pointerType: "mouse", bubbles: true, buttons: 1, clientX: r.x + 100 + 3 * ++n, clientY: r.y + r.height - 30 }));
		at("pointermove", 100 + 3 * n);
		await new Promise(requestAnimationFrame);
	}
	document.dispatchEvent(new PointerEvent("pointerup", { pointerId: 1, pointerType: "mouse", bubbles: true }));
	return [n / ((performance.now() - start) / 1000), drawn / ((performance.now() - start) / 1000)];
}`

// pull pulls a station along its ruler and counts the pictures, and how often
// the outside size on the tape follows.
const pull = `async ms => {
	const g = document.querySelector('[data-plane-grip="=right"]'), r = g.getBoundingClientRect();
	const x = r.x + r.width / 2, y = r.y + r.height / 2;
	const at = (type, dx) => g.dispatchEvent(new PointerEvent(type, { pointerId: 1, pointerType: "mouse", bubbles: true, button: 0, buttons: 1, clientX: x + dx, clientY: y + dx / 5 }));
	g.setPointerCapture = () => {};
	let steps = 0;
	const tape = document.querySelector('section[aria-label="The job in one line"]');
	const read = () => [...tape.querySelectorAll(".tape-figure")].map(e => e.innerText).join("|");
	let was = read();
	const o = new MutationObserver(() => { const now = read(); if (now !== was) { was = now; steps++; } });
	o.observe(tape, { subtree: true, childList: true, characterData: true });
	at("pointerdown", 0);
	const start = performance.now();
	let n = 0;
	while (performance.now() - start < ms) {
		n++;
		at("pointermove", 60 * Math.sin(n / 12));
		await new Promise(requestAnimationFrame);
	}
	at("pointerup", 0);
	o.disconnect();
	return [n / ((performance.now() - start) / 1000), steps / ((performance.now() - start) / 1000)];
}`

// TestMeasure reports what the workbench's speed is held to; MEASURE=1 runs
// it. It asserts nothing: times depend on the machine.
func TestMeasure(t *testing.T) {
	if os.Getenv("MEASURE") == "" {
		t.Skip("set MEASURE to have the workbench's speed measured")
	}
	t.Run("script", func(t *testing.T) { measureScript(t) })
	w := open(t)
	measureFirst(t, w)
	all, err := demo.Projects()
	require.NoError(t, err)
	for _, d := range all {
		p := w.window("/p/" + w.project(d.Name))
		p.turning()
		label := "Width"
		if d.Starter == nil {
			label = "x0 → x1"
		}
		if !p.MustEval(`label => [...document.querySelectorAll("label")].some(x => x.innerText.trim().startsWith(label))`, label).Bool() {
			require.NoError(t, p.Browser().Close())
			continue // a tunnel has no width
		}
		var texts []string
		for k := range 40 {
			texts = append(texts, []string{"40 1/2", "45", "38 5/8", "44 1/4"}[k%4])
		}
		times := floats(p, edits, label, texts)
		if os.Getenv("MEASURE") == "all" {
			t.Logf("%.0f", times)
		}
		slices.Sort(times)
		t.Logf(
			"%-26s edit to tape: median %5.1f ms, p95 %5.1f ms, worst %5.1f ms, of %d",
			d.Name,
			times[len(times)/2],
			times[len(times)*95/100],
			times[len(times)-1],
			len(times),
		)
		require.NoError(t, p.Browser().Close()) // what is open elsewhere takes time too
	}
	p := w.window("/p/" + w.project("Club jump"))
	p.Page = p.Page.Timeout(5 * patience)
	p.turning()
	before := heap(t, p)
	for range 5 {
		var texts []string
		for k := range 40 {
			texts = append(texts, []string{"40 1/2", "45", "38 5/8", "44 1/4"}[k%4])
		}
		floats(p, edits, "Width", texts)
	}
	t.Logf("script memory: %.1f MB, after 200 edits %.1f MB", before, heap(t, p))
	require.NoError(t, p.Browser().Close())

	p = w.window("/p/" + w.project("Ring gate screen"))
	p.ready()
	p.write("Bays", "12")
	p.write("Rails", "5")
	p.lens("Cut")
	p.turning()
	pipes := p.MustEval(`() => [...document.querySelectorAll("[role=option]")].filter(e => e.innerText.includes("pipe, cut")).length`).Int()
	fps := floats(p, turn, 4000)
	t.Logf("turning %d pipes: %.0f frames a second, %.0f of them drawn, in software", pipes, fps[0], fps[1])
	p.lens("Frame")
	p.turning()
	p.see("Rulers and bays")
	drag := floats(p, pull, 4000)
	t.Logf(
		"%d pipes, a plane pulled: %.0f frames a second, %.0f steps of the frame a second, %.0f ms a step",
		pipes,
		drag[0],
		drag[1],
		1000/max(drag[1], 0.001),
	)
	p.ctrl(input.KeyZ)
	p.lens("Size")
	p.turning()
	var texts []string
	for k := range 30 {
		texts = append(texts, []string{"12 ft", "146", "12' 4", "150"}[k%4])
	}
	times := floats(p, edits, "Width", texts)
	slices.Sort(times)
	t.Logf(
		"%d pipes edit to tape: median %.1f ms, p95 %.1f ms, worst %.1f ms",
		pipes,
		times[len(times)/2],
		times[len(times)*95/100],
		times[len(times)-1],
	)
}

// firstSecond notes, in milliseconds since the page was asked for, when its text and
// tape stand, when the script has taken over, when the frame is drawn, and when it turns.
const firstSecond = `() => {
	window.first = {};
	const note = (k, is) => { if (!(k in window.first) && is()) window.first[k] = performance.now(); };
	const look = () => {
		note("tape", () => document.querySelectorAll(".tape-figure").length > 3);
		note("drawn", () => document.querySelector(".stage svg.frame"));
		note("script", () => document.querySelector("[role=tab]"));
		note("turns", () => document.querySelector(".stage-labels[data-drawn]"));
		requestAnimationFrame(look);
	};
	requestAnimationFrame(look);
}`

// measureFirst opens projects as a browser does that has nothing of them yet.
func measureFirst(t *testing.T, w *workshop) {
	for _, name := range []string{"Club jump", "Ring gate screen", "Rain tunnel"} {
		at := map[string][]float64{}
		for range 7 {
			p := w.window("/about-nothing.txt")
			_, err := p.EvalOnNewDocument("(" + firstSecond + ")()")
			require.NoError(t, err)
			p.MustNavigate(w.url + "/p/" + w.project(name))
			p.turning()
			p.settled()
			for k, v := range p.MustEval(`() => window.first`).Map() {
				at[k] = append(at[k], v.Num())
			}
			require.NoError(t, p.Browser().Close())
		}
		line := ""
		for _, k := range []string{"tape", "drawn", "script", "turns"} {
			slices.Sort(at[k])
			line += fmt.Sprintf("  %s %.0f (worst %.0f)", k, at[k][len(at[k])/2], at[k][len(at[k])-1])
		}
		t.Logf("%-20s cold, ms, median of %d:%s", name, len(at["tape"]), line)
	}
}

func floats(p *window, js string, args ...any) (out []float64) {
	for _, v := range p.MustEval(js, args...).Arr() {
		out = append(out, v.Num())
	}
	return out
}

// heap gives the script memory in use after a collection, in MB.
func heap(t *testing.T, p *window) float64 {
	require.NoError(t, proto.HeapProfilerCollectGarbage{}.Call(p))
	r, err := proto.RuntimeGetHeapUsage{}.Call(p)
	require.NoError(t, err)
	return r.UsedSize / (1 << 20)
}

// measureScript adds up what a page loads before it shows anything.
func measureScript(t *testing.T) {
	files := web.Files()
	index, err := fs.ReadFile(files, "index.html")
	require.NoError(t, err)
	scripts, err := fs.Glob(files, "assets/*.js")
	require.NoError(t, err)
	first := regexp.MustCompile(`assets/[^"]+\.js`).FindAllString(string(index), -1)
	for _, name := range scripts {
		f, err := files.Open(name)
		require.NoError(t, err)
		n := &counted{}
		z := gzip.NewWriter(n)
		_, err = io.Copy(z, f)
		require.NoError(t, err)
		require.NoError(t, z.Close())
		when := "later"
		if slices.Contains(first, name) {
			when = "at once"
		}
		t.Logf("%-40s %6.1f kB gzip, %s", strings.TrimPrefix(path.Base(name), "assets/"), float64(n.bytes)/1000, when)
	}
}

type counted struct{ bytes int }

func (c *counted) Write(b []byte) (int, error) { c.bytes += len(b); return len(b), nil }
