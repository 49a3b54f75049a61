// Package supply answers: who sells it, for how much, and by when?
//
// A [Supplier] is what a shop says of its wares: prices, packs, how many there are, how long it takes and
// what sending costs. [Split] buys a list from several of them for the least money. The package asks
// nobody: whoever has a list, a file or a stand-in, hands it over.
package supply
