package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/gin-gonic/gin"

	"sturdyelbow/internal/store"
)

// Now says how new what the server has is. A page that follows a project gets one at
// once, and another whenever something changes.
type Now struct {
	Project  string `json:"project,omitempty"`
	Revision int64  `json:"revision,omitempty"` // of the project
	Events   int64  `json:"events,omitempty"`   // the last of its record
	Shop     int64  `json:"shop"`               // the shop's revision
	Gone     bool   `json:"gone,omitempty"`     // the project was deleted
	Version  string `json:"version"`            // of the program and of the pages that it serves
	Run      string `json:"run"`                // which start of the server it is, and which file it has open: what was read of another may be gone
}

// followers are the pages that follow, each with the project that it follows, or several with commas
// between; "" for all.
type followers struct {
	mu  sync.Mutex
	all map[chan struct{}]string
}

// tell lets everybody who follows a project know that it changed; "" is the shop, which
// concerns all. Who has not looked since the last time looks once, at the newest state.
func (f *followers) tell(project string) {
	f.mu.Lock()
	defer f.mu.Unlock()
	for c, of := range f.all {
		if of != "" && project != "" && of != project && !slices.Contains(strings.Split(of, ","), project) {
			continue
		}
		select {
		case c <- struct{}{}:
		default:
		}
	}
}

func (f *followers) join(project string) chan struct{} {
	f.mu.Lock()
	defer f.mu.Unlock()
	if f.all == nil {
		f.all = map[chan struct{}]string{}
	}
	c := make(chan struct{}, 1)
	f.all[c] = project
	return c
}

func (f *followers) leave(c chan struct{}) {
	f.mu.Lock()
	defer f.mu.Unlock()
	delete(f.all, c)
}

const (
	// followPing is how often a quiet connection is tried, so that one that is dead is
	// given up.
	followPing     = 20 * time.Second
	followPatience = 10 * time.Second
)

// follow is a WebSocket on which a page hears of changes: those of ?project=, or of all
// where none is named. A page of another site cannot open it: its origin is another.
func (a *api) follow(c *gin.Context) {
	conn, err := websocket.Accept(c.Writer, c.Request, nil)
	if err != nil {
		return // it has been answered
	}
	defer func() { _ = conn.CloseNow() }()
	ctx := conn.CloseRead(c.Request.Context())
	id := c.Query("project")
	changed := a.followers.join(id)
	defer a.followers.leave(changed)
	say := func() error {
		n, err := a.nowOf(ctx, id)
		if err != nil {
			return err
		}
		return within(ctx, func(ctx context.Context) error { return wsjson.Write(ctx, conn, n) })
	}
	ping := time.NewTicker(followPing)
	defer ping.Stop()
	for err = say(); err == nil; {
		select {
		case <-ctx.Done():
			return
		case <-a.closing:
			_ = conn.Close(websocket.StatusGoingAway, "the server stops")
			return
		case <-changed:
			err = say()
		case <-ping.C:
			err = within(ctx, conn.Ping)
		}
	}
}

func within(ctx context.Context, do func(context.Context) error) error {
	ctx, cancel := context.WithTimeout(ctx, followPatience)
	defer cancel()
	return do(ctx)
}

// nowOf says how new a project and the shop are.
func (a *api) nowOf(ctx context.Context, id string) (n Now, err error) {
	n.Project, n.Version, n.Run = id, a.version, fmt.Sprintf("%s-%d", a.run, a.store.Opened())
	if n.Shop, err = a.store.ShopRevision(ctx); err != nil || id == "" {
		return n, err
	}
	if ids, key := purchaseKey(id); len(ids) > 1 {
		if n.Revision, err = a.store.PurchaseRevision(ctx, key); err != nil {
			return n, err
		}
		for _, one := range ids {
			last, err := a.store.LastEvent(ctx, one)
			if err != nil && !errors.Is(err, store.ErrNotFound) {
				return n, err
			}
			n.Events = max(n.Events, last)
		}
		return n, nil
	}
	line, err := a.store.Line(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		n.Gone = true
		return n, nil
	}
	if err != nil {
		return n, err
	}
	n.Revision = line.Revision
	n.Events, err = a.store.LastEvent(ctx, id)
	return n, err
}

// registerFollow adds the WebSocket, which is no call of the API's document.
func registerFollow(r *gin.Engine, a *api) {
	r.Handle(http.MethodGet, "/api/follow", a.follow)
}
