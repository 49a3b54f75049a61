package pieces_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/pieces"
)

func Example() {
	for _, r := range pieces.Read("4 @ 23 5/8\"\nlegs: 30 x 8\n3/4, some, 2", measure.Inches) {
		if r.Fault != nil {
			fmt.Printf("line %d, %s: %s; %s\n", r.Line, r.Fault.Column, r.Fault.What, r.Fault.Hint)
			continue
		}
		fmt.Println(r.Words)
		if r.Other != "" {
			fmt.Println(" ", r.Other)
		}
	}
	// Output:
	// 4 × 23 5/8"
	// legs: 8 × 30"
	//   for 30 pieces of 8 write 30 pcs 8
	// line 3, length: "some": "some" is not a unit; use in, ft, mm, cm or m
}

func TestListsAsPeopleWriteThem(t *testing.T) {
	for text, want := range map[string]string{
		`4 @ 23 5/8"`:                 `4 × 23 5/8"`,
		`4@23 5/8`:                    `4 × 23 5/8"`,
		`23 5/8 x4`:                   `4 × 23 5/8"`,
		`23 5/8" x 4`:                 `4 × 23 5/8"`,
		`23 5/8 ×4`:                   `4 × 23 5/8"`,
		`4x 23 5/8`:                   `4 × 23 5/8"`,
		`4 x 23-5/8`:                  `4 × 23 5/8"`,
		`4 × 23.625"`:                 `4 × 23 5/8"`,
		`23 5/8, qty 3`:               `3 × 23 5/8"`,
		`qty: 3 23 5/8`:               `3 × 23 5/8"`,
		`23 5/8 qty 3`:                `3 × 23 5/8"`,
		`2 pcs 30`:                    `2 × 30"`,
		`30 in, 2 pcs`:                `2 × 30"`,
		`2 pieces at 30 in`:           `2 × 30"`,
		`30" (2)`:                     `2 × 30"`,
		`30" - 2`:                     `2 × 30"`,
		`2 ea 30 inches`:              `2 × 30"`,
		`30`:                          `1 × 30"`,
		`2' 6"`:                       `1 × 30"`,
		`4 of 2' 6"`:                  `4 × 30"`,
		`60 cm x 2`:                   `2 × 600 mm`,
		`24, 2`:                       `2 × 24"`,
		`2, 2`:                        `2 × 2"`,
		`7,4`:                         `4 × 7"`,
		`3/4, 23 5/8`:                 `1 × 23 5/8" of 3/4 pipe`,
		`3/4, 24`:                     `1 × 24" of 3/4 pipe`,
		`3/4, 23 5/8, 4`:              `4 × 23 5/8" of 3/4 pipe`,
		"3/4\t23 5/8\t4":              `4 × 23 5/8" of 3/4 pipe`,
		`3/4; 23 5/8; x4`:             `4 × 23 5/8" of 3/4 pipe`,
		`4, 23 5/8, 3/4`:              `4 × 23 5/8" of 3/4 pipe`,
		`4 @ 23 5/8 of 3/4 pipe`:      `4 × 23 5/8" of 3/4 pipe`,
		`4 @ 23 5/8 3/4 in pvc`:       `4 × 23 5/8" of 3/4 pipe`,
		`3/4" pipe: 4 @ 23 5/8`:       `4 × 23 5/8" of 3/4 pipe`,
		`3/4 pipe 23 5/8 x 4`:         `4 × 23 5/8" of 3/4 pipe`,
		`1-1/2 pvc, 30, 2`:            `2 × 30" of 1-1/2 pipe`,
		`3/4 x 23 5/8 x 4`:            `4 × 23 5/8" of 3/4 pipe`,
		`A: 4 @ 23 5/8`:               `A: 4 × 23 5/8"`,
		`A 23 5/8 x 4`:                `A: 4 × 23 5/8"`,
		`A) 23 5/8 x 4`:               `A: 4 × 23 5/8"`,
		`3/4, 23 5/8, legs, 2`:        `legs: 2 × 23 5/8" of 3/4 pipe`,
		`X: 2 pcs 30 in 3/4 pipe`:     `X: 2 × 30" of 3/4 pipe`,
		`2 pcs 30 in 3/4 pipe`:        `2 × 30" of 3/4 pipe`,
		`legs: 30, 2`:                 `legs: 2 × 30"`,
		`4 @ 30 legs`:                 `legs: 4 × 30"`,
		`4 @ 30", front rails`:        `front rails: 4 × 30"`,
		`- 4 @ 30`:                    `4 × 30"`,
		`4 x 30`:                      `4 × 30"`,
		`30 x 4`:                      `4 × 30"`,
		`12 x 12`:                     `12 × 12"`,
		`10 x 8`:                      `8 × 10"`,
		`4 pcs, 3/4, 23 5/8`:          `4 × 23 5/8" of 3/4 pipe`,
		`4 pcs 23 5/8, 3/4`:           `4 × 23 5/8" of 3/4 pipe`,
		`2 times 14 1/2`:              `2 × 14 1/2"`,
		`5'7, 2`:                      `2 × 67"`,
		`1, 5'7, 2`:                   `2 × 67" of 1 pipe`,
		`23 5/8 - 3 pcs`:              `3 × 23 5/8"`,
		`23 5/8: 3`:                   `3 × 23 5/8"`,
		`23 5/8 = 3`:                  `3 × 23 5/8"`,
		`six 40s`:                     `6 × 40"`,
		`a dozen 12s`:                 `12 × 12"`,
		`4 48s`:                       `4 × 48"`,
		`Two 30"s in 3/4 pipe`:        `2 × 30" of 3/4 pipe`,
		`a pair of 22 1/2`:            `2 × 22 1/2"`,
		`legs 4 each 30 in`:           `legs: 4 × 30"`,
		`4 @ 23 5/8" pipe, 1 in`:      `4 × 23 5/8" of 1 pipe`,
		`0 x 12`:                      "",
		`four of them`:                "",
		`four 48s and some`:           "",
		`six`:                         "",
		`about 9, 2`:                  "",
		`4 @`:                         "",
		`3/4, 23 5/8, 4, 7`:           "",
		`4 @ 0`:                       "",
		`99999999 pcs 5`:              "",
		`<b>4</b>`:                    "",
		`4 @ -5`:                      "",
		`23 5/8 x 4 x 3/4 x 9 x 2 x1`: "",
	} {
		rows := pieces.Read(text, measure.Inches)
		require.Len(t, rows, 1, text)
		if want == "" {
			assert.NotNil(t, rows[0].Fault, "%s was read as %s", text, rows[0].Words)
			continue
		}
		if assert.Nil(t, rows[0].Fault, "%s: %+v", text, rows[0].Fault) {
			assert.Equal(t, want, rows[0].Words, text)
		}
	}
}

// Several pieces in a line, as one tells them, are each read.
func TestSeveralPiecesInALine(t *testing.T) {
	for text, want := range map[string][]string{
		"four 48s and fourteen 12s":             {`4 × 48"`, `14 × 12"`},
		"1 pipe: three 18s, two 14s, and one 8": {`3 × 18" of 1 pipe`, `2 × 14" of 1 pipe`, `1 × 8" of 1 pipe`},
		"four 34s, two 40s of 1/2 pipe":         {`4 × 34" of 1/2 pipe`, `2 × 40" of 1/2 pipe`},
		"legs: 4 @ 30, 2 @ 12 1/2":              {`legs: 4 × 30"`, `legs: 2 × 12 1/2"`},
		"4 x 23 5/8; 2 x 18":                    {`4 × 23 5/8"`, `2 × 18"`},
		`12", 12", 15"`:                         {`1 × 12"`, `1 × 12"`, `1 × 15"`},
		`30 in and 2' 6"`:                       {`1 × 30"`, `1 × 30"`},
		"2 30s + 3 12s":                         {`2 × 30"`, `3 × 12"`},
	} {
		got := []string{}
		for _, r := range pieces.Read(text, measure.Inches) {
			if assert.Nil(t, r.Fault, "%s: %+v", text, r.Fault) {
				got = append(got, r.Words)
			}
		}
		assert.Equal(t, want, got, text)
	}
}

// One bad line hides nothing; a heading gives its size to the lines below.
func TestAListWithHeadingsAndABadLine(t *testing.T) {
	rows := pieces.Read(
		"Cut list for the table:\n3/4 pipe:\n4 @ 30\n\n# not this\nfour of them\n1 in:\n2 @ 12 rails\n1/2, 10, 1\n",
		measure.Inches,
	)
	require.Len(t, rows, 4)
	assert.Equal(t, `4 × 30" of 3/4 pipe`, rows[0].Words)
	assert.NotNil(t, rows[1].Fault)
	assert.Equal(t, "four of them", rows[1].Text)
	assert.Equal(t, `rails: 2 × 12" of 1 pipe`, rows[2].Words)
	assert.Equal(t, `1 × 10" of 1/2 pipe`, rows[3].Words)
	assert.Equal(t, 9, rows[3].Line)
}

func TestATableByItsNames(t *testing.T) {
	rows := pieces.Read("letter,qty,size,cut length,least\nA,4,3/4,\"23 5/8\",\nB,1,3/4,30,29\nC,x,3/4,30,\nD,0,3/4,9,\n", measure.Inches)
	require.Len(t, rows, 3)
	assert.Equal(t, `A: 4 × 23 5/8" of 3/4 pipe`, rows[0].Words)
	assert.Equal(t, 29*measure.Inch, rows[1].Least)
	assert.Equal(t, "count", rows[2].Fault.Column)
}

// However a piece is written, it is read as it is meant.
func TestEveryFormOfEveryPiece(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		length := measure.Length(rapid.IntRange(5*16, 200*16).Draw(r, "sixteenths")) * measure.Inch / 16
		count := rapid.IntRange(1, 40).Draw(r, "count")
		size := rapid.SampledFrom([]string{"", "1/2", "3/4", "1-1/4", "1-1/2"}).Draw(r, "size")
		l := length.Format(rapid.SampledFrom([]measure.Style{measure.InInches, measure.FeetInches}).Draw(r, "style"), 0)
		form := rapid.SampledFrom([]string{"%[2]d @ %[1]s", "%[2]d pcs %[1]s", "%[1]s, %[2]d pcs", "qty %[2]d, %[1]s", "%[1]s (%[2]d)", "%[2]d pieces at %[1]s"}).
			Draw(r, "form")
		text := fmt.Sprintf(form, l, count)
		if size != "" {
			text = fmt.Sprintf(
				rapid.SampledFrom([]string{"%[2]s of %[1]s pipe", "%[1]s pvc: %[2]s", "%[2]s, %[1]s in pipe"}).Draw(r, "sized"),
				size,
				text,
			)
		}
		rows := pieces.Read(text, measure.Inches)
		require.Len(r, rows, 1)
		require.Nil(r, rows[0].Fault, "%s: %+v", text, rows[0].Fault)
		require.Equal(r, []any{length, count, size}, []any{rows[0].Length, rows[0].Count, rows[0].Size}, text)
	})
}

// However several pieces are told in a line, each is read as it is meant, and none is lost.
func TestEveryPieceOfALine(t *testing.T) {
	words := []string{"", "one", "two", "three", "four", "five", "six", "seven"}
	rapid.Check(t, func(r *rapid.T) {
		text, want, got := "", [][2]int{}, [][2]int{}
		for i := range rapid.IntRange(2, 6).Draw(r, "pieces") {
			n, quarters := rapid.IntRange(1, 7).Draw(r, "count"), rapid.IntRange(20, 500).Draw(r, "quarters")
			l := (measure.Length(quarters) * measure.Inch / 4).Format(measure.InInches, 0)
			form := rapid.SampledFrom([]string{"%[3]s %[1]s", "%[3]s %[1]ss", "%[2]d %[1]ss", "%[2]d @ %[1]s", "%[2]d pcs %[1]s", "%[3]s of %[1]s"}).
				Draw(r, "form")
			if i > 0 {
				text += rapid.SampledFrom([]string{", ", " and ", ", and ", "; ", " + "}).Draw(r, "between")
			}
			text += fmt.Sprintf(form, l, n, words[n])
			want = append(want, [2]int{n, quarters})
		}
		text = rapid.SampledFrom([]string{"", "legs: ", "3/4 pipe: "}).Draw(r, "before") + text
		for _, row := range pieces.Read(text, measure.Inches) {
			require.Nil(r, row.Fault, "%s: %+v", text, row.Fault)
			got = append(got, [2]int{row.Count, int(row.Length / (measure.Inch / 4))})
		}
		require.Equal(r, want, got, text)
	})
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{"4 @ 23 5/8", "3/4, 23 5/8, 4", "size,length,count\n3/4,23 5/8,4", "legs: 2 pcs 30 in 3/4 pipe"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		for _, r := range pieces.Read(text, measure.Inches) {
			if r.Fault == nil && (r.Length <= 0 || r.Count < 1) {
				t.Fatalf("%q is read as %+v", text, r)
			}
		}
	})
}
