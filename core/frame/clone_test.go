package frame_test

import (
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
)

// fillAll puts something into every field of a value, so that none is left empty.
func fillAll(v reflect.Value, n *int) {
	*n++
	switch v.Kind() {
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fillAll(v.Elem(), n)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		for i := range 2 {
			fillAll(v.Index(i), n)
		}
	case reflect.Map:
		key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		fillAll(key, n)
		fillAll(value, n)
		v.Set(reflect.MakeMap(v.Type()))
		v.SetMapIndex(key, value)
	case reflect.Array:
		for i := range v.Len() {
			fillAll(v.Index(i), n)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			fillAll(v.Field(i), n)
		}
	case reflect.String:
		v.SetString(string(rune('a' + *n%26)))
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int, reflect.Int64:
		v.SetInt(int64(*n))
	case reflect.Float64:
		v.SetFloat(float64(*n))
	}
}

// spoil changes everything that a value points to.
func spoil(v reflect.Value) {
	switch v.Kind() {
	case reflect.Pointer:
		spoil(v.Elem())
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			spoil(v.Index(i))
		}
	case reflect.Map:
		v.Clear()
	case reflect.Struct:
		for i := range v.NumField() {
			spoil(v.Field(i))
		}
	default:
		v.SetZero()
	}
}

// Whatever a document can hold is copied, and nothing of the copy is the
// original's: every field of every kind is filled, the copy is spoilt, and the
// original is as it was.
func TestACloneSharesNothing(t *testing.T) {
	filled := func() *frame.Document {
		d, n := &frame.Document{}, 0
		fillAll(reflect.ValueOf(d).Elem(), &n)
		return d
	}
	d := filled()
	c := d.Clone()
	require.Equal(t, d, c)
	spoil(reflect.ValueOf(c).Elem())
	assert.Equal(t, filled(), d)
	assert.NotEqual(t, d, c)
}
