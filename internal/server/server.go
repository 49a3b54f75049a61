package server

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"sturdyelbow/internal/store"
	"sturdyelbow/internal/suppliers"
)

// Config is what a server needs.
type Config struct {
	Store   *store.Store
	Web     fs.FS    // the built pages
	Hosts   []string // names besides the loopback ones that requests may come in for
	Version string
	Log     *slog.Logger
	// Suppliers are asked what a project comes to there; the three simulated ones where it is nil.
	Suppliers []suppliers.Source
	Closing   <-chan struct{} // closed when the server is about to stop: pages that follow are let go
}

// maxBody bounds every request's body.
const maxBody = 4 << 20

type api struct {
	store     *store.Store
	version   string // of the program with its pages
	run       string // which start of the server it is
	shops     shops
	cards     kept[newness, Card]
	suppliers []suppliers.Source
	needed    kept[newness, needs]
	owned     kept[int64, DrawnStarter]
	bought    kept[string, PlanAnswer]
	records   tallies
	saying    sync.Mutex // what was done is divided and stored by one at a time
	followers followers
	closing   <-chan struct{} // closed when the server is about to stop
}

// compressed packs answers for other machines. To this machine they go as they are:
// packing a plan takes longer than handing it over.
func compressed() gin.HandlerFunc {
	pack := gzip.Gzip(gzip.BestSpeed)
	return func(c *gin.Context) {
		if host, _, err := net.SplitHostPort(c.Request.RemoteAddr); err == nil && net.ParseIP(host).IsLoopback() {
			c.Next()
			return
		}
		pack(c)
	}
}

// New makes the handler.
func New(c Config) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	version := versionOf(c)
	r.Use(recovered(c.Log), guard(c.Hosts), headers(version), limitBody(), compressed())
	a := &api{
		store:   c.Store,
		version: version,
		run:     rand.Text()[:8],
		closing: c.Closing,
		bought:  kept[string, PlanAnswer]{most: mostBought},
	}
	if a.suppliers = c.Suppliers; a.suppliers == nil {
		for _, e := range suppliers.Examples() {
			a.suppliers = append(a.suppliers, e)
		}
	}
	config := apiConfig(c.Version)
	config.Transformers = append(config.Transformers, logged(c.Log))
	register(humagin.New(r, config), a)
	registerFollow(r, a)
	r.NoRoute(pages(c.Web, a))
	return patient(r)
}

// versionOf names the program with the pages that it serves: pages of another one ask for files that are not there.
func versionOf(c Config) string {
	index, err := fs.ReadFile(c.Web, "index.html")
	if err != nil {
		return c.Version
	}
	sum := sha256.Sum256(index)
	return c.Version + "-" + hex.EncodeToString(sum[:4])
}

// patient lets a longer search take as long as it does: the page that asked for it ends it.
func patient(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Path == "/api/improve" {
			c := http.NewResponseController(w)
			_ = errors.Join(c.SetReadDeadline(time.Time{}), c.SetWriteDeadline(time.Time{})) // a server that has none needs none lifted
		}
		h.ServeHTTP(w, r)
	})
}

// Spec gives the OpenAPI document as JSON; it is made from the Go types alone.
func Spec() ([]byte, error) {
	gin.SetMode(gin.ReleaseMode)
	h := humagin.New(gin.New(), apiConfig("1"))
	register(h, &api{})
	describeFields(h.OpenAPI().Components.Schemas)
	return h.OpenAPI().MarshalJSON()
}

// Serve answers on a listener until the context ends, then finishes what it
// has begun.
func Serve(ctx context.Context, l net.Listener, h http.Handler) error {
	s := &http.Server{
		Handler:           h,
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       30 * time.Second,
		WriteTimeout:      60 * time.Second,
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    64 << 10,
	}
	failed := make(chan error, 1)
	go func() { failed <- s.Serve(l) }()
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	end, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
	defer cancel()
	err := s.Shutdown(end)
	if e := <-failed; !errors.Is(e, http.ErrServerClosed) {
		err = errors.Join(err, e)
	}
	return err
}

func apiConfig(version string) huma.Config {
	huma.DefaultArrayNullable = false
	c := huma.DefaultConfig("Sturdy Elbow", version)
	c.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	describeGestures(c.Components.Schemas)
	c.OpenAPIPath, c.DocsPath, c.SchemasPath = "/api/openapi", "", ""
	c.CreateHooks = nil // no $schema members in documents
	return c
}
