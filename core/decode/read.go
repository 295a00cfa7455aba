package decode

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"
)

// object keeps the order and refuses repeats, which map[string]any cannot.
type object struct {
	keys   []string
	values []any
}

// path is where a value stands, as JSON path: one step for each object or array
// around it. It is written out only for an error.
type path struct{ steps []step }

// step is a field of an object or, without a key, an item of an array.
type step struct {
	key   string
	index int
}

// enter begins an object or array; field and item say where in it one is.
func (p *path) enter()           { p.steps = append(p.steps, step{}) }
func (p *path) leave()           { p.steps = p.steps[:len(p.steps)-1] }
func (p *path) field(key string) { p.steps[len(p.steps)-1].key = key }
func (p *path) item(i int)       { p.steps[len(p.steps)-1].index = i }

// String writes the path as $.field[2], the form that errors are read in.
func (p *path) String() string {
	var b strings.Builder
	b.WriteString("$")
	for _, s := range p.steps {
		if s.key != "" {
			b.WriteString("." + s.key)
		} else {
			fmt.Fprintf(&b, "[%d]", s.index)
		}
	}
	return b.String()
}

// below names a field of where p stands.
func (p *path) below(key string) string { return p.String() + "." + key }

// maxDepth guards the recursion against hostile nesting; no contract of ours
// is deeper than eight.
const maxDepth = 64

// fewKeys: up to here a repeated key is looked for one by one.
const fewKeys = 16

// reader walks JSON that is known to be valid, which leaves little to decide.
type reader struct {
	raw  []byte
	text string // raw once more: what is read is cut from it, not copied
	// at is the byte that comes next.
	at int
	// Fields of the objects that are open, and room for those that are closed:
	// one slice for many small objects.
	open   []member
	keys   []string
	values []any
}

func newReader(raw []byte) *reader { return &reader{raw: raw, text: string(raw)} }

// member is a field of an object that is still open.
type member struct {
	key   string
	value any
}

// close gives an object the fields from a mark on, and takes them off the list.
func (r *reader) close(mark int) object {
	n := len(r.open) - mark
	if cap(r.keys)-len(r.keys) < n {
		room := max(64, 2*cap(r.keys), n)
		r.keys, r.values = make([]string, 0, room), make([]any, 0, room)
	}
	from := len(r.keys)
	for _, m := range r.open[mark:] {
		r.keys, r.values = append(r.keys, m.key), append(r.values, m.value)
	}
	r.open = r.open[:mark]
	return object{r.keys[from:len(r.keys):len(r.keys)], r.values[from:len(r.values):len(r.values)]}
}

// peek gives the next character that is not white.
func (r *reader) peek() byte {
	for {
		switch c := r.raw[r.at]; c {
		case ' ', '\t', '\r', '\n':
			r.at++
		default:
			return c
		}
	}
}

// value reads whatever comes next. Nesting is bounded, so that no document can exhaust the
// stack.
func (r *reader) value(at *path, depth int) (any, error) {
	if depth > maxDepth {
		return nil, &Error{at.String(), "nesting deeper than 64", "flatter JSON"}
	}
	switch c := r.peek(); c {
	case '{':
		return r.object(at, depth)
	case '[':
		return r.array(at, depth)
	case '"':
		return r.string()
	case 't':
		r.at += len("true")
		return true, nil
	case 'f':
		r.at += len("false")
		return false, nil
	case 'n':
		r.at += len("null")
		return nil, nil
	}
	from := r.at
	r.at += numberLength(r.raw[from:])
	return json.Number(r.text[from:r.at]), nil
}

// string reads a string; only one with an escape needs more than its bytes.
func (r *reader) string() (string, error) {
	from := r.at
	r.at++
	plain := true
	for r.raw[r.at] != '"' {
		if r.raw[r.at] == '\\' {
			plain = false
			r.at++
		}
		r.at++
	}
	r.at++
	if plain {
		return r.text[from+1 : r.at-1], nil
	}
	var s string
	err := json.Unmarshal(r.raw[from:r.at], &s)
	return s, err
}

// object reads keys and values in their order, and refuses a key that comes twice: readers
// differ on which one counts.
func (r *reader) object(at *path, depth int) (any, error) {
	r.at++
	mark := len(r.open)
	var seen map[string]bool
	at.enter()
	for r.peek() != '}' {
		key, err := r.string()
		if err != nil {
			return nil, err
		}
		at.field(key)
		if r.twice(key, mark, seen) {
			return nil, &Error{at.String(), "the field twice", "each field once"}
		}
		r.peek()
		r.at++ // the colon
		v, err := r.value(at, depth+1)
		if err != nil {
			return nil, err
		}
		r.open = append(r.open, member{key, v})
		if seen == nil && len(r.open)-mark > fewKeys {
			seen = map[string]bool{}
			for _, m := range r.open[mark:] {
				seen[m.key] = true
			}
		}
		if seen != nil {
			seen[key] = true
		}
		if r.peek() == ',' {
			r.at++
		}
	}
	r.at++
	at.leave()
	return r.close(mark), nil
}

// twice reports whether an open object has a key already.
func (r *reader) twice(key string, mark int, seen map[string]bool) bool {
	if seen != nil {
		return seen[key]
	}
	for _, m := range r.open[mark:] {
		if m.key == key {
			return true
		}
	}
	return false
}

// array reads items, each with its index in the path.
func (r *reader) array(at *path, depth int) (any, error) {
	r.at++
	a := []any{}
	at.enter()
	for r.peek() != ']' {
		at.item(len(a))
		v, err := r.value(at, depth+1)
		if err != nil {
			return nil, err
		}
		a = append(a, v)
		if r.peek() == ',' {
			r.at++
		}
	}
	r.at++
	at.leave()
	return a, nil
}

// broken says where JSON stops being JSON.
func broken(raw []byte) error {
	var wrong *json.SyntaxError
	if !errors.As(json.Unmarshal(raw, new(json.RawMessage)), &wrong) {
		return &Error{"$", "broken JSON", "valid JSON"}
	}
	said := wrong.Error()
	complete := said != "unexpected end of JSON input"
	if complete {
		raw = raw[:wrong.Offset-1] // without what does not fit
	}
	at := pathAt(raw)
	switch {
	case len(at.steps) > maxDepth:
		at.steps = at.steps[:maxDepth]
		return &Error{at.String(), "nesting deeper than 64", "flatter JSON"}
	case !complete:
		return &Error{at.String(), "nothing more", "a complete JSON document"}
	case strings.HasSuffix(said, "after top-level value"):
		return &Error{"$", "text after the document", "one JSON document"}
	default:
		return &Error{at.String(), "broken JSON (" + strings.ReplaceAll(said, "\n", " ") + ")", "valid JSON"}
	}
}

// pathAt says where in a document one is after its beginning, which is JSON so far.
func pathAt(begun []byte) *path {
	at := &path{}
	var closers []byte // of what is open
	wantsKey := false
	for i := 0; i < len(begun); i++ {
		switch c := begun[i]; c {
		case '"':
			n := stringLength(begun[i:])
			if wantsKey {
				at.field(keyOf(begun[i : i+n]))
				wantsKey = false
			}
			i += n - 1
		case '{', '[':
			at.enter()
			closers = append(closers, c+2) // in ASCII the closing one is the next but one
			wantsKey = c == '{'
		case '}', ']':
			at.leave()
			closers = closers[:len(closers)-1]
			wantsKey = false
		case ',':
			if wantsKey = closers[len(closers)-1] == '}'; !wantsKey {
				at.item(at.steps[len(at.steps)-1].index + 1)
			}
		}
	}
	return at
}

// stringLength is that of the string literal at the beginning, or of what there is of it.
func stringLength(text []byte) int {
	for i := 1; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case '"':
			return i + 1
		}
	}
	return len(text)
}

// keyOf reads a key, or as much of it as there is.
func keyOf(literal []byte) string {
	var key string
	if json.Unmarshal(literal, &key) != nil {
		return strings.Trim(string(literal), `"`)
	}
	return key
}
