package message_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
)

// No length is told as no tape shows it: what several cuts may be off by together is no whole number of 64ths.
func TestLengthsAreToldAsATapeShowsThem(t *testing.T) {
	f := finding.New("knife-edge", finding.Note).With("many", 1).With("size", "3/4").With("stick", 10*measure.Foot).
		With("rest", measure.Inch/64).With("cuts", 9).With("allowance", measure.Length(1_122_533))
	said := message.Said(f).Text
	assert.Contains(t, said, `which may be off by 3/64" together`)
	assert.NotContains(t, said, "mm")
}
