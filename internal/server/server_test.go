package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"reflect"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/demo"
	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
)

type client struct {
	t   *testing.T
	url string
}

func serve(t *testing.T) (*client, *store.Store) {
	st, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	pages := fstest.MapFS{
		"index.html":    {Data: []byte("<!doctype html><title>the page</title><div id=\"root\"></div>")},
		"assets/a-1.js": {Data: []byte("1")},
	}
	s := httptest.NewServer(server.New(server.Config{Store: st, Web: pages, Version: "test"}))
	t.Cleanup(func() { s.Close(); assert.NoError(t, st.Close()) })
	return &client{t, s.URL}, st
}

func (c *client) do(method, path string, body any, header ...string) (int, http.Header, string) {
	var r io.Reader
	switch b := body.(type) {
	case nil:
	case string:
		r = strings.NewReader(b)
	default:
		data, err := json.Marshal(b)
		require.NoError(c.t, err)
		r = bytes.NewReader(data)
	}
	req, err := http.NewRequestWithContext(c.t.Context(), method, c.url+path, r)
	require.NoError(c.t, err)
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(header); i += 2 {
		if header[i] == "Host" {
			req.Host = header[i+1]
		}
		req.Header.Set(header[i], header[i+1])
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(c.t, err)
	defer func() { assert.NoError(c.t, res.Body.Close()) }()
	data, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	return res.StatusCode, res.Header, string(data)
}

// get reads an answer that must be good into v.
func (c *client) get(method, path string, body, v any) {
	c.t.Helper()
	status, _, data := c.do(method, path, body)
	require.Less(c.t, status, 300, data)
	if v != nil {
		require.NoError(c.t, json.Unmarshal([]byte(data), v), data)
	}
}

func jump(width string) map[string]any {
	return map[string]any{
		"name":    "Jump",
		"units":   "in",
		"style":   "inches",
		"copies":  1,
		"tool":    "saw",
		"starter": map[string]any{"id": "jump", "answers": map[string]any{"width": map[string]any{"text": width}}},
	}
}

func TestPlanIsStateless(t *testing.T) {
	c, st := serve(t)
	var a server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "draw": true}, &a)
	assert.Equal(t, 12, a.Plan.Totals.Pieces)
	assert.True(t, a.Plan.Bill.Example)
	assert.True(t, strings.HasPrefix(a.Drawings[0], "<svg"))
	all, err := st.Projects(t.Context())
	require.NoError(t, err)
	assert.Empty(t, all)

	shop := plan.ExampleShop()
	for i := range shop.Prices.Prices {
		shop.Prices.Prices[i].Example = false
	}
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shop": shop}, &a)
	assert.False(t, a.Plan.Bill.Example, "the shop that was sent counts")
	_, _, data := c.do("POST", "/api/plan", map[string]any{"project": jump("4 ft")})
	assert.NotContains(t, strings.ReplaceAll(data, `"value":null`, ""), ":null", "a list is never null")
}

// places are the locations of a problem's errors.
func places(t *testing.T, data string) (all []string) {
	var p struct {
		Errors []struct{ Pointer, Message string }
	}
	require.NoError(t, json.Unmarshal([]byte(data), &p), data)
	for _, e := range p.Errors {
		assert.NotEmpty(t, e.Message)
		all = append(all, e.Pointer)
	}
	return all
}

func TestProblemsHaveFieldPaths(t *testing.T) {
	c, _ := serve(t)
	with := func(p map[string]any, key string, v any) map[string]any {
		p[key] = v
		return map[string]any{"project": p}
	}
	for path, req := range map[string]struct {
		call string
		body any
	}{
		"/project/starter/answers/width": {"/api/plan", map[string]any{"project": jump("4 ft 30 cm")}},
		"/project/frame":                 {"/api/plan", with(jump("4"), "starter", nil)},
		"/project/tool":                  {"/api/plan", with(jump("4"), "tool", "teeth")},
		"/project/copies":                {"/api/plan", with(jump("4"), "copies", 99999)},
		"/stock/1":                       {"/api/cut", map[string]any{"text": "24, 2", "units": "in", "stock": []string{"10 ft", "long"}, "tool": "saw"}},
		"/texts/0":                       {"/api/lengths", map[string]any{"texts": []string{"long"}, "units": "in"}},
	} {
		status, header, data := c.do("POST", req.call, req.body)
		assert.Equal(t, 422, status, data)
		assert.Equal(t, "application/problem+json", header.Get("Content-Type"))
		assert.Contains(t, places(t, data), path)
	}
}

func TestProjectsAndStaleSaves(t *testing.T) {
	c, _ := serve(t)
	var p server.ProjectLine
	c.get("POST", "/api/projects", jump("4 ft"), &p)
	var saved server.Saved
	c.get("PUT", "/api/projects/"+p.ID, map[string]any{"revision": 1, "project": jump("5 ft")}, &saved)
	assert.EqualValues(t, 2, saved.Revision)
	status, _, data := c.do("PUT", "/api/projects/"+p.ID, map[string]any{"revision": 1, "project": jump("6 ft")})
	require.Equal(t, 409, status, data)
	var problem struct {
		Errors []struct {
			Location string
			Value    int64
		}
	}
	require.NoError(t, json.Unmarshal([]byte(data), &problem))
	assert.EqualValues(t, 2, problem.Errors[0].Value)
	_, _, kept := c.do("GET", fmt.Sprintf("/api/projects/%s/refused/%d", p.ID, problem.Errors[1].Value), nil)
	assert.Contains(t, kept, "6 ft")
	var now server.StoredProject
	c.get("GET", "/api/projects/"+p.ID, nil, &now)
	assert.Equal(t, "5 ft", now.Project.Starter.Answers["width"].Text)
	c.get("DELETE", "/api/projects/"+p.ID, nil, nil)
	for _, call := range []string{"/api/projects/" + p.ID, "/api/projects/" + p.ID + "/refused/1"} {
		status, _, _ = c.do("GET", call, nil)
		assert.Equal(t, 404, status)
	}
}

func TestShopIsCheckedAndHasRevisions(t *testing.T) {
	c, _ := serve(t)
	var s server.StoredShop
	c.get("GET", "/api/shop", nil, &s)
	s.Shop.Prices.TaxRate = 8.25
	status, _, data := c.do("PUT", "/api/shop", s)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"/shop/prices/taxRate"}, places(t, data))
	s.Shop.Prices.TaxRate = 0.0825
	c.get("PUT", "/api/shop", s, nil)
	s.Shop.Prices.TaxRate = 0.09
	status, _, _ = c.do("PUT", "/api/shop", s)
	assert.Equal(t, 409, status, "based on the revision before")
	var a server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft")}, &a)
	assert.Positive(t, a.Plan.Bill.Tax)
}

func TestExports(t *testing.T) {
	c, st := serve(t)
	require.NoError(t, demo.Seed(t.Context(), st))
	for kind, want := range map[string]string{"cuts.csv": "size,length,count", "shopping.csv": "with example prices", "wireframe.json": `"wireframe": 1`, "frame.svg": "<svg"} {
		status, header, data := c.do("POST", "/api/export/"+kind, map[string]any{"project": jump("4 ft")})
		assert.Equal(t, 200, status, data)
		assert.Contains(t, data, want)
		assert.Contains(t, header.Get("Content-Disposition"), kind)
	}
	status, _, _ := c.do("POST", "/api/export/plan.dwg", map[string]any{"project": jump("4 ft")})
	assert.Equal(t, 422, status)
}

// A longer search goes on until it is ended: no deadline of the server's does.
func TestALongerSearchHasNoDeadline(t *testing.T) {
	h := server.New(server.Config{Web: fstest.MapFS{"index.html": {}}})
	for path, lifted := range map[string]int{"/api/improve": 2, "/api/about": 0} {
		w := &deadlines{ResponseRecorder: httptest.NewRecorder()}
		h.ServeHTTP(w, httptest.NewRequest(http.MethodOptions, "http://127.0.0.1"+path, nil))
		assert.Equal(t, lifted, w.lifted, path)
	}
}

// deadlines counts those that are lifted.
type deadlines struct {
	*httptest.ResponseRecorder
	lifted int
}

func (d *deadlines) lift(at time.Time) error {
	if at.IsZero() {
		d.lifted++
	}
	return nil
}
func (d *deadlines) SetReadDeadline(at time.Time) error  { return d.lift(at) }
func (d *deadlines) SetWriteDeadline(at time.Time) error { return d.lift(at) }

func TestForeignHostsAndSitesAreRefused(t *testing.T) {
	c, _ := serve(t)
	host := strings.TrimPrefix(c.url, "http://")
	for _, tc := range []struct {
		method string
		header []string
		want   int
	}{
		{"GET", nil, 200},
		{"GET", []string{"Host", "rebound.example"}, 421},
		{"GET", []string{"Host", "localhost:99"}, 200},
		{"POST", []string{"Origin", "http://evil.example"}, 403},
		{"POST", []string{"Origin", "null"}, 403},
		{"POST", []string{"Sec-Fetch-Site", "cross-site"}, 403},
		{"POST", []string{"Origin", "http://" + host, "Sec-Fetch-Site", "same-origin"}, 201},
	} {
		var body any
		if tc.method == "POST" {
			body = jump("4")
		}
		status, header, data := c.do(tc.method, "/api/projects", body, tc.header...)
		assert.Equal(t, tc.want, status, "%v %s", tc.header, data)
		if tc.want < 400 {
			assert.Contains(t, header.Get("Content-Security-Policy"), "default-src 'none'")
			assert.Equal(t, "nosniff", header.Get("X-Content-Type-Options"))
		}
	}
}

func TestListeningOnEveryAddressTakesAddressesNotNames(t *testing.T) {
	h := server.New(server.Config{Web: fstest.MapFS{"index.html": {}}, Hosts: []string{"Workshop.Local"}})
	for _, host := range []string{"workshop.local", "WORKSHOP.local:7655", "Workshop.Local."} {
		r := httptest.NewRequest(http.MethodGet, "http://"+host+"/icon.svg", nil)
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		assert.NotEqual(t, http.StatusMisdirectedRequest, w.Code, "a name is the same in capitals: %s", host)
	}
	h = server.New(server.Config{Web: fstest.MapFS{"index.html": {}}, Hosts: []string{"0.0.0.0"}})
	for host, want := range map[string]int{"192.168.1.7:7655": 200, "[fd00::1]:7655": 200, "rebound.example:7655": 421} {
		w := httptest.NewRecorder()
		r := httptest.NewRequestWithContext(t.Context(), "GET", "/", nil)
		r.Host = host
		h.ServeHTTP(w, r)
		assert.Equal(t, want, w.Code, host)
	}
}

func TestLimitsAndPages(t *testing.T) {
	c, _ := serve(t)
	status, _, _ := c.do("POST", "/api/open", `{"name":"x","text":"`+strings.Repeat("x", 5<<20)+`"}`)
	assert.Equal(t, 413, status)
	for path, want := range map[string]int{"/": 200, "/p/abc": 200, "/assets/a-1.js": 200, "/assets/gone.js": 404, "/api/nothing": 404, "/../../etc/passwd": 200} {
		status, header, data := c.do("GET", path, nil)
		assert.Equal(t, want, status, "%s: %s", path, data)
		if strings.HasPrefix(path, "/assets/a") {
			assert.Contains(t, header.Get("Cache-Control"), "immutable")
		}
		assert.NotContains(t, data, "root:")
	}
	status, _, _ = c.do("POST", "/p/abc", "")
	assert.Equal(t, 405, status)
	status, header, _ := c.do("POST", "/api/plan", map[string]any{"project": jump("4 ft")}, "Accept-Encoding", "gzip")
	assert.Equal(t, 200, status)
	assert.Empty(t, header.Get("Content-Encoding"), "to this machine as it is")
}

// What goes to another machine is packed.
func TestAnswersToOtherMachinesArePacked(t *testing.T) {
	h := server.New(
		server.Config{Web: fstest.MapFS{"index.html": {Data: []byte(strings.Repeat("<p>frame</p>", 500))}}, Hosts: []string{"0.0.0.0"}},
	)
	for from, want := range map[string]string{"192.168.1.20:50000": "gzip", "127.0.0.1:50000": "", "[::1]:50000": ""} {
		w := httptest.NewRecorder()
		r := httptest.NewRequestWithContext(t.Context(), "GET", "/", nil)
		r.Host, r.RemoteAddr = "192.168.1.7:7655", from
		r.Header.Set("Accept-Encoding", "gzip")
		h.ServeHTTP(w, r)
		assert.Equal(t, 200, w.Code)
		assert.Equal(t, want, w.Header().Get("Content-Encoding"), from)
	}
}

// The published types are those of the code: make types writes them.
func TestPublishedTypesAreCurrent(t *testing.T) {
	spec, err := server.Spec()
	require.NoError(t, err)
	published, err := os.ReadFile("../../web/openapi.json")
	require.NoError(t, err)
	var was, is any
	require.NoError(t, json.Unmarshal(published, &was))
	require.NoError(t, json.Unmarshal(spec, &is))
	assert.True(t, reflect.DeepEqual(was, is), "web/openapi.json is stale: make types") // the difference would fill the screen
	schema, err := server.Schema()
	require.NoError(t, err)
	kept, err := os.ReadFile(fmt.Sprintf("../../docs/frame-%d.schema.json", frame.Format))
	require.NoError(t, err)
	assert.Equal(t, strings.TrimSpace(string(kept)), strings.TrimSpace(string(schema)), "docs/frame-4.schema.json is stale: make types")
	words, err := server.Words()
	require.NoError(t, err)
	built, err := os.ReadFile("../../web/src/api/words.json")
	require.NoError(t, err)
	assert.JSONEq(t, string(built), string(words), "web/src/api/words.json is stale: make types")
}

// A shop that was sent goes by a key after that, with the same plan; a key that
// is not known is refused at its place, so that the page sends the shop again.
func TestAShopGoesByItsKey(t *testing.T) {
	c, _ := serve(t)
	shop := plan.ExampleShop()
	shop.Stock = []plan.StockLength{{Length: 240 * measure.Inch}}
	var first, again server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shop": shop}, &first)
	require.NotEmpty(t, first.ShopKey)
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shopKey": first.ShopKey}, &again)
	assert.Equal(t, first, again)
	var saved server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft")}, &saved)
	assert.NotEqual(t, first.Plan.Bill, saved.Plan.Bill, "it is another shop than the saved one")
	status, _, answer := c.do("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shopKey": "gone"})
	assert.Equal(t, 422, status)
	assert.Contains(t, answer, "/shopKey")
	for n := range 40 {
		shop.Stock[0].Length = measure.Length(100+n) * measure.Inch
		var more server.PlanAnswer
		c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shop": shop}, &more)
	}
	status, _, _ = c.do("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shopKey": first.ShopKey})
	assert.Equal(t, 422, status, "the oldest are forgotten")
}
