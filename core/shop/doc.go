// Package shop answers: what does the builder have, and what does it cost? Sticks on
// sale, prices, tools with their kerfs, pipe on the rack, and the figures and seats that
// were measured on real parts.
package shop
