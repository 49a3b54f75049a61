// Package joinery answers: which joints are cemented, which stay dry, and how
// much cement and primer does that take?
//
// The unit is the insertion, one spigot in one port: a bushing is two. Sockets
// per quart are typical figures from the catalog; primer goes twice as far.
package joinery
