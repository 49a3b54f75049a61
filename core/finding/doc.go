// Package finding answers: what should the builder know about this plan? A
// [Finding] is a value, not a sentence: a code, a severity, whom it concerns,
// the figures it rests on, and the fixes that one click can apply.
package finding
