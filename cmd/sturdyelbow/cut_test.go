package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const stalls = "size,length,count\n3/4,14,12\n3/4,10,4\n3/4,2,16\n3/4,20 1/4,1\n"

// Ramp stalls for a car that takes 5 ft: what is carried is checked by the words of the
// exchange form.
func TestCutForACar(t *testing.T) {
	out, code := run(t, stalls, "cut", "-", "--stock", "120", "--kerf", "0.125", "--haul", "60", "--summary")
	require.Zero(t, code, out)
	var s struct {
		Buy      []struct{ Count int }
		Proven   bool
		ShopCuts []struct {
			StockIn float64   `json:"stock_in"`
			AtIn    []float64 `json:"at_in"`
		}
		Carried []struct {
			LengthIn float64 `json:"length_in"`
			Pieces   []float64
		}
		Warnings [][]any
	}
	require.NoError(t, json.Unmarshal([]byte(out), &s))
	assert.True(t, s.Proven)
	assert.Equal(t, 3, s.Buy[0].Count)
	require.Len(t, s.ShopCuts, 3)
	require.Len(t, s.Carried, 6)
	carried, pieces := 0.0, 0
	for i, c := range s.Carried {
		assert.LessOrEqual(t, c.LengthIn, 60.0)
		need := 0.125 * float64(len(c.Pieces)-1)
		for _, p := range c.Pieces {
			need += p
		}
		if len(c.Pieces) > 0 {
			assert.LessOrEqual(t, need, c.LengthIn-0.125, "one end of each is cut in the shop")
		}
		carried += c.LengthIn
		pieces += len(c.Pieces)
		if i%2 == 1 {
			at := s.ShopCuts[i/2].AtIn
			require.Len(t, at, 1)
			assert.InDelta(t, s.Carried[i-1].LengthIn, at[0], 1e-9)
			assert.InDelta(t, 120, s.Carried[i-1].LengthIn+0.125+c.LengthIn, 1e-9)
		}
	}
	assert.InDelta(t, 3*(120-0.125), carried, 1e-9)
	assert.Equal(t, 33, pieces)

	out, code = run(t, "3/4,61,2\n3/4,20,1\n", "cut", "-", "--haul", "60", "--summary")
	require.Zero(t, code)
	require.NoError(t, json.Unmarshal([]byte(out), &s))
	assert.Equal(t, [][]any{{"too-long", "3/4", 61.0}}, s.Warnings)
	text, code := run(t, "3/4,61,2\n3/4,20,1\n", "cut", "-", "--haul", "60")
	assert.Equal(t, 3, code)
	assert.Contains(t, text, `2 of 3/4 61": longer than what is carried`)
}

// The same for a frame: its summary has what is cut in the shop and what is carried.
func TestPlanForACar(t *testing.T) {
	out, code := run(t, "", "plan", cases+"table.wireframe.json", "--kerf", "1/8", "--haul", "60", "--summary")
	require.Zero(t, code, out)
	var s struct {
		Buy      []struct{ Count int }
		ShopCuts []struct {
			AtIn []float64 `json:"at_in"`
		}
		Carried []struct {
			LengthIn float64 `json:"length_in"`
			Pieces   []float64
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &s))
	require.Equal(t, 1, len(s.Buy))
	assert.Len(t, s.ShopCuts, s.Buy[0].Count)
	assert.Len(t, s.Carried, 2*s.Buy[0].Count)
	pieces := 0
	for _, c := range s.Carried {
		pieces += len(c.Pieces)
		assert.LessOrEqual(t, c.LengthIn, 60.0)
	}
	assert.Equal(t, 12, pieces)
	out, _ = run(t, "", "plan", cases+"table.wireframe.json", "--kerf", "1/8", "--haul", "28", "--summary")
	assert.Contains(t, out, `"too-long"`)
	out, _ = run(t, "", "plan", cases+"table.wireframe.json", "--summary")
	assert.NotContains(t, out, "shopCuts", "nothing is said of a car where there is none")
}

func TestFlagsThatMakeNoSense(t *testing.T) {
	for _, tc := range []struct {
		flags []string
		says  string
	}{
		{[]string{"--haul", "0"}, "--haul 0: nothing can be carried"},
		{[]string{"--haul", "x"}, "--haul:"},
		{[]string{"--haul", "60", "--shop-error", "-1"}, "--shop-error:"},
		{[]string{"--haul", "60", "--free-cuts", "-1"}, "--free-cuts -1"},
		{[]string{"--haul", "60", "--cut-price", "-5"}, "--cut-price -5: write whole cents"},
		{[]string{"--cut-price", "5"}, "say with --haul"},
		{[]string{"--stock", "120@-5"}, `"-5" is not a price; write whole cents, like 120@498`},
		{[]string{"--stock", "120x0"}, `"0" is not a number of sticks`},
		{[]string{"--stock", "0"}, "a stick of no length"},
		{[]string{"--stock", "120="}, "--stock:"},
		{[]string{"--offcut", "5o"}, "--offcut:"},
		{[]string{"--kerf", "-1"}, "--kerf:"},
		{[]string{"--keep", "no/such/file"}, "--keep:"},
	} {
		for _, command := range []string{"cut", "plan"} {
			file := "-"
			if command == "plan" {
				file = cases + "table.wireframe.json"
			}
			out, code := run(t, stalls, append([]string{command, file}, tc.flags...)...)
			assert.Equal(t, 2, code, "%s %v", command, tc.flags)
			assert.Contains(t, out, tc.says, "%s %v", command, tc.flags)
		}
	}
}

// Only so many sticks, true lengths, offcuts with a worth, and pieces that may be shorter.
func TestWhatThereIsToCutFrom(t *testing.T) {
	out, code := run(t, "3/4,24,5\n", "cut", "-", "--stock", "120=120.25", "--kerf", "1/32")
	assert.Zero(t, code)
	assert.Contains(t, out, "1 to buy")
	out, _ = run(t, "3/4,24,5\n", "cut", "-", "--stock", "120", "--kerf", "1/32")
	assert.Contains(t, out, "2 to buy")
	out, code = run(t, "3/4,50,5\n", "cut", "-", "--stock", "120x2@500")
	assert.Equal(t, 3, code)
	assert.Contains(t, out, `1 of 3/4 50": not enough sticks`)
	out, _ = run(t, "3/4,50,1\n", "cut", "-", "--stock", "60@300", "--offcut", "55@350")
	assert.Contains(t, out, "$3.00")
	out, _ = run(t, "3/4,50,1\n", "cut", "-", "--stock", "60@300", "--offcut", "55")
	assert.Contains(t, out, "0 to buy")
	out, _ = run(t, "size,length,count,least\n3/4,40,2,\n3/4,41,1,39\n", "cut", "-", "--kerf", "1/8")
	assert.Contains(t, out, "1 to buy")
	out, code = run(t, "size,length,count,least\n3/4,40,2,41\n", "cut", "-")
	assert.Equal(t, 1, code)
	assert.Contains(t, out, "the least is more than the length")
}

func TestMistakesAndSavingsAreSaid(t *testing.T) {
	out, code := run(t, "3/4,40,1\n3/4,30,1\n3/4,18,1\n", "cut", "-", "--stock", "60@300", "--mistakes")
	require.Zero(t, code, out)
	assert.Contains(t, out, "in the safest order")
	out, code = run(t, "", "plan", cases+"table.wireframe.json", "--kerf", "1/8", "--stock", "120@498", "--savings")
	require.Zero(t, code, out)
	assert.Contains(t, out, `30" centre to centre`)
	out, code = run(t, "", "plan", cases+"table.wireframe.json", "--mistakes", "--json")
	require.Zero(t, code, out)
	assert.Contains(t, out, `"safest"`)
}

// Sticks are cut as in an earlier plan, where a piece more asks for nothing else.
func TestAnEarlierPlanIsKept(t *testing.T) {
	file := filepath.Join(t.TempDir(), "before.json")
	before, code := run(t, stalls, "cut", "-", "--kerf", "1/8", "--json")
	require.Zero(t, code)
	require.NoError(t, os.WriteFile(file, []byte(before), 0o600))
	keys := func(text string) (all []string) {
		var ms []struct{ Sticks []struct{ Key string } }
		require.NoError(t, json.Unmarshal([]byte(text), &ms))
		for _, s := range ms[0].Sticks {
			all = append(all, s.Key)
		}
		return all
	}
	more := stalls + "3/4,5,1\n"
	after, code := run(t, more, "cut", "-", "--kerf", "1/8", "--json", "--keep", file)
	require.Zero(t, code)
	same := 0
	for _, k := range keys(after) {
		for _, b := range keys(before) {
			if k == b {
				same++
			}
		}
	}
	assert.GreaterOrEqual(t, same, 2, "of three sticks")
}
