package decode

import (
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"
)

// Error is a refusal that names the field.
type Error struct {
	Path    string // JSON path, "$.points[2].side"
	Given   string // what was given, shortened, as JSON or in words
	Allowed string // what would have been accepted
}

// Error says everything that a caller needs to mend it: where, what was given, what is
// allowed.
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

// JSON reads exactly one JSON document from raw into dst, a non-nil pointer.
func JSON(raw []byte, dst any) error {
	if e := storableText(raw); e != nil {
		return e
	}
	if !json.Valid(raw) {
		return broken(raw)
	}
	v, err := newReader(raw).value(&path{}, 0)
	if err != nil {
		return err
	}
	return assign(v, reflect.ValueOf(dst).Elem(), &path{}, noLimits)
}

var checkerType = reflect.TypeFor[Checker]()

// assign fills a value from what was read. Null is refused, for absent and null must not mean
// two things.
func assign(v any, dst reflect.Value, at *path, lim *limits) error {
	if v == nil && dst.Type() != rawType {
		return &Error{at.String(), "null", "leave the field out, or " + wanted(dst.Type(), lim.tag)}
	}
	if dst.Kind() == reflect.Pointer {
		p := reflect.New(dst.Type().Elem())
		if err := assign(v, p.Elem(), at, lim); err != nil {
			return err
		}
		dst.Set(p)
		return nil
	}
	if err := assignKind(v, dst, at, lim); err != nil {
		return err
	}
	if dst.Type().Implements(checkerType) {
		if e := dst.Interface().(Checker).Check(); e != nil {
			return e.Under(at.String())
		}
	}
	return nil
}

// fieldAt gives a field, making the embedded structs on the way that are not
// there yet.
func fieldAt(v reflect.Value, index []int) reflect.Value {
	for i, n := range index {
		if i > 0 && v.Kind() == reflect.Pointer {
			if v.IsNil() {
				v.Set(reflect.New(v.Type().Elem()))
			}
			v = v.Elem()
		}
		v = v.Field(n)
	}
	return v
}

type field struct {
	name string
	// index leads to the field through embedded structs.
	index  []int
	limits *limits
	// required: it may not be left out, because it has neither omitempty nor a pointer.
	required bool
}

// assignStruct fills fields by their JSON names, and refuses names that are unknown, repeated
// or missing. Keys mostly come in the order of the fields, so the search begins after the last
// one found.
func assignStruct(o object, dst reflect.Value, at *path) error {
	shape := fieldsOf(dst.Type())
	at.enter()
	var few [32]bool
	given := append(few[:0], make([]bool, len(shape))...)
	last := -1
	for i, k := range o.keys {
		at.field(k)
		if last = shape.find(k, last+1); last < 0 {
			return &Error{at.String(), "an unknown field", "one of " + shape.names()}
		}
		given[last] = true
		if err := assign(o.values[i], fieldAt(dst, shape[last].index), at, shape[last].limits); err != nil {
			return err
		}
	}
	at.leave()
	for i, f := range shape {
		if f.required && !given[i] {
			return &Error{at.below(f.name), "nothing", wanted(fieldAt(dst, f.index).Type(), f.limits.tag)}
		}
	}
	return nil
}

// shape is a struct as JSON names it.
type shape []field

// find gives the place of a field, -1 when there is none. Most documents have their
// fields in our order, so it looks from a place on.
func (s shape) find(name string, from int) int {
	for i := range s {
		if at := (from + i) % len(s); s[at].name == name {
			return at
		}
	}
	return -1
}

// names lists a struct's fields for the refusal of one that it does not have.
func (s shape) names() string {
	list := make([]string, len(s))
	for i, f := range s {
		list[i] = f.name
	}
	return strings.Join(list, ", ")
}

// shapes are looked at once: reflect.Type → shape.
var shapes sync.Map

// fieldsOf is the shape of a struct, worked out once for each type.
func fieldsOf(t reflect.Type) shape {
	if s, ok := shapes.Load(t); ok {
		return s.(shape)
	}
	var out shape
	for _, sf := range reflect.VisibleFields(t) {
		if sf.Anonymous || !sf.IsExported() {
			continue
		}
		name, opts, _ := strings.Cut(sf.Tag.Get("json"), ",")
		if name == "-" || name == "" {
			continue
		}
		out = append(out, field{name, sf.Index, limitsOf(sf.Tag), !strings.Contains(opts, "omit")})
	}
	shapes.Store(t, out)
	return out
}

// limits are what a field's tag allows, read once.
type limits struct {
	// tag is kept for the words of a refusal.
	tag reflect.StructTag
	// min and max are infinite where there is no bound.
	min, max   float64
	multipleOf float64
	// Lengths of text and of lists; the longest is -1 where there is none.
	shortest, longest int
	fewest, most      int
	// enum are the values that a text may have; nil for any.
	enum []string
	// items are the bounds of a list's items, or of a map's values.
	items *limits
}

// noLimits are those of a document as a whole.
var noLimits = limitsOf("")

// limitsOf reads the bounds from a field's tag, once for each type.
func limitsOf(tag reflect.StructTag) *limits {
	l := &limits{
		tag: tag, min: math.Inf(-1), max: math.Inf(1),
		shortest: length(tag, "minLength", 0), longest: length(tag, "maxLength", -1),
		fewest: length(tag, "minItems", 0), most: length(tag, "maxItems", -1),
	}
	if list, ok := tag.Lookup("enum"); ok {
		l.enum = strings.Split(list, ",")
	}
	if v, ok := tag.Lookup("minimum"); ok {
		l.min = number(v)
	}
	if v, ok := tag.Lookup("maximum"); ok {
		l.max = number(v)
	}
	if v, ok := tag.Lookup("multipleOf"); ok {
		l.multipleOf = number(v)
	}
	if items := itemTag(tag); items != tag {
		l.items = limitsOf(items)
	}
	return l
}

// ofItems are the limits of a list's items.
func (l *limits) ofItems() *limits {
	if l.items != nil {
		return l.items
	}
	return l
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

// holds reports whether a number lies within its bounds and on its step, with room for binary
// fractions.
func (l *limits) holds(f float64) bool {
	if f < l.min || f > l.max {
		return false
	}
	if l.multipleOf > 0 {
		q := f / l.multipleOf
		return math.Abs(q-math.Round(q)) <= 1e-9
	}
	return true
}

// length reads a limit that counts.
func length(tag reflect.StructTag, of string, otherwise int) int {
	v, ok := tag.Lookup(of)
	if !ok {
		return otherwise
	}
	return int(number(v))
}

// allowText counts characters and not bytes, as a person would.
func (l *limits) allowText(s string) bool {
	if l.longest >= 0 || l.shortest > 0 {
		if n := utf8.RuneCountInString(s); n < l.shortest || l.longest >= 0 && n > l.longest {
			return false
		}
	}
	return l.enum == nil || slices.Contains(l.enum, s)
}

func (l *limits) allowItems(n int) bool { return n >= l.fewest && (l.most < 0 || n <= l.most) }

// number reads a limit from a tag; a bad tag is a programming error.
func number(s string) float64 {
	f, err := strconv.ParseFloat(s, 64)
	if err != nil {
		panic("strict: bad limit in a struct tag: " + s)
	}
	return f
}

// wanted says in words what a field takes, from its type and its tag.
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
		for i, k := range x.keys {
			m[k] = plain(x.values[i])
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
