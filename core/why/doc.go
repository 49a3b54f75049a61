// Package why answers "why this number?": a number with the terms that sum to
// it, so that every cut and every size can show its working.
package why
