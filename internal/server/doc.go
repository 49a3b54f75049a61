// Package server serves the API and the built web pages from one binary. It
// holds no rule of the job: it reads requests, asks [plan.Make], and keeps
// documents in the store. Errors are problem+json (RFC 9457) with field paths.
package server
