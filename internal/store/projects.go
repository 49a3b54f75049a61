package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"time"
)

// Line is a project as it is listed: all but its body.
type Line struct {
	ID       string
	Name     string
	Revision int64
	Created  time.Time
	Updated  time.Time
	Template bool // others are begun from it
}

// Project is a stored project.
type Project struct {
	Line
	Body []byte
}

// State is what is saved of a project.
type State struct {
	Name     string
	Template bool
	Format   int // of the body
	Body     []byte
}

const lineColumns = "id, name, revision, created, updated, template"

// lineInto are the places that the columns of a line are read into; set puts the times in.
func lineInto(l *Line) (into []any, set func()) {
	var created, updated int64
	return []any{&l.ID, &l.Name, &l.Revision, &created, &updated, &l.Template}, func() {
		l.Created, l.Updated = time.Unix(0, created).UTC(), time.Unix(0, updated).UTC()
	}
}

// Projects lists every project, the one changed last first. It reads no bodies.
func (s *Store) Projects(ctx context.Context) ([]Line, error) {
	return s.lines(ctx, "SELECT "+lineColumns+" FROM project WHERE deleted IS NULL ORDER BY updated DESC, id")
}

// Templates lists the projects that others are begun from, in the same order.
func (s *Store) Templates(ctx context.Context) ([]Line, error) {
	return s.lines(ctx, "SELECT "+lineColumns+" FROM project WHERE deleted IS NULL AND template ORDER BY updated DESC, id")
}

func (s *Store) lines(ctx context.Context, query string) (all []Line, err error) {
	err = s.read(ctx, func(rows *sql.Rows) error {
		var l Line
		into, set := lineInto(&l)
		err := rows.Scan(into...)
		set()
		all = append(all, l)
		return err
	}, query)
	return all, err
}

// Outdated lists the projects whose bodies are of an older format, deleted ones too.
func (s *Store) Outdated(ctx context.Context, format int) (all []Project, err error) {
	err = s.read(ctx, func(rows *sql.Rows) error {
		var p Project
		into, set := lineInto(&p.Line)
		err := rows.Scan(append(into, &p.Body)...)
		set()
		all = append(all, p)
		return err
	}, "SELECT "+lineColumns+", body FROM project WHERE format < ? ORDER BY id", format)
	return all, err
}

// Line gives a project without its body; [ErrNotFound] when there is none.
func (s *Store) Line(ctx context.Context, id string) (l Line, err error) {
	into, set := lineInto(&l)
	err = s.row(ctx, "SELECT "+lineColumns+" FROM project WHERE id = ? AND deleted IS NULL", []any{id}, into...)
	set()
	return l, err
}

// Project gives one project; [ErrNotFound] when there is none.
func (s *Store) Project(ctx context.Context, id string) (p Project, err error) {
	into, set := lineInto(&p.Line)
	err = s.row(ctx, "SELECT "+lineColumns+", body FROM project WHERE id = ? AND deleted IS NULL", []any{id}, append(into, &p.Body)...)
	set()
	return p, err
}

// Create stores a new project at revision 1, with what was done to it before it came
// here: none of a new one, the record of one that comes from a file.
func (s *Store) Create(ctx context.Context, state State, events ...Event) (Project, error) {
	id, at := rand.Text()[:12], now()
	err := s.within(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(
			ctx,
			"INSERT INTO project (id, name, revision, created, updated, template, format, body) VALUES (?, ?, 1, ?, ?, ?, ?, ?)",
			id, state.Name, at, at, state.Template, state.Format, string(state.Body),
		)
		if err != nil {
			return err
		}
		_, _, err = add(ctx, tx, id, events)
		return err
	})
	t := time.Unix(0, at).UTC()
	return Project{
		Line: Line{ID: id, Name: state.Name, Revision: 1, Created: t, Updated: t, Template: state.Template},
		Body: state.Body,
	}, err
}

// Save replaces a project that is still at the revision it was based on, keeps what it
// replaced, and gives the new revision. A stale save is kept aside and refused with a
// [StaleError]; one that says what is stored already is taken as saved, as its first
// answer may have been lost on the way.
func (s *Store) Save(ctx context.Context, id string, basedOn int64, state State) (revision int64, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		revision, err = save(ctx, tx, id, basedOn, state, now())
		return err
	})
	return revision, err
}

func save(ctx context.Context, tx *sql.Tx, id string, basedOn int64, state State, at int64) (revision int64, err error) {
	var name, body string
	var updated int64
	err = tx.QueryRowContext(ctx, "SELECT revision, name, updated, body FROM project WHERE id = ? AND deleted IS NULL", id).
		Scan(&revision, &name, &updated, &body)
	switch {
	case err != nil:
		return 0, found(err)
	case body == string(state.Body):
		return revision, nil
	case revision != basedOn:
		r, err := tx.ExecContext(
			ctx,
			"INSERT INTO refused_save (project, based_on, name, at, body) VALUES (?, ?, ?, ?, ?)",
			id, basedOn, state.Name, at, string(state.Body),
		)
		if err != nil {
			return 0, err
		}
		kept, err := r.LastInsertId()
		return revision, errors.Join(err, &StaleError{Current: revision, Kept: kept})
	}
	if err := keep(ctx, tx, id, revision, updated, name, body); err != nil {
		return 0, err
	}
	revision++
	_, err = tx.ExecContext(
		ctx,
		"UPDATE project SET name = ?, template = ?, format = ?, body = ?, revision = ?, updated = ? WHERE id = ?",
		state.Name, state.Template, state.Format, string(state.Body), revision, at, id,
	)
	return revision, err
}

// Refused gives a state that a stale save left behind.
func (s *Store) Refused(ctx context.Context, project string, kept int64) (name string, body []byte, err error) {
	err = s.row(
		ctx,
		"SELECT r.name, r.body FROM refused_save r JOIN project p ON p.id = r.project WHERE p.id = ? AND p.deleted IS NULL AND r.id = ?",
		[]any{project, kept}, &name, &body,
	)
	return name, body, err
}

// Delete takes a project away; [Store.Restore] puts it back within a month.
func (s *Store) Delete(ctx context.Context, id string) error {
	return s.one(ctx, "UPDATE project SET deleted = ? WHERE id = ? AND deleted IS NULL", now(), id)
}

// Restore puts a deleted project back as it was, with what was done to it.
func (s *Store) Restore(ctx context.Context, id string) error {
	return s.one(ctx, "UPDATE project SET deleted = NULL WHERE id = ? AND deleted IS NOT NULL", id)
}

// keptDeleted is how long a deleted project can be put back, and how long a refused save
// can be looked at.
const keptDeleted = 30 * 24 * time.Hour

// Sweep removes what was deleted or refused long ago, and thins what saves replaced.
func (s *Store) Sweep(ctx context.Context) error {
	at, err := s.use(ctx)
	if err != nil {
		return err
	}
	return at.sweep(ctx)
}

func (o *opened) sweep(ctx context.Context) error {
	long := now() - keptDeleted.Nanoseconds()
	err := o.within(ctx, func(tx *sql.Tx) error {
		for _, q := range []string{"DELETE FROM project WHERE deleted < ?", "DELETE FROM refused_save WHERE at < ?"} {
			if _, err := tx.ExecContext(ctx, q, long); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return err
	}
	return o.thinAll(ctx)
}
