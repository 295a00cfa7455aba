package decode

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strconv"
)

var (
	rawType    = reflect.TypeFor[json.RawMessage]()
	numberType = reflect.TypeFor[json.Number]()
)

// assignKind puts a JSON value into a place of one kind.
func assignKind(v any, dst reflect.Value, at *path, lim *limits) error {
	fits := false
	switch t := dst.Type(); {
	case t == rawType:
		fits = assignRaw(v, dst)
	case t == numberType:
		var n json.Number
		if n, fits = v.(json.Number); fits {
			dst.SetString(n.String())
		}
	case t.Kind() == reflect.String:
		var s string
		if s, fits = v.(string); fits && lim.allowText(s) {
			dst.SetString(s)
		} else {
			fits = false
		}
	case t.Kind() == reflect.Bool:
		var b bool
		if b, fits = v.(bool); fits {
			dst.SetBool(b)
		}
	case t.Kind() == reflect.Float64:
		fits = assignFloat(v, dst, lim)
	case t.Kind() == reflect.Int, t.Kind() == reflect.Int64:
		fits = assignInt(v, dst, lim)
	default:
		return assignMany(v, dst, at, lim)
	}
	if !fits {
		return refusal(v, dst, at, lim)
	}
	return nil
}

// refusal names what was given beside what would do.
func refusal(v any, dst reflect.Value, at *path, lim *limits) error {
	return &Error{at.String(), show(v), wanted(dst.Type(), lim.tag)}
}

// assignRaw keeps a part as JSON, for whoever knows its shape.
func assignRaw(v any, dst reflect.Value) bool {
	b, err := json.Marshal(plain(v))
	if err == nil {
		dst.SetBytes(b)
	}
	return err == nil
}

// assignFloat takes a number that a float64 holds; one that is not 0 and comes
// out as 0 is too small to be kept.
func assignFloat(v any, dst reflect.Value, lim *limits) bool {
	n, ok := v.(json.Number)
	if !ok {
		return false
	}
	f, err := n.Float64()
	if err != nil || f == 0 && !holds(n.String()) || !lim.holds(f) {
		return false
	}
	dst.SetFloat(f)
	return true
}

// assignInt takes whole numbers only: 1.0 is not one here, and neither is 1e3.
func assignInt(v any, dst reflect.Value, lim *limits) bool {
	n, ok := v.(json.Number)
	if !ok {
		return false
	}
	i, err := strconv.ParseInt(n.String(), 10, 64)
	if err != nil || !lim.holds(float64(i)) {
		return false
	}
	dst.SetInt(i)
	return true
}

// assignMany takes what holds other values.
func assignMany(v any, dst reflect.Value, at *path, lim *limits) error {
	switch dst.Kind() {
	case reflect.Slice, reflect.Array:
		list, ok := v.([]any)
		if !ok || !fitsLength(len(list), dst, lim) {
			return refusal(v, dst, at, lim)
		}
		return assignList(list, dst, at, lim.ofItems())
	case reflect.Map:
		o, ok := v.(object)
		if !ok {
			return refusal(v, dst, at, lim)
		}
		return assignMap(o, dst, at, lim.ofItems())
	case reflect.Struct:
		o, ok := v.(object)
		if !ok {
			return refusal(v, dst, at, lim)
		}
		return assignStruct(o, dst, at)
	}
	return fmt.Errorf("strict: %s: type %s cannot be decoded", at, dst.Type())
}

// fitsLength: an array has a length, a list has bounds.
func fitsLength(n int, dst reflect.Value, lim *limits) bool {
	if dst.Kind() == reflect.Array {
		return n == dst.Len()
	}
	return lim.allowItems(n)
}

// assignList fills a list or an array; bounds of the tag apply to its items.
func assignList(list []any, dst reflect.Value, at *path, items *limits) error {
	into := dst
	if dst.Kind() == reflect.Slice {
		into = reflect.MakeSlice(dst.Type(), len(list), len(list))
	}
	at.enter()
	for i, e := range list {
		at.item(i)
		if err := assign(e, into.Index(i), at, items); err != nil {
			return err
		}
	}
	at.leave()
	if dst.Kind() == reflect.Slice {
		dst.Set(into)
	}
	return nil
}

// assignMap fills a map by its keys, each of which appears once.
func assignMap(o object, dst reflect.Value, at *path, items *limits) error {
	m := reflect.MakeMapWithSize(dst.Type(), len(o.keys))
	at.enter()
	for i, k := range o.keys {
		at.field(k)
		e := reflect.New(dst.Type().Elem()).Elem()
		if err := assign(o.values[i], e, at, items); err != nil {
			return err
		}
		m.SetMapIndex(reflect.ValueOf(k).Convert(dst.Type().Key()), e)
	}
	at.leave()
	dst.Set(m)
	return nil
}
