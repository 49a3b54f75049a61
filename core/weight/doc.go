// Package weight answers: how heavy is one of it?
package weight
