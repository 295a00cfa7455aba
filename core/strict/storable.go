package strict

import (
	"bytes"
	"strconv"
	"unicode/utf8"
)

// Storable refuses JSON text that a record cannot keep as it is: bytes that are
// not UTF-8, NUL, half of a surrogate pair, and numbers beyond what a double
// holds. It does not parse; broken JSON may pass.
func Storable(raw []byte) *Error { return storable(raw, true) }

func storable(raw []byte, numbers bool) *Error {
	if !utf8.Valid(raw) {
		return &Error{"$", "bytes that are not UTF-8", "JSON text in UTF-8"}
	}
	if bytes.IndexByte(raw, 0) >= 0 {
		return &Error{"$", "a NUL character", "text without NUL characters"}
	}
	for i := 0; i < len(raw); {
		switch c := raw[i]; {
		case c == '"':
			n, e := text(raw[i+1:])
			if e != nil {
				return e
			}
			i += n + 1
		case numbers && (c == '-' || c >= '0' && c <= '9'):
			n := numberLength(raw[i:])
			if !holds(string(raw[i : i+n])) {
				return &Error{"$", "the number " + shortNumber(raw[i:i+n]), "numbers that a double holds"}
			}
			i += n
		default:
			i++
		}
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

func shortNumber(b []byte) string {
	if len(b) > 20 {
		return string(b[:20]) + "…"
	}
	return string(b)
}
