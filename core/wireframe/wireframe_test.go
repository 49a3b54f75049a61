package wireframe_test

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/wireframe"
)

func Example() {
	_, err := wireframe.Read([]byte("{\"wireframe\": 1,\n\"joints\": {\"a\": [0,0,0], \"b\": [9,0,0]},\n\"pipes\": [[\"a\", \"c\"]]}"))
	fmt.Println(err)
	// Output: line 3, /pipes/0: there is no joint "c"; name a joint under joints
}

// Reading, writing and reading again gives the same frame, for every case.
func TestRoundTrip(t *testing.T) {
	files, err := filepath.Glob("../../testdata/cases/*.wireframe.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, name := range files {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		first, err := wireframe.Read(data)
		require.NoError(t, err, name)
		g, err := frame.Expand(first)
		require.NoError(t, err)
		written, lost, err := wireframe.Write(g, layout.Locate(g, nil, nil).Points)
		require.NoError(t, err)
		assert.Empty(t, lost)
		second, err := wireframe.Read(written)
		require.NoError(t, err, name)
		if first.Seats == nil {
			second.Seats = nil // defaults are written out
		}
		assert.Equal(t, first, second, name)
	}
}

func TestWhatTheFormCannotCarryIsNamed(t *testing.T) {
	d, err := wireframe.Read([]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[30,0,0],"c":[60,0,0]},"pipes":[["a","b"],["b","c"]]}`))
	require.NoError(t, err)
	d.Root.Pipes[0].AtEnd = &[2]frame.Insertion{{}, {Mode: frame.Pinned}}
	g, err := frame.Expand(d)
	require.NoError(t, err)
	_, lost, err := wireframe.Write(g, layout.Locate(g, nil, nil).Points)
	require.NoError(t, err)
	assert.Contains(t, lost, "how the joint b is held")
}

func TestFaultsAreRefusedWithTheirPlace(t *testing.T) {
	for text, path := range map[string]string{
		`{"wireframe":2,"joints":{"a":[0,0,0]}}`:                   "/wireframe",
		`{"wireframe":1,"units":"ft","joints":{"a":[0,0,0]}}`:      "/units",
		`{"wireframe":1,"size":"7/8","joints":{"a":[0,0,0]}}`:      "/size",
		`{"wireframe":1,"mode":"glued","joints":{"a":[0,0,0]}}`:    "/mode",
		`{"wireframe":1,"seat":{"slip":0},"joints":{"a":[0,0,0]}}`: "/seat/slip",
		`{"wireframe":1}`:                                                                                                 "/joints",
		`{"wireframe":1,"joints":{"a":[0,0]}}`:                                                                            "/joints/a",
		`{"wireframe":1,"joints":{"a":[0,0,1e9]}}`:                                                                        "/joints/a",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[0,0,0]},"pipes":[["a","b"]]}`:                                          "/pipes/0",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a","b"],["b","a"]]}`:                                "/pipes/1",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a"]]}`:                                              "/pipes/0",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[{"from":"a","to":"b","size":"9"}]}`:                   "/pipes/0",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a","b"]],"ends":{"x":"cap"}}`:                       "/ends/x",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a","b"]],"ends":{"a":"hat"}}`:                       "/ends/a",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a","b"]],"modes":{"a":"pinned"}}`:                   "/modes/a",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a","b"]],"fittings":{"a":"wye"}}`:                   "/fittings/a",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0]},"pipes":[["a","b"]],"fittings":{"a":7}}`:                       "/fittings/a",
		`{"wireframe":1,"joints":{"a~/":[0,0,0],"b":[9,0,0]},"pipes":[["a~/","b"]],"modes":{"a~/":"x"}}`:                  "/modes/a~0~1",
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[9,0,0],"c":[9,9,0]},"pipes":[["a","b"],["b","c"]],"ends":{"b":"cap"}}`: "/ends/b",
	} {
		_, err := wireframe.Read([]byte(text))
		var es wireframe.Errors
		if assert.ErrorAs(t, err, &es, text) {
			assert.Equal(t, path, es[0].Path, text)
			assert.NotEmpty(t, es[0].Hint)
		}
	}
	_, err := wireframe.Read([]byte("{\n\"wireframe\": 1,\n\"joints\": oops}"))
	var es wireframe.Errors
	require.ErrorAs(t, err, &es)
	assert.Equal(t, 3, es[0].Line)
	_, err = wireframe.Read([]byte(`[]`))
	assert.ErrorContains(t, err, "array stands where an object belongs")
	_, err = wireframe.Read([]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"a":[9,0,0]}}`))
	assert.ErrorContains(t, err, "twice")
}

func TestUnitsSeatsAndLonelyJoints(t *testing.T) {
	d, err := wireframe.Read(
		[]byte(
			`{"wireframe":1,"units":"mm","seat":{"slip":0.9},"joints":{"a":[0,0,0],"b":[600,0,0],"lonely":[0,0,-900]},"pipes":[["a","b"]]}`,
		),
	)
	require.NoError(t, err)
	assert.Equal(t, 600*measure.Millimetre, d.Root.Sizes[0].Value)
	assert.InDelta(t, 0.9, d.Seat(frame.Slip), 0)
	assert.InDelta(t, 1, d.Seat(frame.Cemented), 0, "a missing key keeps its default")
	g, err := frame.Expand(d)
	require.NoError(t, err)
	assert.Zero(t, layout.Locate(g, nil, nil).Floor, "a joint without pipes counts for nothing")
}

func FuzzRead(f *testing.F) {
	files, err := filepath.Glob("../../testdata/cases/*.wireframe.json")
	require.NoError(f, err)
	for _, name := range files {
		data, err := os.ReadFile(name)
		require.NoError(f, err)
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		d, err := wireframe.Read(data)
		if err != nil {
			var es wireframe.Errors
			require.ErrorAs(t, err, &es)
			return
		}
		_, err = json.Marshal(d)
		require.NoError(t, err)
		_, err = frame.Expand(d)
		require.NoError(t, err, "what was read can be planned")
	})
}
