package server

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

func registerProjects(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(h, op(http.MethodGet, "/projects", "listProjects", "All projects, the one changed last first"), a.listProjects)
	create := op(http.MethodPost, "/projects", "createProject", "Store a new project")
	create.DefaultStatus = http.StatusCreated
	huma.Register(h, create, a.createProject)
	huma.Register(h, op(http.MethodGet, "/projects/{id}", "getProject", "One project"), a.getProject)
	save := op(http.MethodPut, "/projects/{id}", "saveProject", "Save a project; a stale save is refused with 409 and kept aside")
	save.Errors = []int{http.StatusNotFound, http.StatusConflict}
	huma.Register(h, save, a.saveProject)
	huma.Register(
		h,
		op(http.MethodDelete, "/projects/{id}", "deleteProject", "Remove a project; it can be restored for a month"),
		a.deleteProject,
	)
	huma.Register(h, op(http.MethodPost, "/projects/{id}/restore", "restoreProject", "Put a deleted project back"), a.restoreProject)
	huma.Register(h, op(http.MethodGet, "/projects/{id}/card", "projectCard", "What a project looks like and comes to"), a.card)
	huma.Register(h, op(http.MethodGet, "/projects/{id}/refused/{kept}", "refusedSave", "What a stale save left behind"), a.refusedSave)
	huma.Register(h, op(http.MethodGet, "/shop", "getShop", "The shop: prices, tools, stock, rack, measurements"), a.getShop)
	huma.Register(h, op(http.MethodPut, "/shop", "saveShop", "Save the shop; a stale save is refused with 409"), a.saveShop)
}

// ProjectLine is a project in the list.
type ProjectLine struct {
	ID       string    `json:"id"`
	Name     string    `json:"name"`
	Revision int64     `json:"revision"`
	Updated  time.Time `json:"updated"`
}

// StoredProject is a project with where it stands in the store.
type StoredProject struct {
	ProjectLine
	Project project.Project `json:"project"`
}

// SaveRequest is a project and the revision it was based on.
type SaveRequest struct {
	Revision int64           `json:"revision"`
	Project  project.Project `json:"project"`
}

// Saved is the revision that a save made.
type Saved struct {
	Revision int64 `json:"revision"`
}

// ProjectPath names a project in a call's path.
type ProjectPath struct {
	ID string `path:"id" maxLength:"40"`
}

func line(p store.Line) ProjectLine {
	return ProjectLine{ID: p.ID, Name: p.Name, Revision: p.Revision, Updated: p.Updated}
}

// stateOf is a project as it is stored.
func stateOf(p *project.Project) (store.State, error) {
	data, err := p.Encode()
	return store.State{Name: p.Name, Template: p.Template, Format: project.Format, Body: data}, err
}

func (a *api) listProjects(ctx context.Context, _ *struct{}) (*body[[]ProjectLine], error) {
	all, err := a.store.Projects(ctx)
	lines := []ProjectLine{}
	for _, p := range all {
		lines = append(lines, line(p))
	}
	return answer(lines), missing(err)
}

func (a *api) createProject(ctx context.Context, in *body[project.Project]) (*body[ProjectLine], error) {
	return a.create(ctx, &in.Body, nil)
}

// create stores a new project, with what was done to it before it came here.
func (a *api) create(ctx context.Context, p *project.Project, events []store.Event) (*body[ProjectLine], error) {
	state, err := stateOf(p)
	if err != nil {
		return nil, err
	}
	made, err := a.store.Create(ctx, state, events...)
	if err != nil {
		return nil, missing(err)
	}
	a.followers.tell(made.ID)
	return answer(line(made.Line)), nil
}

func (a *api) getProject(ctx context.Context, in *ProjectPath) (*body[StoredProject], error) {
	p, of, err := a.stored(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	return answer(StoredProject{line(of), *p}), nil
}

// stored reads a project out of the store.
func (a *api) stored(ctx context.Context, id string) (*project.Project, store.Line, error) {
	s, err := a.store.Project(ctx, id)
	p, err := projectOf(s.Body, err)
	return p, s.Line, err
}

// projectOf reads a project as the store gives it.
func projectOf(data []byte, err error) (*project.Project, error) {
	if err != nil {
		return nil, missing(err)
	}
	return project.Decode(data)
}

func (a *api) saveProject(ctx context.Context, in *struct {
	ProjectPath
	Body SaveRequest
}) (*body[Saved], error) {
	state, err := stateOf(&in.Body.Project)
	if err != nil {
		return nil, err
	}
	r, err := a.store.Save(ctx, in.ID, in.Body.Revision, state)
	if err != nil {
		return nil, missing(err)
	}
	a.followers.tell(in.ID)
	return answer(Saved{r}), nil
}

func (a *api) deleteProject(ctx context.Context, in *ProjectPath) (*struct{}, error) {
	err := a.store.Delete(ctx, in.ID)
	a.followers.tell(in.ID)
	return nil, missing(err)
}

func (a *api) restoreProject(ctx context.Context, in *ProjectPath) (*struct{}, error) {
	err := a.store.Restore(ctx, in.ID)
	a.followers.tell(in.ID)
	return nil, missing(err)
}

func (a *api) refusedSave(ctx context.Context, in *struct {
	ProjectPath
	Kept int64 `path:"kept"`
}) (*body[project.Project], error) {
	_, data, err := a.store.Refused(ctx, in.ID, in.Kept)
	d, err := projectOf(data, err)
	if err != nil {
		return nil, err
	}
	return answer(*d), nil
}

// StoredShop is the shop with its revision.
type StoredShop struct {
	Revision int64     `json:"revision"`
	Shop     plan.Shop `json:"shop"`
}

func (a *api) getShop(ctx context.Context, _ *struct{}) (*body[StoredShop], error) {
	shop, revision, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	return answer(StoredShop{revision, *shop}), nil
}

func (a *api) saveShop(ctx context.Context, in *body[StoredShop]) (*body[Saved], error) {
	if err := in.Body.Shop.Validate(); err != nil {
		return nil, problem(err)
	}
	if was, _, err := a.loadShop(ctx); err == nil { // a page may not know of the newest
		in.Body.Shop.LastMark = max(in.Body.Shop.LastMark, was.LastMark)
	}
	in.Body.Shop.MarkRack()
	data, err := json.Marshal(in.Body.Shop)
	if err != nil {
		return nil, err
	}
	r, err := a.store.SaveShop(ctx, in.Body.Revision, data)
	if err != nil {
		return nil, missing(err)
	}
	a.followers.tell("")
	return answer(Saved{r}), nil
}

// missing words the store's errors.
func missing(err error) error {
	var stale *store.StaleError
	var trouble *store.Trouble
	switch {
	case errors.As(err, &trouble):
		return &Problem{Title: "Not kept: " + trouble.Words(), Status: http.StatusInsufficientStorage, cause: trouble}
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such project; it may have been deleted in another window")
	case errors.As(err, &stale):
		return huma.Error409Conflict("Saved in another window in the meantime; nothing was overwritten and yours is kept",
			&Fault{Message: "the newer revision", Pointer: "/revision", Value: stale.Current},
			&Fault{Message: "where yours is kept", Pointer: "/kept", Value: stale.Kept})
	}
	return err
}
