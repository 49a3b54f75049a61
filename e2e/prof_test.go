package e2e_test

import (
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

func TestProf(t *testing.T) {
	if os.Getenv("PROF") == "" {
		t.Skip()
	}
	w := open(t)
	p := w.window("/p/" + w.project(os.Getenv("PROF")))
	p.turning()
	var events []map[string]any
	done := make(chan struct{})
	go p.Browser().EachEvent(func(e *proto.TracingDataCollected) {
		for _, v := range e.Value {
			m := map[string]any{}
			for k, x := range v {
				m[k] = x.Val()
			}
			events = append(events, m)
		}
	}, func(e *proto.TracingTracingComplete) bool { close(done); return true })()
	require.NoError(t, proto.TracingStart{Categories: "devtools.timeline,disabled-by-default-devtools.timeline,toplevel,cc,gpu,viz", TransferMode: "ReportEvents"}.Call(p.Browser()))
	var texts []string
	for k := range 40 {
		texts = append(texts, []string{"40 1/2", "45", "38 5/8", "44 1/4"}[k%4])
	}
	label := "Width"
	if os.Getenv("PROF") == "Octagon hoop" {
		label = "x0 → x1"
	}
	times := floats(p, edits, label, texts)
	slices.Sort(times)
	t.Log(times[len(times)/2], times[len(times)-1])
	require.NoError(t, proto.TracingEnd{}.Call(p.Browser()))
	<-done
	names := map[string]string{}
	for _, e := range events {
		if e["name"] == "thread_name" {
			names[fmt.Sprint(e["pid"], e["tid"])] = fmt.Sprint(e["args"])
		}
	}
	sum := map[string]float64{}
	for _, e := range events {
		if d, ok := e["dur"].(float64); ok {
			th := names[fmt.Sprint(e["pid"], e["tid"])]
			sum[fmt.Sprintf("%s | %v", th, e["name"])] += d / 1000
		}
	}
	var ks []string
	for k := range sum {
		ks = append(ks, k)
	}
	slices.SortFunc(ks, func(a, b string) int { return int(sum[b] - sum[a]) })
	for _, k := range ks[:min(60, len(ks))] {
		t.Logf("%8.1f ms  %s", sum[k], k)
	}
}
