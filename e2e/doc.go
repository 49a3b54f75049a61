// Package e2e drives the real interface in headless Chromium against the real
// server, as a builder would: it types, presses and reads.
package e2e
