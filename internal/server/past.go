package server

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/internal/project"
)

func registerPast(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(
		h,
		op(http.MethodGet, "/projects/{id}/revisions", "projectRevisions", "The states that a project had, the latest first"),
		a.revisions,
	)
	huma.Register(h, op(http.MethodGet, "/projects/{id}/revisions/{revision}", "projectRevision", "A state that a project had"), a.revision)
}

// PastState is a state that a project had, as it is listed.
type PastState struct {
	Revision int64     `json:"revision"`
	Name     string    `json:"name"`
	At       time.Time `json:"at"` // when it was saved
}

func (a *api) revisions(ctx context.Context, in *ProjectPath) (*body[[]PastState], error) {
	if _, err := a.store.Line(ctx, in.ID); err != nil {
		return nil, missing(err)
	}
	all, err := a.store.Revisions(ctx, in.ID)
	if err != nil {
		return nil, missing(err)
	}
	out := []PastState{}
	for _, r := range all {
		out = append(out, PastState{r.Revision, r.Name, r.At})
	}
	return answer(out), nil
}

func (a *api) revision(ctx context.Context, in *struct {
	ProjectPath
	Revision int64 `path:"revision"`
}) (*body[project.Project], error) {
	p, err := projectOf(a.store.Revision(ctx, in.ID, in.Revision))
	if err != nil {
		return nil, err
	}
	return answer(*p), nil
}
