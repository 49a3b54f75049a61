// Package material answers: what is one thing that is bought, exactly? A [Spec] is what
// a price is for; a [Line] of the bill of materials also says how many, for what, and by
// which rule.
package material
