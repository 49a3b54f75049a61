package store

import (
	"context"
	"database/sql"
	"errors"
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

// Add appends events to a project's record, all or none, and gives them as they are
// stored. One whose id the project has already counts once: the first stands. then, where
// it is given, makes of the whole record before and after what becomes of the shop; it is
// stored with the events, or neither is.
func (s *Store) Add(
	ctx context.Context, project string, events []Event, then func(before, after []Event, shop []byte) ([]byte, error),
) (stored []Event, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		var one int
		if err := tx.QueryRowContext(ctx, "SELECT 1 FROM project WHERE id = ? AND deleted IS NULL", project).Scan(&one); err != nil {
			return found(err)
		}
		var before []Event
		if then != nil {
			if before, err = recordOf(ctx, tx, project); err != nil {
				return err
			}
		}
		if stored, err = add(ctx, tx, project, events); err != nil || then == nil {
			return err
		}
		after, err := recordOf(ctx, tx, project)
		if err != nil {
			return err
		}
		var revision int64
		var shop []byte
		err = tx.QueryRowContext(ctx, "SELECT revision, body FROM shop WHERE id = 1").Scan(&revision, &shop)
		if err != nil && !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		next, err := then(before, after, shop)
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

func recordOf(ctx context.Context, tx *sql.Tx, project string) (all []Event, err error) {
	rows, err := tx.QueryContext(ctx, "SELECT "+eventColumns+" FROM event WHERE project = ? ORDER BY seq", project)
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

func add(ctx context.Context, tx *sql.Tx, project string, events []Event) (stored []Event, err error) {
	for _, e := range events {
		at := e.At.UnixNano()
		if e.At.IsZero() {
			at = now()
		}
		_, err := tx.ExecContext(
			ctx,
			"INSERT INTO event (project, id, device, at, body) VALUES (?, ?, ?, ?, ?) ON CONFLICT (project, id) DO NOTHING",
			project, e.ID, e.Device, at, string(e.Body),
		)
		if err != nil {
			return nil, err
		}
		err = tx.QueryRowContext(ctx, "SELECT seq, device, at, body FROM event WHERE project = ? AND id = ?", project, e.ID).
			Scan(&e.Seq, &e.Device, &at, &e.Body)
		if err != nil {
			return nil, err
		}
		e.At = time.Unix(0, at).UTC()
		stored = append(stored, e)
	}
	return stored, nil
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
		_, err = add(ctx, tx, id, events)
		return err
	})
}

// ProjectsWith lists the projects that are there whose record has an event of an id.
func (s *Store) ProjectsWith(ctx context.Context, event string) (ids []string, err error) {
	err = s.read(ctx, func(rows *sql.Rows) error {
		var id string
		err := rows.Scan(&id)
		ids = append(ids, id)
		return err
	}, "SELECT e.project FROM event e JOIN project p ON p.id = e.project WHERE e.id = ? AND p.deleted IS NULL ORDER BY e.seq", event)
	return ids, err
}
