package decode

import (
	"bytes"
	"encoding/json"
	"strconv"
	"unicode/utf8"
)

// Storable refuses JSON text that a record cannot keep as it is: bytes that are
// not UTF-8, NUL, half of a surrogate pair, and numbers beyond what a double
// holds. It names the field. Broken JSON is left to whoever decodes it.
func Storable(raw []byte) *Error {
	if e := storableText(raw); e == nil && !bytes.ContainsAny(raw, "0123456789") || !json.Valid(raw) {
		return e
	}
	return newReader(raw).storable(&path{}, 0)
}

// storable walks valid JSON and names the place.
func (r *reader) storable(at *path, depth int) *Error {
	if depth > maxDepth {
		return &Error{at.String(), "nesting deeper than 64", "flatter JSON"}
	}
	switch c := r.peek(); {
	case c == '{' || c == '[':
		r.at++
		at.enter()
		for i, end := 0, c+2; r.peek() != end; i++ { // } and ] follow their openings by two
			at.item(i)
			if c == '{' {
				key, err := r.checked(at)
				if err != nil {
					at.leave()
					return &Error{at.String(), err.Given, err.Allowed}
				}
				at.field(key)
				r.peek()
				r.at++ // the colon
			}
			if err := r.storable(at, depth+1); err != nil {
				return err
			}
			if r.peek() == ',' {
				r.at++
			}
		}
		r.at++
		at.leave()
		return nil
	case c == '"':
		_, err := r.checked(at)
		return err
	}
	from := r.at
	v, _ := r.value(at, depth)
	if n, ok := v.(json.Number); ok && !holds(n.String()) {
		return &Error{at.String(), shortNumber(r.raw[from:r.at]), "a number that a double holds"}
	}
	return nil
}

// checked reads a string that a record can keep.
func (r *reader) checked(at *path) (string, *Error) {
	from := r.at
	s, err := r.string()
	if err != nil {
		return "", &Error{at.String(), "text that cannot be read", "text"}
	}
	if e := storableText(r.raw[from:r.at]); e != nil {
		return "", &Error{at.String(), e.Given, e.Allowed}
	}
	return s, nil
}

// storableText is Storable for the text alone, without saying where.
func storableText(raw []byte) *Error {
	if !utf8.Valid(raw) {
		return &Error{"$", "bytes that are not UTF-8", "JSON text in UTF-8"}
	}
	if bytes.IndexByte(raw, 0) >= 0 {
		return &Error{"$", "a NUL character", "text without NUL characters"}
	}
	if bytes.IndexByte(raw, '\\') < 0 {
		return nil // without an escape there is nothing more to look at
	}
	for i := 0; i < len(raw); i++ {
		if raw[i] != '"' {
			continue
		}
		n, e := text(raw[i+1:])
		if e != nil {
			return e
		}
		i += n
	}
	return nil
}

// text walks a string to behind its closing quote.
func text(raw []byte) (length int, refused *Error) {
	for i := 0; i < len(raw); i++ {
		switch raw[i] {
		case '"':
			return i + 1, nil
		case '\\':
			if i+1 < len(raw) && raw[i+1] != 'u' {
				i++
				continue
			}
			unit, ok := escaped(raw[i:])
			if !ok {
				continue // broken; the decoder says how
			}
			switch {
			case unit == 0:
				return 0, &Error{"$", "a NUL character", "text without NUL characters"}
			case unit >= 0xd800 && unit < 0xdc00:
				low, ok := escaped(raw[min(i+6, len(raw)):])
				if !ok || low < 0xdc00 || low > 0xdfff {
					return 0, half()
				}
				i += 11
				continue
			case unit >= 0xdc00 && unit <= 0xdfff:
				return 0, half()
			}
			i += 5
		}
	}
	return len(raw), nil
}

// half is the refusal of text that no database can keep.
func half() *Error {
	return &Error{"$", "half of a surrogate pair", "well-formed Unicode text"}
}

// escaped reads the code unit of a backslash-u escape.
func escaped(raw []byte) (unit uint64, ok bool) {
	if len(raw) < 6 || raw[0] != '\\' || raw[1] != 'u' {
		return 0, false
	}
	unit, err := strconv.ParseUint(string(raw[2:6]), 16, 16)
	return unit, err == nil
}

// numberLength is how far a number reaches, so that one too long is refused before it is
// parsed.
func numberLength(raw []byte) int {
	n := 0
	for n < len(raw) {
		c := raw[n]
		if c != '-' && c != '+' && c != '.' && c != 'e' && c != 'E' && (c < '0' || c > '9') {
			break
		}
		n++
	}
	return n
}

// longestNumber has every digit of a double's smallest value and some.
const longestNumber = 400

// holds reports whether a double holds the number: it is not infinite, and not
// nothing where something was written.
func holds(number string) bool {
	if len(number) > longestNumber {
		return false
	}
	f, err := strconv.ParseFloat(number, 64)
	if err != nil {
		return err.(*strconv.NumError).Err == strconv.ErrSyntax // the decoder says how
	}
	if f != 0 {
		return true
	}
	for _, c := range number {
		if c == 'e' || c == 'E' {
			break
		}
		if c >= '1' && c <= '9' {
			return false
		}
	}
	return true
}

// shortNumber cuts a number for an error: one of a million digits is not quoted whole.
func shortNumber(b []byte) string {
	if len(b) > 20 {
		return string(b[:20]) + "…"
	}
	return string(b)
}
