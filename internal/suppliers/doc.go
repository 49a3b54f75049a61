// Package suppliers has the sources that say what a shop sells and asks: one interface, which price
// lists of the builder's own fill and three simulated shops that ship with the program. The simulated
// ones are marked as examples; nothing here goes to the network.
package suppliers
