// Package finding answers: what should the builder know about this plan? A
// [Finding] is data: a code, a severity, what it is about, the figures it rests
// on, and the fixes that one press can apply. Its English is in core/message.
package finding
