package e2e_test

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// TestShots takes the pictures of the README when SHOTS names a directory.
func TestShots(t *testing.T) {
	dir := os.Getenv("SHOTS")
	if dir == "" {
		t.Skip("SHOTS names no directory: make shots takes the pictures")
	}
	w := open(t)
	at := func(name string) string { return "/p/" + w.project(name) }
	for _, s := range []struct {
		name, path, see string
		width, height   int
		dark            bool
		then            func(p *window)
	}{
		{"shelf", "/", "ready to buy", 1280, 800, false, nil},
		{"start", "/new", "Jump", 1280, 800, false, nil},
		{"size", at("Club jump"), "How big?", 1280, 800, false, func(p *window) {
			p.turning()
			p.write("Width", "5 ft")
			p.changeIs("outside", "+12″ wide")
			p.see("Saved")
		}},
		{"frame", at("Winners' wall") + "/frame", "What goes where?", 1280, 800, false, func(p *window) {
			p.turning()
			p.press("The lines it is drawn with")
			p.frame(input.ArrowDown, input.ArrowDown)
			p.see("From ")
		}},
		{"question", "/new", "From nothing", 1280, 800, false, func(p *window) {
			p.focus("From nothing")
			p.keys(input.Enter)
			p.turning()
			d := &drawer{window: p}
			for n, course := range []string{"right 48 cut", "j1: up 24 cut", "right 48 cut", "j2: near 12 cut capped", "j1: near 12 cut capped"} {
				d.line(course, n+1)
			}
			p.keys(input.Escape)
			p.frame(input.KeyI)
			p.until("the line has the focus", `() => document.activeElement?.matches("[data-walk]")`)
			d.retype("j2: up 23 1/2 cut")
			p.keys(input.Enter)
			p.asks("ends close")
			p.keys(input.Enter)
			p.see("cannot hold together")
		}},
		{"closing", at("Ring gate screen") + "/frame", "Does it close?", 1280, 800, false, func(p *window) {
			p.turning()
			p.press("Check a list")
			p.MustEval(`() => document.querySelector(".given details summary").click()`)
			p.MustEval(`() => { const f = document.querySelector(".given details .field"); f.focus(); }`)
			require.NoError(p.t, p.InsertText("48"))
			p.see("open")
			p.MustEval(`() => { document.getElementById("closing-head").scrollIntoView(); window.scrollTo(0, 0); }`)
		}},
		{"links", at("Kit cart"), "How big?", 1280, 800, false, func(p *window) {
			p.turning()
			p.lens("Frame")
			p.turning()
			p.see("Bolts, wheels, sliding parts")
			p.MustEval(`() => { document.getElementById("links-head").scrollIntoView(); window.scrollTo(0, 0); }`)
		}},
		{"joints", at("Club jump") + "/joints", "What stays dry?", 1280, 800, false, func(p *window) {
			p.turning()
			p.press("Every foot: leave dry")
		}},
		{"buy", at("Scorekeeper's table") + "/buy", "What to buy", 1280, 800, false, func(p *window) {
			p.turning()
			p.click("[role=checkbox]")
			p.press("1 in side-outlet elbow")
			p.press("Not here")
			p.see("Two fittings that touch")
			p.MustEval(`() => { document.querySelectorAll(".ware-row")[1].scrollIntoView({ block: "center" }); window.scrollTo(0, 0); }`)
		}},
		{"cut", at("Puppy jump") + "/cut", "Where to cut", 1280, 800, false, func(p *window) {
			p.turning()
			p.cutOne()
			p.cutOne()
			p.lens("Size")
			p.write("Width", "35 1/2")
			p.changeIs("outside", "−1⁄2″ wide")
			p.lens("Cut")
			p.see("to trim")
			p.frame(input.KeyG)
		}},
		{"log", at("Puppy jump") + "/log", "What was done", 1280, 800, true, func(p *window) {
			p.turning()
			p.see("Cut a 10′ stick")
			p.MustElementR(".long button.link", ".").MustClick()
			p.see("Go back to it")
			p.MustEval(`() => document.getElementById("log-head").scrollIntoView()`)
		}},
		{"finding", at("Ring gate screen"), "How big?", 1280, 800, false, func(p *window) {
			p.turning()
			p.write("Lowest rail", "3 1/2")
			x, y := p.middle(`() => [...document.querySelectorAll(".tag-finding.is-stop")].find(e => e.style.visibility === "visible" && e.title.includes("two sockets take")) ?? null`)
			p.tap(x, y)
			p.see("Make Lowest rail")
		}},
		{"prices", "/prices", "3/4 in tee", 1280, 800, false, func(p *window) {
			p.press("Paste or open a list")
			p.write("Where they are from", "Corner shop")
			p.write("A thing and its price a line", "3/4 tee .88\n3/4 pipe 10 ft 4.98\n3/4 cap 10 for 6.98\n3/4 elbow, dear")
			p.press("Read it")
			p.see("1 line cannot be read")
		}},
		{"build-sheet", at("Octagon hoop") + "/sheet", "Take care", 1280, 1000, false, nil},
		{"together", "/together?of=" + w.project("Club jump") + "," + w.project("Ring gate screen") + "," + w.project("Octagon hoop"), "apart", 1280, 800, false, nil},
		{"cut-a-list", "/cut", "Paste or type", 1280, 800, false, func(p *window) {
			p.write("Pieces, a line each", "legs: 4 @ 23 5/8 of 3/4 pipe\n3/4 pipe, 18, qty 2\n2 pcs 15 in 3/4 pipe\n12 x4, 3/4\nfour of them")
			p.see("3/4 pipe: ")
		}},
		{"phone-buy", at("Puppy jump") + "/buy", "What to buy", 390, 844, false, func(p *window) { p.click("[role=checkbox]") }},
		{"starter", at("Rain tunnel") + "/frame", "What goes where?", 1280, 800, false, func(p *window) {
			p.turning()
			d := &drawer{window: p}
			d.line("hoop#4/crown: up 12 capped", 12)
			p.lens("Size")
			p.write("Hoops", "3")
			p.press("findings")
			p.see("Set aside for now")
		}},
		{"saw", at("Lead stand") + "/cut#saw", "to go", 390, 844, true, func(p *window) {
			p.press("Cut it")
			p.see("✓")
		}},
	} {
		t.Run(s.name, func(t *testing.T) {
			p := w.window("/nowhere")
			p.t = t
			if s.dark {
				require.NoError(
					t,
					proto.EmulationSetEmulatedMedia{
						Features: []*proto.EmulationMediaFeature{{Name: "prefers-color-scheme", Value: "dark"}},
					}.Call(
						p,
					),
				)
			}
			p.MustSetViewport(s.width, s.height, 1, false)
			p.MustNavigate(w.url + s.path).MustWaitLoad()
			p.see(s.see)
			if s.then != nil {
				s.then(p)
			}
			time.Sleep(1500 * time.Millisecond) // the finely drawn picture of a view that stands still
			shot, err := p.Screenshot(false, &proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(filepath.Join(dir, s.name+".png"), shot, 0o644))
			require.NoError(t, p.Browser().Close())
		})
	}
}
