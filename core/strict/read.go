package strict

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"strings"
)

// object keeps the order and refuses repeats, which map[string]any cannot.
type object struct {
	keys   []string
	values []any
}

func (o object) get(key string) (any, bool) {
	for i, k := range o.keys {
		if k == key {
			return o.values[i], true
		}
	}
	return nil, false
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
	at   int
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
	dec := json.NewDecoder(bytes.NewReader(raw))
	dec.UseNumber()
	if err := walk(dec, &path{}, 0); err != nil {
		return err
	}
	return &Error{"$", "text after the document", "one JSON document"}
}

// walk reads one value and forgets it.
func walk(dec *json.Decoder, at *path, depth int) error {
	if depth > maxDepth {
		return &Error{at.String(), "nesting deeper than 64", "flatter JSON"}
	}
	tok, err := dec.Token()
	if err != nil {
		return syntax(at, err)
	}
	d, _ := tok.(json.Delim)
	if d != '{' && d != '[' {
		return nil
	}
	at.enter()
	for i := 0; dec.More(); i++ {
		at.item(i)
		if d == '{' {
			key, err := dec.Token()
			if err != nil {
				return syntax(at, err)
			}
			at.field(key.(string))
		}
		if err := walk(dec, at, depth+1); err != nil {
			return err
		}
	}
	if _, err := dec.Token(); err != nil {
		at.leave()
		return syntax(at, err)
	}
	at.leave()
	return nil
}

func syntax(at *path, err error) error {
	if err == io.EOF || err == io.ErrUnexpectedEOF {
		return &Error{at.String(), "nothing more", "a complete JSON document"}
	}
	return &Error{at.String(), "broken JSON (" + strings.ReplaceAll(err.Error(), "\n", " ") + ")", "valid JSON"}
}
