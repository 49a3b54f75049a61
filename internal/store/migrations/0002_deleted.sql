-- +goose Up
-- A deleted project can be put back; it goes for good after a month.
ALTER TABLE project ADD COLUMN deleted TEXT;

-- +goose Down
DELETE FROM project WHERE deleted IS NOT NULL;
ALTER TABLE project DROP COLUMN deleted;
