package plan

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"runtime"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

// bases are the documents that are spoilt: every starter, a frame full of
// contradictions, and one with everything in it that a document can hold.
func bases(t require.TestingT) (all [][]byte) {
	add := func(d any) {
		data, err := json.Marshal(d)
		require.NoError(t, err)
		all = append(all, data)
	}
	for _, s := range starter.All() {
		d, err := s.Build(measure.Inches, nil)
		require.NoError(t, err)
		add(d)
	}
	add(row(12, 4))
	add(lattice(4, 3))
	return all
}

// spoiler changes a document as its bytes say: it takes things away, doubles
// them, puts one in another's place, and writes other numbers and names.
type spoiler struct {
	bytes []byte
	names map[string][]any // strings of the document, by the member they are in
	parts map[string][]any // lists and objects of it
}

func (s *spoiler) next() int {
	if len(s.bytes) == 0 {
		return 0
	}
	b := s.bytes[0]
	s.bytes = s.bytes[1:]
	return int(b)
}

func (s *spoiler) gather(in string, v any) {
	switch v := v.(type) {
	case string:
		s.names[in] = append(s.names[in], v)
	case []any:
		s.parts[in] = append(s.parts[in], v)
		for _, x := range v {
			s.gather(in, x)
		}
	case map[string]any:
		s.parts[in] = append(s.parts[in], v)
		for _, k := range sortedKeys(v) {
			s.gather(k, v[k])
		}
	}
}

// other is something that stands elsewhere in the document under the same name,
// and once in a while under any.
func (s *spoiler) other(in string, of map[string][]any) any {
	if s.next()%16 == 0 || len(of[in]) == 0 {
		keys := slices.Sorted(maps.Keys(of))
		in = keys[s.next()%len(keys)]
	}
	return copied(of[in][(s.next()+256*s.next())%len(of[in])])
}

func sortedKeys(m map[string]any) []string {
	keys := make([]string, 0, len(m))
	for k := range m {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	return keys
}

var oddNumbers = []any{0, 1, -1, 2, 3, 500, 501, 1e9, -1e9, 1e-9, 0.5, 1e300, 25_400_000, 3_048_000_000, 9_000_000_000_000_000}

// spoil gives a value with one change somewhere in it.
func (s *spoiler) spoil(in string, v any) any {
	switch v := v.(type) {
	case map[string]any:
		keys := sortedKeys(v)
		if len(keys) == 0 {
			return v
		}
		k := keys[s.next()%len(keys)]
		if in == "" && s.next()%8 > 0 { // mostly the frame itself
			v["root"] = s.spoil("root", v["root"])
			return v
		}
		switch s.next() % 16 {
		case 0:
			delete(v, k)
		case 1:
			v[k] = s.other(k, s.parts)
		default:
			v[k] = s.spoil(k, v[k])
		}
		return v
	case []any:
		if len(v) == 0 {
			return append(v, s.other(in, s.parts))
		}
		i := s.next() % len(v)
		switch s.next() % 8 {
		case 0:
			return slices.Delete(v, i, i+1)
		case 1: // the same again, and with as many more as a byte says
			for range 1 + s.next()*s.next()/64 {
				v = append(v, copied(v[i]))
			}
			for k := range v {
				renamed(v[k], fmt.Sprintf("~%d", k))
			}
			return v
		case 2:
			v[i], v[0] = v[0], v[i]
			return v
		}
		v[i] = s.spoil(in, v[i])
		return v
	case string:
		return s.other(in, s.names)
	case float64:
		if k := s.next(); k%2 == 0 {
			return math.Round(v*float64(k)/32 + float64(k%5))
		}
		return oddNumbers[s.next()%len(oddNumbers)]
	case bool:
		return !v
	}
	return s.other(in, s.parts)
}

func copied(v any) any {
	data, _ := json.Marshal(v) //nolint:errchkjson // it came from JSON
	var c any
	_ = json.Unmarshal(data, &c)
	return c
}

// renamed gives copies in a list ids of their own, so that they are taken.
func renamed(v any, suffix string) {
	if m, ok := v.(map[string]any); ok {
		if id, ok := m["id"].(string); ok {
			m["id"] = id + suffix
		}
	}
}

// spoilt is a document by its number among the bases and the changes made to it.
func spoilt(t require.TestingT, all [][]byte, data []byte) []byte {
	s := &spoiler{bytes: data}
	var v any
	require.NoError(t, json.Unmarshal(all[s.next()%len(all)], &v))
	for range 1 + s.next()%4 {
		s.names, s.parts = map[string][]any{}, map[string][]any{}
		s.gather("", v)
		v = s.spoil("", v)
	}
	out, err := json.Marshal(v)
	require.NoError(t, err)
	return out
}

// The limits of one plan of one frame.
const (
	mostAllocated = 4 << 30 // bytes in all; what is held at a time is far less
	mostSpent     = 400_000_000
)

// withinLimits plans a document and checks what it cost. It gives how long it
// took, and whether there was a plan.
func withinLimits(t require.TestingT, doc []byte) (took time.Duration, planned bool) {
	var d frame.Document
	if json.Unmarshal(doc, &d) != nil {
		return 0, false
	}
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	began := time.Now()
	p, err := Make(context.Background(), Job{Frames: []FrameUse{{Document: d, Copies: 1}}, Tool: "saw"}, ExampleShop(), Work{})
	took = time.Since(began)
	runtime.ReadMemStats(&after)
	require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(mostAllocated))
	if err != nil {
		require.ErrorAs(t, err, &ValidationError{})
		return took, false
	}
	require.LessOrEqual(t, p.Frames[0].built.Work, 13*constraint.MaxWork)
	for _, m := range p.Pipe {
		require.LessOrEqual(t, m.Stock.Steps, int64(mostSpent))
	}
	return took, true
}

// FuzzMake plans spoilt documents: none makes it panic, and what one costs is
// counted and stays under the limits.
func FuzzMake(f *testing.F) {
	all := bases(f)
	for i := range all {
		f.Add([]byte{byte(i), 3, 7, 2, 9, 4, 1, 5, 3, 6, 2, 8, 11, 13, 17, 19, 23, 29, 31, 37})
	}
	f.Fuzz(func(t *testing.T, data []byte) { withinLimits(t, spoilt(t, all, data)) })
}

// The same over random changes, with the longest time told.
func TestSpoiltDocumentsStayWithinTheLimits(t *testing.T) {
	all := bases(t)
	var longest time.Duration
	var worst []byte
	planned, total := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		doc := spoilt(t, all, rapid.SliceOfN(rapid.Byte(), 8, 90).Draw(t, "bytes"))
		took, ok := withinLimits(t, doc)
		total++
		if ok {
			planned++
		}
		if took > longest {
			longest, worst = took, doc
		}
	})
	t.Logf("%d of %d were planned; the longest took %s: %.300s", planned, total, longest, worst)
	require.Greater(t, planned*50, total, "next to everything that is spoilt is refused: it says little then")
}
