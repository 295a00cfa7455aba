// Package strict decodes JSON the way Mokren's contracts ask for: names are
// case-sensitive, unknown, repeated and misspelt fields are refused, null is
// not a value, absent and zero are told apart, and every refusal names the
// field by its JSON path, what was given and what is allowed.
//
//	var in Input
//	if err := strict.Decode(raw, &in); err != nil { … } // err is *strict.Error
//
// A field is required unless its json tag says omitempty. The tags minimum,
// maximum, multipleOf, enum (comma separated), minItems, maxItems and
// maxLength mean what they mean in JSON Schema; the HTTP layer reads the same
// tags, so a limit is written once. A type that implements Checker is asked
// for the rest.
package strict

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"reflect"
	"strconv"
	"strings"
	"unicode/utf8"
)

// Error is a refusal that names the field.
type Error struct {
	Path    string // JSON path, "$.points[2].side"
	Given   string // what was given, shortened, as JSON or in words
	Allowed string // what would have been accepted
}

func (e *Error) Error() string {
	return fmt.Sprintf("%s: given %s; allowed: %s", e.Path, e.Given, e.Allowed)
}

// Under returns e with its path placed below prefix ("$[3]" for line 3).
func (e *Error) Under(prefix string) *Error {
	c := *e
	c.Path = prefix + strings.TrimPrefix(e.Path, "$")
	return &c
}

// Checker is implemented by values with rules of their own (ids of a list,
// fields that depend on one another). Check returns nil when the value is
// allowed; a returned Error's Path is relative ("$" is the value itself).
type Checker interface{ Check() *Error }

// Decode reads exactly one JSON document from raw into dst, a non-nil pointer.
func Decode(raw []byte, dst any) error {
	if !utf8.Valid(raw) {
		return &Error{"$", "bytes that are not UTF-8", "JSON text in UTF-8"}
	}
	dec := json.NewDecoder(bytes.NewReader(raw))
	dec.UseNumber()
	v, err := read(dec, "$")
	if err != nil {
		return err
	}
	if _, err := dec.Token(); err != io.EOF {
		return &Error{"$", "text after the document", "one JSON document"}
	}
	return assign(v, reflect.ValueOf(dst).Elem(), "$", "")
}

// object keeps the order and refuses repeats, which map[string]any cannot.
type object struct {
	keys   []string
	values map[string]any
}

// maxDepth guards the recursion against hostile nesting; no contract of ours
// is deeper than eight.
const maxDepth = 64

func read(dec *json.Decoder, path string) (any, error) {
	return readDepth(dec, path, 0)
}

func readDepth(dec *json.Decoder, path string, depth int) (any, error) {
	if depth > maxDepth {
		return nil, &Error{path, "nesting deeper than 64", "flatter JSON"}
	}
	tok, err := dec.Token()
	if err != nil {
		return nil, syntax(path, err)
	}
	d, ok := tok.(json.Delim)
	if !ok {
		return tok, nil
	}
	switch d {
	case '{':
		o := object{values: map[string]any{}}
		for dec.More() {
			k, err := dec.Token()
			if err != nil {
				return nil, syntax(path, err)
			}
			key := k.(string)
			if _, twice := o.values[key]; twice {
				return nil, &Error{path + "." + key, "the field twice", "each field once"}
			}
			v, err := readDepth(dec, path+"."+key, depth+1)
			if err != nil {
				return nil, err
			}
			o.keys = append(o.keys, key)
			o.values[key] = v
		}
		if _, err := dec.Token(); err != nil {
			return nil, syntax(path, err)
		}
		return o, nil
	default:
		a := []any{}
		for dec.More() {
			v, err := readDepth(dec, fmt.Sprintf("%s[%d]", path, len(a)), depth+1)
			if err != nil {
				return nil, err
			}
			a = append(a, v)
		}
		if _, err := dec.Token(); err != nil {
			return nil, syntax(path, err)
		}
		return a, nil
	}
}

func syntax(path string, err error) error {
	if err == io.EOF || err == io.ErrUnexpectedEOF {
		return &Error{path, "nothing more", "a complete JSON document"}
	}
	return &Error{path, "broken JSON (" + strings.ReplaceAll(err.Error(), "\n", " ") + ")", "valid JSON"}
}

var checkerType = reflect.TypeFor[Checker]()

func assign(v any, dst reflect.Value, path string, tag reflect.StructTag) error {
	if v == nil && dst.Type() != rawType {
		return &Error{path, "null", "leave the field out, or " + wanted(dst.Type(), tag)}
	}
	if dst.Kind() == reflect.Pointer {
		p := reflect.New(dst.Type().Elem())
		if err := assign(v, p.Elem(), path, tag); err != nil {
			return err
		}
		dst.Set(p)
		return nil
	}
	if err := assignKind(v, dst, path, tag); err != nil {
		return err
	}
	if dst.Type().Implements(checkerType) {
		if e := dst.Interface().(Checker).Check(); e != nil {
			return e.Under(path)
		}
	}
	return nil
}

var (
	rawType    = reflect.TypeFor[json.RawMessage]()
	numberType = reflect.TypeFor[json.Number]()
)

func assignKind(v any, dst reflect.Value, path string, tag reflect.StructTag) error {
	refuse := func() error { return &Error{path, show(v), wanted(dst.Type(), tag)} }
	switch dst.Type() {
	case rawType:
		b, err := json.Marshal(plain(v))
		if err != nil {
			return refuse()
		}
		dst.SetBytes(b)
		return nil
	case numberType:
		n, ok := v.(json.Number)
		if !ok {
			return refuse()
		}
		dst.SetString(n.String())
		return nil
	}
	switch dst.Kind() {
	case reflect.String:
		s, ok := v.(string)
		if !ok || !allowedText(s, tag) {
			return refuse()
		}
		dst.SetString(s)
	case reflect.Bool:
		b, ok := v.(bool)
		if !ok {
			return refuse()
		}
		dst.SetBool(b)
	case reflect.Float64:
		n, ok := v.(json.Number)
		if !ok {
			return refuse()
		}
		f, err := n.Float64()
		if err != nil || math.IsInf(f, 0) || math.IsNaN(f) || !inRange(f, tag) {
			return refuse()
		}
		dst.SetFloat(f)
	case reflect.Int, reflect.Int64:
		n, ok := v.(json.Number)
		if !ok {
			return refuse()
		}
		i, err := strconv.ParseInt(n.String(), 10, 64)
		if err != nil || !inRange(float64(i), tag) {
			return refuse()
		}
		dst.SetInt(i)
	case reflect.Slice:
		a, ok := v.([]any)
		if !ok || !within(len(a), tag.Get("minItems"), tag.Get("maxItems")) {
			return refuse()
		}
		s := reflect.MakeSlice(dst.Type(), len(a), len(a))
		for i, e := range a {
			if err := assign(e, s.Index(i), fmt.Sprintf("%s[%d]", path, i), itemTag(tag)); err != nil {
				return err
			}
		}
		dst.Set(s)
	case reflect.Array:
		a, ok := v.([]any)
		if !ok || len(a) != dst.Len() {
			return refuse()
		}
		for i, e := range a {
			if err := assign(e, dst.Index(i), fmt.Sprintf("%s[%d]", path, i), itemTag(tag)); err != nil {
				return err
			}
		}
	case reflect.Map:
		o, ok := v.(object)
		if !ok {
			return refuse()
		}
		m := reflect.MakeMapWithSize(dst.Type(), len(o.keys))
		for _, k := range o.keys {
			e := reflect.New(dst.Type().Elem()).Elem()
			if err := assign(o.values[k], e, path+"."+k, itemTag(tag)); err != nil {
				return err
			}
			m.SetMapIndex(reflect.ValueOf(k).Convert(dst.Type().Key()), e)
		}
		dst.Set(m)
	case reflect.Struct:
		o, ok := v.(object)
		if !ok {
			return refuse()
		}
		return assignStruct(o, dst, path)
	default:
		return fmt.Errorf("strict: %s: type %s cannot be decoded", path, dst.Type())
	}
	return nil
}

type field struct {
	index    []int
	tag      reflect.StructTag
	required bool
}

func assignStruct(o object, dst reflect.Value, path string) error {
	fields, names := structFields(dst.Type())
	for _, k := range o.keys {
		f, known := fields[k]
		if !known {
			return &Error{path + "." + k, "an unknown field", "one of " + strings.Join(names, ", ")}
		}
		if err := assign(o.values[k], dst.FieldByIndex(f.index), path+"."+k, f.tag); err != nil {
			return err
		}
	}
	for _, n := range names {
		if f := fields[n]; f.required {
			if _, given := o.values[n]; !given {
				return &Error{path + "." + n, "nothing", wanted(dst.FieldByIndex(f.index).Type(), f.tag)}
			}
		}
	}
	return nil
}

func structFields(t reflect.Type) (map[string]field, []string) {
	fields := map[string]field{}
	var names []string
	for _, sf := range reflect.VisibleFields(t) {
		if sf.Anonymous || !sf.IsExported() {
			continue
		}
		name, opts, _ := strings.Cut(sf.Tag.Get("json"), ",")
		if name == "-" || name == "" {
			continue
		}
		fields[name] = field{sf.Index, sf.Tag, !strings.Contains(opts, "omit")}
		names = append(names, name)
	}
	return fields, names
}

// itemTag leaves the limits on the number of items behind.
func itemTag(tag reflect.StructTag) reflect.StructTag {
	keep := ""
	for _, k := range []string{"minimum", "maximum", "multipleOf", "enum", "maxLength"} {
		if v, ok := tag.Lookup(k); ok {
			keep += fmt.Sprintf("%s:%q ", k, v)
		}
	}
	return reflect.StructTag(keep)
}

func inRange(f float64, tag reflect.StructTag) bool {
	if s, ok := tag.Lookup("minimum"); ok && f < number(s) {
		return false
	}
	if s, ok := tag.Lookup("maximum"); ok && f > number(s) {
		return false
	}
	if s, ok := tag.Lookup("multipleOf"); ok {
		q := f / number(s)
		if math.Abs(q-math.Round(q)) > 1e-9 {
			return false
		}
	}
	return true
}

func allowedText(s string, tag reflect.StructTag) bool {
	if m, ok := tag.Lookup("maxLength"); ok && utf8.RuneCountInString(s) > int(number(m)) {
		return false
	}
	if m, ok := tag.Lookup("minLength"); ok && utf8.RuneCountInString(s) < int(number(m)) {
		return false
	}
	list, ok := tag.Lookup("enum")
	if !ok {
		return true
	}
	for a := range strings.SplitSeq(list, ",") {
		if a == s {
			return true
		}
	}
	return false
}

func within(n int, lo, hi string) bool {
	return (lo == "" || n >= int(number(lo))) && (hi == "" || n <= int(number(hi)))
}

// number reads a limit from a tag; a bad tag is a programming error.
func number(s string) float64 {
	f, err := strconv.ParseFloat(s, 64)
	if err != nil {
		panic("strict: bad limit in a struct tag: " + s)
	}
	return f
}

func wanted(t reflect.Type, tag reflect.StructTag) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	limits := ""
	if lo, ok := tag.Lookup("minimum"); ok {
		limits += " from " + lo
	}
	if hi, ok := tag.Lookup("maximum"); ok {
		limits += " to " + hi
	}
	if m, ok := tag.Lookup("multipleOf"); ok {
		limits += " in steps of " + m
	}
	switch t.Kind() {
	case reflect.String:
		if t == numberType {
			return "a number" + limits
		}
		if e, ok := tag.Lookup("enum"); ok {
			return "one of " + strings.ReplaceAll(e, ",", ", ")
		}
		if m, ok := tag.Lookup("maxLength"); ok {
			return "text of at most " + m + " characters"
		}
		return "text"
	case reflect.Bool:
		return "true or false"
	case reflect.Int, reflect.Int64:
		return "a whole number" + limits
	case reflect.Float64:
		return "a number" + limits
	case reflect.Slice:
		s := "a list"
		if m, ok := tag.Lookup("minItems"); ok {
			s += " of at least " + m
		}
		if m, ok := tag.Lookup("maxItems"); ok {
			s += " of at most " + m
		}
		return s
	case reflect.Array:
		return fmt.Sprintf("a list of %d", t.Len())
	default:
		return "an object"
	}
}

// show prints what was given, short enough for one line.
func show(v any) string {
	b, err := json.Marshal(plain(v))
	if err != nil {
		return "something unreadable"
	}
	if len(b) > 60 {
		cut := 57
		for cut > 0 && !utf8.RuneStart(b[cut]) {
			cut--
		}
		return string(b[:cut]) + "…"
	}
	return string(b)
}

// plain turns the ordered objects back into ordinary JSON values.
func plain(v any) any {
	switch x := v.(type) {
	case object:
		m := make(map[string]any, len(x.keys))
		for _, k := range x.keys {
			m[k] = plain(x.values[k])
		}
		return m
	case []any:
		a := make([]any, len(x))
		for i := range x {
			a[i] = plain(x[i])
		}
		return a
	default:
		return v
	}
}
