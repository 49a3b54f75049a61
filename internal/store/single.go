package store

import (
	"context"
	"database/sql"
	"errors"
)

// single is a table whose documents are replaced whole, each with a revision of its own.
type single struct{ table, key string }

var (
	shops     = single{"shop", "id"} // one document
	purchases = single{"purchase", "projects"}
)

// theShop is the key of the shop's one document.
const theShop = 1

// get gives a document; revision 0 and no body before its first save.
func (t single) get(ctx context.Context, s *Store, key any) (body []byte, revision int64, err error) {
	err = s.row(ctx, "SELECT body, revision FROM "+t.table+" WHERE "+t.key+" = ?", []any{key}, &body, &revision)
	if errors.Is(err, ErrNotFound) {
		return nil, 0, nil
	}
	return body, revision, err
}

// revision gives the revision of a document alone.
func (t single) revision(ctx context.Context, s *Store, key any) (revision int64, err error) {
	err = s.row(ctx, "SELECT revision FROM "+t.table+" WHERE "+t.key+" = ?", []any{key}, &revision)
	if errors.Is(err, ErrNotFound) {
		return 0, nil
	}
	return revision, err
}

// save replaces a document like [Store.Save], but keeps no stale one aside.
func (t single) save(ctx context.Context, s *Store, key any, basedOn int64, body []byte) (revision int64, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		var have string
		err := tx.QueryRowContext(ctx, "SELECT revision, body FROM "+t.table+" WHERE "+t.key+" = ?", key).Scan(&revision, &have)
		switch {
		case err != nil && !errors.Is(err, sql.ErrNoRows):
			return err
		case err == nil && have == string(body):
			return nil
		case revision != basedOn:
			return &StaleError{Current: revision}
		}
		revision++
		return t.put(ctx, tx, key, revision, body)
	})
	return revision, err
}

func (t single) put(ctx context.Context, tx *sql.Tx, key any, revision int64, body []byte) error {
	_, err := tx.ExecContext(
		ctx,
		"INSERT INTO "+t.table+" ("+t.key+", revision, updated, body) VALUES (?, ?, ?, ?) ON CONFLICT ("+t.key+
			") DO UPDATE SET body = excluded.body, revision = excluded.revision, updated = excluded.updated",
		key,
		revision,
		now(),
		string(body),
	)
	return err
}

// Shop gives the shop's document; revision 0 and no body before the first save.
func (s *Store) Shop(ctx context.Context) (body []byte, revision int64, err error) {
	return shops.get(ctx, s, theShop)
}

// ShopRevision gives the revision of the shop's document alone.
func (s *Store) ShopRevision(ctx context.Context) (int64, error) {
	return shops.revision(ctx, s, theShop)
}

// SaveShop replaces the shop's document like [Store.Save].
func (s *Store) SaveShop(ctx context.Context, basedOn int64, body []byte) (int64, error) {
	return shops.save(ctx, s, theShop, basedOn, body)
}

// Purchase gives how several projects are bought together, by their ids, sorted, with commas between;
// revision 0 and no body before the first save.
func (s *Store) Purchase(ctx context.Context, of string) (body []byte, revision int64, err error) {
	return purchases.get(ctx, s, of)
}

// PurchaseRevision gives the revision of [Store.Purchase] alone.
func (s *Store) PurchaseRevision(ctx context.Context, of string) (int64, error) {
	return purchases.revision(ctx, s, of)
}

// SavePurchase replaces what [Store.Purchase] gives, like [Store.Save].
func (s *Store) SavePurchase(ctx context.Context, of string, basedOn int64, body []byte) (int64, error) {
	return purchases.save(ctx, s, of, basedOn, body)
}
