package store

import (
	"errors"
	"fmt"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// Cause says what keeps the store from working.
type Cause string

// Why nothing can be stored, or read, for now.
const (
	Full     Cause = "full"
	ReadOnly Cause = "read-only"
	Gone     Cause = "gone"
	Broken   Cause = "broken" // the disk gives errors
	Damaged  Cause = "damaged"
	Busy     Cause = "busy"
)

var causes = map[Cause]string{
	Full:     "the disk is full: make room on it",
	ReadOnly: "the disk or the folder of the projects is read-only: allow writing there",
	Gone:     "the folder of the projects is gone: put it back where it was",
	Broken:   "the disk cannot be read or written: see that it is connected and sound",
	Damaged:  "the database is damaged: stop the server and run sturdyelbow check",
	Busy:     "another program holds the database: close it",
}

// Trouble says why the store cannot keep or give something for now. What was asked for
// may be asked again.
type Trouble struct {
	Cause Cause
	Err   error
}

func (t *Trouble) Error() string { return fmt.Sprintf("%s (%v)", t.Words(), t.Err) }

// Unwrap gives what the system said.
func (t *Trouble) Unwrap() error { return t.Err }

// Words say what is the matter and what to do.
func (t *Trouble) Words() string { return causes[t.Cause] }

// troubled makes a [Trouble] of what SQLite says of the disk; any other error stays what
// it is.
func troubled(err error) error {
	var e *sqlite.Error
	var known *Trouble
	if err == nil || errors.As(err, &known) || !errors.As(err, &e) {
		return err
	}
	cause := Cause("")
	switch e.Code() & 0xff { // what is above it says it more closely
	case sqlite3.SQLITE_FULL:
		cause = Full
	case sqlite3.SQLITE_READONLY, sqlite3.SQLITE_PERM:
		cause = ReadOnly
		if e.Code() == sqlite3.SQLITE_READONLY_DBMOVED {
			cause = Gone
		}
	case sqlite3.SQLITE_CANTOPEN:
		cause = ReadOnly // of a folder that is there: another file cannot be made in it
	case sqlite3.SQLITE_IOERR:
		cause = Broken
	case sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB:
		cause = Damaged
	case sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED:
		cause = Busy
	default:
		return err
	}
	return &Trouble{cause, err}
}
