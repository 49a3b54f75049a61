package store

import (
	"bytes"
	"compress/gzip"
	"context"
	"database/sql"
	"errors"
	"io"
	"time"
)

// Revision is a state that a project had.
type Revision struct {
	Revision int64
	Name     string
	At       time.Time // when it was saved
}

// keep puts away the state that a save is about to replace.
func keep(ctx context.Context, tx *sql.Tx, project string, revision, at int64, name, body string) error {
	packed, err := pack([]byte(body))
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(
		ctx,
		"INSERT INTO revision (project, revision, at, name, body) VALUES (?, ?, ?, ?, ?)",
		project,
		revision,
		at,
		name,
		packed,
	)
	if err != nil || revision%thinEvery != 0 {
		return err
	}
	return thin(ctx, tx, project, now())
}

// Revisions lists the states that a project had before the present one, the latest first.
func (s *Store) Revisions(ctx context.Context, project string) (all []Revision, err error) {
	err = s.read(ctx, func(rows *sql.Rows) error {
		var r Revision
		var at int64
		err := rows.Scan(&r.Revision, &r.Name, &at)
		r.At = time.Unix(0, at).UTC()
		all = append(all, r)
		return err
	}, "SELECT r.revision, r.name, r.at FROM revision r JOIN project p ON p.id = r.project WHERE p.id = ? AND p.deleted IS NULL ORDER BY r.revision DESC", project)
	return all, err
}

// Revision gives the body of a state that a project had; [ErrNotFound] where it is not
// kept.
func (s *Store) Revision(ctx context.Context, project string, revision int64) (body []byte, err error) {
	var packed []byte
	err = s.row(
		ctx,
		"SELECT r.body FROM revision r JOIN project p ON p.id = r.project WHERE p.id = ? AND p.deleted IS NULL AND r.revision = ?",
		[]any{project, revision}, &packed,
	)
	if err != nil {
		return nil, err
	}
	return unpack(packed)
}

// thinEvery is how many saves lie between two thinnings of a project.
const thinEvery = 20

// ladder says how far apart the states of an age are that are kept.
var ladder = []struct{ age, apart time.Duration }{
	{5 * time.Minute, 0},
	{time.Hour, time.Minute},
	{24 * time.Hour, 10 * time.Minute},
	{7 * 24 * time.Hour, time.Hour},
	{1 << 62, 24 * time.Hour},
}

// apart is how far apart the states of an age are kept.
func apart(age time.Duration) time.Duration {
	for _, l := range ladder {
		if age <= l.age {
			return l.apart
		}
	}
	return 0
}

// thinAll thins the states of every project that has more than a few: they grow old also
// where nothing is saved any more.
func (o *opened) thinAll(ctx context.Context) (err error) {
	rows, err := o.db.QueryContext(ctx, "SELECT project FROM revision GROUP BY project HAVING count(*) > ?", thinEvery)
	if err != nil {
		return troubled(err)
	}
	var all []string
	for rows.Next() {
		var id string
		if err := rows.Scan(&id); err != nil {
			return errors.Join(err, rows.Close())
		}
		all = append(all, id)
	}
	if err := errors.Join(rows.Err(), rows.Close()); err != nil {
		return troubled(err)
	}
	for _, id := range all {
		if err := o.within(ctx, func(tx *sql.Tx) error { return thin(ctx, tx, id, now()) }); err != nil {
			return err
		}
	}
	return nil
}

// thin drops states so that they lie further apart the older they are. Of those in one
// span of time the last is kept: it is how the work stood when it paused.
func thin(ctx context.Context, tx *sql.Tx, project string, at int64) error {
	rows, err := tx.QueryContext(ctx, "SELECT revision, at FROM revision WHERE project = ? ORDER BY revision DESC", project)
	if err != nil {
		return err
	}
	var drop []int64
	last, have := int64(0), false
	for rows.Next() {
		var revision, saved int64
		if err := rows.Scan(&revision, &saved); err != nil {
			_ = rows.Close()
			return err
		}
		span := apart(time.Duration(at - saved)).Nanoseconds()
		if have && span > 0 && saved/span == last/span {
			drop = append(drop, revision)
			continue
		}
		last, have = saved, true
	}
	if err := rows.Close(); err != nil {
		return err
	}
	for _, r := range drop {
		if _, err := tx.ExecContext(ctx, "DELETE FROM revision WHERE project = ? AND revision = ?", project, r); err != nil {
			return err
		}
	}
	return nil
}

func pack(data []byte) ([]byte, error) {
	var b bytes.Buffer
	w, err := gzip.NewWriterLevel(&b, gzip.BestSpeed)
	if err != nil {
		return nil, err
	}
	if _, err := w.Write(data); err != nil {
		return nil, err
	}
	err = w.Close()
	return b.Bytes(), err
}

func unpack(packed []byte) ([]byte, error) {
	r, err := gzip.NewReader(bytes.NewReader(packed))
	if err != nil {
		return nil, err
	}
	return io.ReadAll(r)
}
