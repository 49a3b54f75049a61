package store

import (
	"context"
	"database/sql"
	"errors"
)

// Shop gives the shop's document; revision 0 and no body before the first save.
func (s *Store) Shop(ctx context.Context) (body []byte, revision int64, err error) {
	err = s.row(ctx, "SELECT body, revision FROM shop WHERE id = 1", nil, &body, &revision)
	if errors.Is(err, ErrNotFound) {
		return nil, 0, nil
	}
	return body, revision, err
}

// ShopRevision gives the revision of the shop's document alone.
func (s *Store) ShopRevision(ctx context.Context) (revision int64, err error) {
	err = s.row(ctx, "SELECT revision FROM shop WHERE id = 1", nil, &revision)
	if errors.Is(err, ErrNotFound) {
		return 0, nil
	}
	return revision, err
}

// SaveShop replaces the shop's document like [Store.Save].
func (s *Store) SaveShop(ctx context.Context, basedOn int64, body []byte) (revision int64, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		var have string
		err := tx.QueryRowContext(ctx, "SELECT revision, body FROM shop WHERE id = 1").Scan(&revision, &have)
		switch {
		case err != nil && !errors.Is(err, sql.ErrNoRows):
			return err
		case err == nil && have == string(body):
			return nil
		case revision != basedOn:
			return &StaleError{Current: revision}
		}
		revision++
		return putShop(ctx, tx, revision, body)
	})
	return revision, err
}

func putShop(ctx context.Context, tx *sql.Tx, revision int64, body []byte) error {
	_, err := tx.ExecContext(
		ctx,
		"INSERT INTO shop (id, revision, updated, body) VALUES (1, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET body = excluded.body, revision = excluded.revision, updated = excluded.updated",
		revision,
		now(),
		string(body),
	)
	return err
}
