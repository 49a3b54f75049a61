package server

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/fields"
)

// The document's schema says of every field what it is, and says what the Go source says.
func TestTheSchemaDescribesEveryField(t *testing.T) {
	data, err := Schema()
	require.NoError(t, err)
	var s struct {
		Defs map[string]struct {
			Description string
			Properties  map[string]struct {
				Description string
				Ref         string `json:"$ref"`
			}
		} `json:"$defs"`
	}
	require.NoError(t, json.Unmarshal(data, &s))
	require.Greater(t, len(s.Defs), 15)
	for name, def := range s.Defs {
		assert.NotEmpty(t, def.Description, name)
		for field, p := range def.Properties {
			assert.True(t, p.Description != "" || p.Ref != "", "%s.%s: write a comment beside the field of the Go type", name, field)
		}
	}
	now, err := fields.Read("../../core", "../../internal")
	require.NoError(t, err)
	var said map[string]string
	require.NoError(t, json.Unmarshal(fieldsJSON, &said))
	for field, text := range now {
		assert.Equal(t, text, said[field], "internal/server/fields.json is stale: make types")
	}
}
