// Package starter answers: how does a frame begin? From a few target sizes,
// each with the meaning the builder gives it, a starter composes an ordinary
// document out of groups; nothing in it is special afterwards.
package starter
