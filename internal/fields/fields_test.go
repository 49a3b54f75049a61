package fields_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/fields"
)

func TestCommentsOfFields(t *testing.T) {
	all, err := fields.Read("../../core/frame", "../../core/measure")
	require.NoError(t, err)
	assert.Equal(t, "the joint it is measured from; the pipe's first where it is left out", all["frame.Anchor.from"])
	assert.Contains(
		t,
		all["frame.Anchor.datum"],
		"Datum is what a place along a pipe is measured from",
		"a field without a comment has its type's",
	)
	_, none := fields.Read("../../core/nowhere")
	assert.Error(t, none)
}
