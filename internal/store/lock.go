package store

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"syscall"

	"github.com/gofrs/flock"
)

// LockedError says that a server has the data directory.
type LockedError struct {
	Dir string
	By  string // where it answers; "" where that is not known
}

func (e *LockedError) Error() string {
	who := "another Sturdy Elbow"
	if e.By != "" {
		who = "the Sturdy Elbow at " + e.By
	}
	return fmt.Sprintf("%s is in use by %s: stop it first, or give another folder with --data", e.Dir, who)
}

// Lock takes a data directory for one server, or for putting a backup in its place. It is
// let go when the process ends, however that comes about. The error is a [LockedError]
// where somebody else has it.
func Lock(dir, by string) (release func() error, err error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data directory cannot be made: %w", err)
	}
	path := filepath.Join(dir, "in-use")
	l := flock.New(path)
	switch ok, err := l.TryLock(); {
	case err != nil:
		return nil, unwritable(err)
	case !ok:
		who, _ := os.ReadFile(path) // it only helps to find it
		return nil, &LockedError{dir, strings.TrimSpace(string(who))}
	}
	if err := os.WriteFile(path, []byte(by+"\n"), 0o600); err != nil {
		return nil, errors.Join(unwritable(err), l.Unlock())
	}
	return l.Unlock, nil
}

// unwritable makes a [Trouble] of what the system says of a file that cannot be written.
func unwritable(err error) error {
	if errors.Is(err, fs.ErrPermission) || errors.Is(err, syscall.EROFS) {
		return &Trouble{ReadOnly, err}
	}
	return err
}
