package store

import (
	"context"
	"database/sql"
	"errors"
	"slices"
	"time"
)

// Event is something that was done. Its body is the caller's.
type Event struct {
	Seq    int64  // the order in which the store took it
	ID     string // made on the device
	Device string
	At     time.Time // when the store took it
	Body   []byte
}

// Share is what of something that was done goes into the record of one project.
type Share struct {
	Project string
	Events  []Event
}

// Grown is a record to which events are being added.
type Grown struct {
	Project string
	Last    int64                   // the sequence number of its last event before
	Fresh   []Event                 // that it did not have, as they are stored
	All     func() ([]Event, error) // what was in it before
}

// Add appends events to the records of projects: all of them or none, at once. An event whose id its project
// has already counts once: the first stands. It gives them as they are stored, share by share. then, where it is
// given, makes of the records that grew what becomes of the shop; it is stored with the events, or neither is.
func (s *Store) Add(
	ctx context.Context, shares []Share, then func(grown []Grown, shop []byte) ([]byte, error),
) (stored [][]Event, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		stored = make([][]Event, len(shares))
		var grown []Grown
		for i, share := range shares {
			g := Grown{Project: share.Project}
			err := tx.QueryRowContext(
				ctx,
				"SELECT coalesce((SELECT max(seq) FROM event WHERE project = p.id), 0) FROM project p WHERE p.id = ? AND p.deleted IS NULL",
				share.Project,
			).Scan(&g.Last)
			if err != nil {
				return found(err)
			}
			g.All = func() ([]Event, error) { return recordUpTo(ctx, tx, share.Project, g.Last) }
			if stored[i], g.Fresh, err = add(ctx, tx, share.Project, share.Events); err != nil {
				return err
			}
			if len(g.Fresh) > 0 {
				grown = append(grown, g)
			}
		}
		if then == nil || len(grown) == 0 {
			return nil
		}
		var revision int64
		var shop []byte
		err := tx.QueryRowContext(ctx, "SELECT revision, body FROM shop WHERE id = 1").Scan(&revision, &shop)
		if err != nil && !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		next, err := then(grown, shop)
		if err != nil || next == nil {
			return err
		}
		return shops.put(ctx, tx, theShop, revision+1, next)
	})
	return stored, err
}

const eventColumns = "seq, id, device, at, body"

func scanEvent(rows *sql.Rows) (e Event, err error) {
	var at int64
	err = rows.Scan(&e.Seq, &e.ID, &e.Device, &at, &e.Body)
	e.At = time.Unix(0, at).UTC()
	return e, err
}

func recordUpTo(ctx context.Context, tx *sql.Tx, project string, last int64) (all []Event, err error) {
	rows, err := tx.QueryContext(ctx, "SELECT "+eventColumns+" FROM event WHERE project = ? AND seq <= ? ORDER BY seq", project, last)
	if err != nil {
		return nil, err
	}
	for rows.Next() {
		e, err := scanEvent(rows)
		if err != nil {
			return nil, errors.Join(err, rows.Close())
		}
		all = append(all, e)
	}
	return all, errors.Join(rows.Err(), rows.Close())
}

// add appends events to one record, and gives them as they are stored, and which of them are new.
func add(ctx context.Context, tx *sql.Tx, project string, events []Event) (stored, fresh []Event, err error) {
	for _, e := range events {
		at := e.At.UnixNano()
		if e.At.IsZero() {
			at = now()
		}
		made, err := tx.ExecContext(
			ctx,
			"INSERT INTO event (project, id, device, at, body) VALUES (?, ?, ?, ?, ?) ON CONFLICT (project, id) DO NOTHING",
			project, e.ID, e.Device, at, string(e.Body),
		)
		if err != nil {
			return nil, nil, err
		}
		n, err := made.RowsAffected()
		if err != nil {
			return nil, nil, err
		}
		if n > 0 {
			if e.Seq, err = made.LastInsertId(); err != nil {
				return nil, nil, err
			}
			e.At = time.Unix(0, at).UTC()
			fresh = append(fresh, e)
		} else {
			err = tx.QueryRowContext(ctx, "SELECT seq, device, at, body FROM event WHERE project = ? AND id = ?", project, e.ID).
				Scan(&e.Seq, &e.Device, &at, &e.Body)
			if err != nil {
				return nil, nil, err
			}
			e.At = time.Unix(0, at).UTC()
		}
		stored = append(stored, e)
	}
	return stored, fresh, nil
}

// Events gives a project's record after a sequence number, in its order; [ErrNotFound]
// when there is no such project.
func (s *Store) Events(ctx context.Context, project string, after int64) (all []Event, err error) {
	err = s.read(ctx, func(rows *sql.Rows) error {
		e, err := scanEvent(rows)
		all = append(all, e)
		return err
	}, "SELECT "+eventColumns+" FROM event WHERE project = ? AND seq > ? ORDER BY seq", project, after)
	if err != nil || len(all) > 0 {
		return all, err
	}
	_, err = s.Line(ctx, project)
	return nil, err
}

// LastEvent gives the sequence number of the last thing done to a project; 0 where
// nothing was.
func (s *Store) LastEvent(ctx context.Context, project string) (seq int64, err error) {
	err = s.row(ctx, "SELECT coalesce(max(seq), 0) FROM event WHERE project = ?", []any{project}, &seq)
	return seq, err
}

// Upgrade saves a project whose stored form is brought up to date, together with what
// its former form said of what was done. It changes neither the time nor the revision
// that the project has, and does nothing where it was saved since.
func (s *Store) Upgrade(ctx context.Context, id string, revision int64, state State, events []Event) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(
			ctx,
			"UPDATE project SET template = ?, format = ?, body = ? WHERE id = ? AND revision = ?",
			state.Template, state.Format, string(state.Body), id, revision,
		)
		if err != nil {
			return err
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		_, _, err = add(ctx, tx, id, events)
		return err
	})
}

// Bearers lists the projects that are there whose record has an event of one of the ids, or of an id that goes on
// from it with a hyphen.
func (s *Store) Bearers(ctx context.Context, ids []string) (projects []string, err error) {
	for _, id := range ids {
		err = errors.Join(err, s.read(ctx, func(rows *sql.Rows) error {
			var p string
			err := rows.Scan(&p)
			if !slices.Contains(projects, p) {
				projects = append(projects, p)
			}
			return err
		}, "SELECT DISTINCT e.project FROM event e JOIN project p ON p.id = e.project "+
			"WHERE (e.id = ?1 OR e.id > ?1 || '-' AND e.id < ?1 || '.') AND p.deleted IS NULL ORDER BY p.created", id))
	}
	return projects, err
}
