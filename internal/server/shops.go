package server

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"sync"

	"sturdyelbow/core/plan"
)

// errForgotten says that a shop's key is not known: the server was started anew, or
// many other shops were sent since.
var errForgotten = errors.New("the shop of this key is not known")

// mostShops is how many shops are remembered; each open page sends one.
const mostShops = 32

// shops remembers shops that were sent, by a hash of what they say, the latest
// [mostShops] of them. Its methods may be called at the same time.
type shops struct {
	mu    sync.Mutex
	all   map[string]*plan.Shop
	order []string // the oldest first
}

// keep remembers a shop and gives its key.
func (s *shops) keep(shop *plan.Shop) string {
	data, err := json.Marshal(shop)
	if err != nil {
		return ""
	}
	sum := sha256.Sum256(data)
	key := hex.EncodeToString(sum[:16])
	s.mu.Lock()
	defer s.mu.Unlock()
	if _, known := s.all[key]; known {
		return key
	}
	if s.all == nil {
		s.all = map[string]*plan.Shop{}
	}
	if len(s.order) == mostShops {
		delete(s.all, s.order[0])
		s.order = s.order[1:]
	}
	s.all[key] = shop
	s.order = append(s.order, key)
	return key
}

// find gives the shop of a key; nil where it is not known.
func (s *shops) find(key string) *plan.Shop {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.all[key]
}
