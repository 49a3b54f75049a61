// Package plan is the one front door: a job goes in, a plan comes out.
//
// [Make] is pure and deterministic; searches stop by counted nodes, never by
// the clock. A plan for an unfinished or contradictory frame is still a plan,
// with findings; only input that makes no sense is an error.
package plan
