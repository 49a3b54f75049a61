// Package demo seeds the projects of a made-up dog-agility club, the Tumblebrook
// Tails, so that there is something to look at. Every name and price is invented.
package demo
