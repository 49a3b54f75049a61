package pricelist_test

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/pricelist"
)

func fitting(kind, size string) material.Spec {
	return material.Spec{Ware: material.Fitting, Kind: kind, Size: size}
}

func stick(size string, feet measure.Length) material.Spec {
	return material.Spec{Ware: material.Pipe, Size: size, Length: feet * measure.Foot}
}

var bolt = material.Spec{Ware: material.Hardware, Kind: "bolt", Diameter: measure.Inch / 4, Length: 2 * measure.Inch}

func Example() {
	for _, r := range pricelist.Read("3/4 tee .88\n3/4 pipe 10 ft, 4.98\n3/4 thing 5", nil, "Depot of pipes", "2026-11-29") {
		if r.Fault != nil {
			fmt.Printf("line %d, %s: %s; %s\n", r.Line, r.Fault.Column, r.Fault.What, r.Fault.Hint)
			continue
		}
		fmt.Println(r.Label, r.Price.Asked.Words())
	}
	// Output:
	// 3/4 in tee 0.88
	// 3/4 in pipe, 10' stick 4.98
	// line 3, thing: "3/4 thing" is nothing that is bought here; write it as a list of yours names it, like 3/4 tee or 3/4 pipe, 10′ stick
}

func TestLinesAsPeopleWriteThem(t *testing.T) {
	for text, want := range map[string]struct {
		spec  material.Spec
		price string
	}{
		"3/4 tee .88":                     {fitting("tee", "3/4"), "0.88"},
		"tee 3/4: 88c":                    {fitting("tee", "3/4"), "0.88"},
		"3/4 elbow 3 for 2":               {fitting("elbow-90", "3/4"), "3 for 2.00"},
		"3/4 in 90 elbow - $.98":          {fitting("elbow-90", "3/4"), "0.98"},
		"1/2 45 elbow\t1.10-1.25":         {fitting("elbow-45", "1/2"), "1.10-1.25"},
		"1 side outlet elbow 4.49 ea":     {fitting("side-outlet-elbow", "1"), "4.49"},
		"3/4 coupling, 10 for 6.98":       {fitting("coupling", "3/4"), "10 for 6.98"},
		"10 ft of 3/4 pipe 4.98":          {stick("3/4", 10), "4.98"},
		"3/4 pipe 10 ft, 4.98":            {stick("3/4", 10), "4.98"},
		"1-1/4 pvc pipe 20' 21.50":        {stick("1-1/4", 20), "21.50"},
		"cement 8 oz 7.89":                {material.Spec{Ware: material.Cement, Ounces: 8}, "7.89"},
		"one-step cement, 4 fl oz can 6":  {material.Spec{Ware: material.Cement, Kind: "one-step", Ounces: 4}, "6.00"},
		"primer quart 16.99":              {material.Spec{Ware: material.Primer, Ounces: 32}, "16.99"},
		`1/4" bolt, 2" long 1.20`:         {bolt, "1.20"},
		"1/4 bolt":                        {price: "price"},
		"tee 1.20":                        {price: "size"},
		"3/4 pipe 4.98":                   {price: "length"},
		"3/4 3-way 4.98":                  {price: "thing"},
		"cement 7.89":                     {price: "ounces"},
		"3/4 tee cheap":                   {price: "price"},
		"4.98":                            {price: "price"},
		"<script>alert(1)</script> 4.98":  {price: "thing"},
		"primer and cement kit 8 oz 9.99": {price: "thing"},
	} {
		rows := pricelist.Read(text, []material.Spec{bolt}, "", "")
		require.Len(t, rows, 1, text)
		if want.spec.Ware == "" {
			require.NotNil(t, rows[0].Fault, "%s was read as %s", text, rows[0].Label)
			assert.Equal(t, want.price, rows[0].Fault.Column, text)
			continue
		}
		require.Nil(t, rows[0].Fault, "%s: %+v", text, rows[0].Fault)
		assert.Equal(t, want.spec, rows[0].Price.Spec, text)
		assert.Equal(t, want.price, rows[0].Price.Asked.Words(), text)
	}
}

// A bad line keeps its text and its reason, and the others are read.
func TestATableWithABadRow(t *testing.T) {
	rows := pricelist.Read("Description,Size,Price,Pack,Date,Shop\n"+
		"tee,3/4,.88,,2026-11-01,Corner shop\n"+
		"elbow,3/4,cheap,,,\n"+
		"\"pipe, 10 ft\",3/4,4.98,,,\n"+
		"coupling,3/4,6.98,10,,\n"+
		"cross,9/4,1,,,\n"+
		"cap,1,1.10,,29.11.2026,\n\n", nil, "the list", "2026-11-29")
	require.Len(t, rows, 6)
	assert.Equal(t, "Corner shop", rows[0].Price.Source)
	assert.Equal(t, "2026-11-01", rows[0].Price.Date)
	assert.Equal(
		t,
		&pricelist.Fault{
			Column: "price",
			What:   `"cheap": not an amount of money`,
			Hint:   "write it like 4.98, .88, 98c, 3 for 20 or 7.98-8.49",
		},
		rows[1].Fault,
	)
	assert.Equal(t, 3, rows[1].Line)
	assert.Equal(t, "elbow,3/4,cheap,,,", rows[1].Text)
	assert.Equal(t, stick("3/4", 10), rows[2].Price.Spec)
	assert.Equal(t, "the list", rows[2].Price.Source)
	assert.Equal(t, "2026-11-29", rows[2].Price.Date)
	assert.Equal(t, 10, rows[3].Price.Pack)
	assert.NotNil(t, rows[4].Fault)
	assert.Equal(t, "date", rows[5].Fault.Column)
}

func TestWrongTables(t *testing.T) {
	one := func(text string) *pricelist.Fault {
		rows := pricelist.Read("what;kind;size;length;ounces;price\n"+text, nil, "", "")
		require.Len(t, rows, 1, text)
		return rows[0].Fault
	}
	assert.Nil(t, one("pipe;;3/4;120;;4.15"))
	assert.Nil(t, one("fitting;tee;3/4;;;.88"))
	assert.Nil(t, one("fitting;bushing;1x3/4;;;.88"))
	assert.Equal(t, "size", one("pipe;;9/4;120;;4.15").Column)
	assert.Equal(t, "length", one("pipe;;3/4;;;4.15").Column)
	assert.Equal(t, "length", one("pipe;;3/4;long;;4.15").Column)
	assert.Equal(t, "kind", one("fitting;hat;3/4;;;4.15").Column)
	assert.Equal(t, "ounces", one("cement;;;;some;4.15").Column)
	assert.Equal(t, "price", one("cement;;;;8;-4.15").Column)
	assert.Empty(t, pricelist.Read("", nil, "", ""))
	assert.Empty(t, pricelist.Read("\n# only a remark\n\n", nil, "", ""))
	assert.NotNil(t, pricelist.Read("thing,price\n\"tee,3", nil, "", "")[0].Fault)
}

// A book is read again as it was written.
func TestABookComesBack(t *testing.T) {
	example := cost.Example()
	check := func(t require.TestingT, b *cost.Book) {
		var out bytes.Buffer
		w := csv.NewWriter(&out)
		require.NoError(t, w.WriteAll(pricelist.Write(b)))
		rows := pricelist.Read(out.String(), nil, "", "")
		require.Len(t, rows, len(b.Prices), out.String())
		for i, r := range rows {
			require.Nil(t, r.Fault, "%s: %+v", r.Text, r.Fault)
			want := b.Prices[i]
			want.Typed = want.Asked.Words()
			require.Equal(t, want, *r.Price)
		}
	}
	check(t, &example)
	kinds := []material.Spec{fitting("tee", "3/4"), fitting("bushing", "1x3/4"), stick("3/4", 10), bolt,
		{Ware: material.Cement, Kind: "one-step", Ounces: 8}, {Ware: material.Service, Kind: "cut in the shop"},
		{Ware: material.Pipe, Size: "2", Length: 3_047_999_999}}
	rapid.Check(t, func(r *rapid.T) {
		var b cost.Book
		for range rapid.IntRange(1, 5).Draw(r, "prices") {
			p := cost.Price{
				Spec:   rapid.SampledFrom(kinds).Draw(r, "what"),
				Asked:  cost.Asked{Amount: measure.Money(rapid.IntRange(2, 99_999_99).Draw(r, "amount"))},
				Source: rapid.SampledFrom([]string{"", "Corner, shop", "own \"word\""}).Draw(r, "source"),
				Date:   rapid.SampledFrom([]string{"", "2026-11-29"}).Draw(r, "date"),
			}
			if rapid.Bool().Draw(r, "pack") {
				p.Pack = rapid.IntRange(2, 100).Draw(r, "of")
			}
			if rapid.Bool().Draw(r, "range") {
				p.From = 1
			}
			b.Prices = append(b.Prices, p)
		}
		check(r, &b)
	})
}

func FuzzRead(f *testing.F) {
	f.Add("3/4 tee .88\n10 ft of 3/4 pipe 4.98")
	f.Add("thing,size,price\ntee,3/4,.88")
	f.Fuzz(func(t *testing.T, text string) {
		for _, r := range pricelist.Read(text, nil, "", "") {
			if (r.Price == nil) == (r.Fault == nil) {
				t.Fatalf("%q is neither read nor refused: %+v", r.Text, r)
			}
			if r.Price != nil {
				if bad := (&cost.Book{Prices: []cost.Price{*r.Price}}).Validate(); len(bad) > 0 {
					t.Fatal(bad)
				}
			}
		}
	})
}

// A thing that is sold singly and by the pack keeps both prices, however the list says so.
func TestAPriceSinglyAndByThePack(t *testing.T) {
	elbow := material.Spec{Ware: material.Fitting, Kind: "elbow-90", Size: "3/4"}
	for _, text := range []string{
		"3/4 elbow .98; 10 for 6.98", "3/4 elbow .98, 10 for 6.98", "3/4 elbow .98 or 10 for 6.98", "3/4 elbow .98\n3/4 elbow 10 for 6.98",
		"item,size,price,pack price,pack\nelbow,3/4,.98,6.98,10", "item,size,price,pack\nelbow,3/4,.98,\nelbow,3/4,6.98,10",
		"item,size,price\nelbow,3/4,.98; 10 for 6.98",
	} {
		var got [][2]int64
		for _, r := range pricelist.Read(text, nil, "", "") {
			require.Nil(t, r.Fault, "%s: %+v", text, r.Fault)
			assert.Equal(t, elbow, r.Price.Spec)
			got = append(got, [2]int64{int64(r.Price.Amount), int64(max(1, r.Price.Pack))})
		}
		assert.Equal(t, [][2]int64{{98, 1}, {698, 10}}, got, text)
	}
	assert.Len(t, pricelist.Read("3/4 elbow .88-.98", nil, "", ""), 1, "a range of one thing is one price")
}
