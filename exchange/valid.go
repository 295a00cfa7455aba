package exchange

import (
	"encoding/json"
	"errors"
	"reflect"
	"strings"

	"mokren/core/decode"
)

// Valid holds a value to the limits of its shape, as if it had come as JSON: texts that a record
// can keep, numbers within their bounds.
func Valid(v any) *decode.Error { return valid(v) }

// valid holds a value to the limits of its shape, as if it had come as JSON.
func valid(v any) *decode.Error {
	e := readInto(v, reflect.New(reflect.TypeOf(v)).Interface())
	if e == nil || e.Path != "$" {
		return e
	}
	// Text that nothing can keep is refused before it is read: here is whose it is.
	of := reflect.ValueOf(v)
	for i := range of.NumField() {
		f := of.Field(i)
		if f.Kind() == reflect.String && readInto(f.Interface(), new(string)) != nil {
			name, _, _ := strings.Cut(of.Type().Field(i).Tag.Get("json"), ",")
			e.Path = "$." + name
		}
	}
	return e
}

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
