package e2e_test

import (
	"os"
	"path/filepath"
	"testing"

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
	for _, s := range []struct {
		name, path, see string
		width, height   int
		dark            bool
		then            func(p *window)
	}{
		{"projects", "/", "Club jump", 1280, 800, false, nil},
		{"start", "/new", "Jump", 1280, 800, false, nil},
		{"jump", "/p/" + w.project("Club jump"), "Proven", 1280, 800, false, nil},
		{"jump-sheet", "/p/" + w.project("Club jump"), "Proven", 1280, 800, false, func(p *window) {
			p.MustElement("#sticks-head").MustScrollIntoView()
			p.MustEval(`() => document.querySelector("#cut-head").scrollIntoView()`)
			p.press("Show C on the frame")
		}},
		{"hoop-dark", "/p/" + w.project("Octagon hoop"), "Proven", 1280, 800, true, func(p *window) {
			p.MustEval(`() => document.querySelector("#sticks-head").scrollIntoView()`)
		}},
		{"cost", "/p/" + w.project("Ring gate screen"), "Proven", 1280, 800, false, func(p *window) {
			p.MustEval(`() => document.querySelector("#joint-head").scrollIntoView()`)
		}},
		{"cut-a-list", "/cut", "Paste or type", 1280, 800, false, func(p *window) {
			p.write("Pieces, one length", "3/4, 24, 2\n3/4, 18, 1\n3/4, 15, 2\n3/4, 12, 4\n3/4, 7, 4\n3/4, 2, 2")
			p.write("Sticks on sale", "5 ft")
			p.see("3/4 pipe: 3 sticks")
		}},
		{"phone", "/p/" + w.project("Puppy jump"), "Proven", 390, 844, false, nil},
	} {
		t.Run(s.name, func(t *testing.T) {
			p := w.window("/")
			p.t = t
			if s.dark {
				require.NoError(t, proto.EmulationSetEmulatedMedia{Features: []*proto.EmulationMediaFeature{{Name: "prefers-color-scheme", Value: "dark"}}}.Call(p))
			}
			p.MustSetViewport(s.width, s.height, 1, false)
			p.MustNavigate(w.url + s.path).MustWaitLoad()
			p.see(s.see)
			if s.then != nil {
				s.then(p)
			}
			p.MustWaitStable()
			shot, err := p.Screenshot(false, &proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(filepath.Join(dir, s.name+".png"), shot, 0o644))
		})
	}
}
