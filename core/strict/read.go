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

// path is where a value stands, as JSON path; it is written out only for an
// error.
type path struct {
	up    *path
	key   string // of an object; empty for an item
	index int    // of an array
}

func (p *path) String() string {
	switch {
	case p == nil:
		return "$"
	case p.key != "":
		return p.up.String() + "." + p.key
	}
	return fmt.Sprintf("%s[%d]", p.up, p.index)
}

// maxDepth guards the recursion against hostile nesting; no contract of ours
// is deeper than eight.
const maxDepth = 64

// fewKeys: up to here a repeated key is looked for one by one.
const fewKeys = 16

// reader walks JSON that is known to be valid, which leaves little to decide.
type reader struct {
	raw []byte
	at  int
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
		return r.text()
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
	return json.Number(r.raw[from:r.at]), nil
}

// text reads a string; only one with an escape needs more than its bytes.
func (r *reader) text() (string, error) {
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
		return string(r.raw[from+1 : r.at-1]), nil
	}
	var s string
	err := json.Unmarshal(r.raw[from:r.at], &s)
	return s, err
}

func (r *reader) object(at *path, depth int) (any, error) {
	r.at++
	o := object{keys: make([]string, 0, 4), values: make([]any, 0, 4)}
	var seen map[string]bool
	below := path{up: at}
	for r.peek() != '}' {
		key, err := r.text()
		if err != nil {
			return nil, err
		}
		below.key = key
		_, twice := o.get(key)
		if seen != nil {
			twice = seen[key]
		}
		if twice {
			return nil, &Error{at.String() + "." + key, "the field twice", "each field once"}
		}
		r.peek()
		r.at++ // the colon
		v, err := r.value(&below, depth+1)
		if err != nil {
			return nil, err
		}
		o.keys, o.values = append(o.keys, key), append(o.values, v)
		if seen != nil {
			seen[key] = true
		} else if len(o.keys) > fewKeys {
			seen = map[string]bool{}
			for _, k := range o.keys {
				seen[k] = true
			}
		}
		if r.peek() == ',' {
			r.at++
		}
	}
	r.at++
	return o, nil
}

func (r *reader) array(at *path, depth int) (any, error) {
	r.at++
	a := []any{}
	below := path{up: at}
	for r.peek() != ']' {
		below.index = len(a)
		v, err := r.value(&below, depth+1)
		if err != nil {
			return nil, err
		}
		a = append(a, v)
		if r.peek() == ',' {
			r.at++
		}
	}
	r.at++
	return a, nil
}

// broken says where JSON stops being JSON.
func broken(raw []byte) error {
	dec := json.NewDecoder(bytes.NewReader(raw))
	dec.UseNumber()
	if err := walk(dec, nil, 0); err != nil {
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
	below := path{up: at}
	for dec.More() {
		if d == '{' {
			key, err := dec.Token()
			if err != nil {
				return syntax(at, err)
			}
			below.key = key.(string)
		}
		if err := walk(dec, &below, depth+1); err != nil {
			return err
		}
		below.index++
	}
	if _, err := dec.Token(); err != nil {
		return syntax(at, err)
	}
	return nil
}

func syntax(at *path, err error) error {
	if err == io.EOF || err == io.ErrUnexpectedEOF {
		return &Error{at.String(), "nothing more", "a complete JSON document"}
	}
	return &Error{at.String(), "broken JSON (" + strings.ReplaceAll(err.Error(), "\n", " ") + ")", "valid JSON"}
}
