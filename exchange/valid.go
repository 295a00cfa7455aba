package exchange

import (
	"encoding/json"
	"errors"
	"reflect"

	"mokren/core/decode"
)

// Valid holds a value to the limits of its shape, as if it had come as JSON: texts that a record
// can keep, numbers within their bounds.
func Valid(v any) *decode.Error { return valid(v) }

// valid holds a value to the limits of its shape, as if it had come as JSON.
func valid(v any) *decode.Error { return readInto(v, reflect.New(reflect.TypeOf(v)).Interface()) }

// readInto reads a value strictly into a shape.
func readInto(v, into any) *decode.Error {
	raw, err := json.Marshal(v)
	if err == nil {
		err = decode.JSON(raw, into)
	}
	var e *decode.Error
	switch {
	case err == nil:
		return nil
	case errors.As(err, &e):
		return e
	}
	return &decode.Error{Path: "$", Given: "something else", Allowed: err.Error()}
}
