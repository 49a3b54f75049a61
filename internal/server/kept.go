package server

import (
	"cmp"
	"sync"
)

// kept keeps what was worked out, by what it is of, as long as the state S that it follows
// from is the same. Its methods may be called at the same time.
type kept[S comparable, T any] struct {
	most int // [mostKept] where it says nothing
	mu   sync.Mutex
	all  map[string]keptOne[S, T]
}

type keptOne[S comparable, T any] struct {
	of S
	is T
}

// mostKept bounds the memory of each; what is more starts over.
const mostKept = 1000

// find gives what was kept of a state, or works it out. What cannot be worked out is not
// kept.
func (k *kept[S, T]) find(key string, of S, work func() (T, error)) (T, error) {
	k.mu.Lock()
	one, known := k.all[key]
	k.mu.Unlock()
	if known && one.of == of {
		return one.is, nil
	}
	is, err := work()
	if err != nil {
		return is, err
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.all == nil || len(k.all) >= cmp.Or(k.most, mostKept) {
		k.all = map[string]keptOne[S, T]{}
	}
	k.all[key] = keptOne[S, T]{of, is}
	return is, nil
}
