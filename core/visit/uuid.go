package visit

import (
	"fmt"

	"mokren/core/decode"
)

// UUID is an id made on a device; Check refuses anything else, so that a bad
// one is kept here and never reaches the tables.
type UUID string

// shaped reports whether u is written 8-4-4-4-12 in lower-case hex. By hand:
// a regular expression would put 60 kB on every tablet.
func (u UUID) shaped() bool {
	if len(u) != 36 {
		return false
	}
	for i, c := range []byte(u) {
		dash := i == 8 || i == 13 || i == 18 || i == 23
		if dash != (c == '-') || !dash && !(c >= '0' && c <= '9' || c >= 'a' && c <= 'f') {
			return false
		}
	}
	return true
}

// Check implements decode.Checker.
func (u UUID) Check() *decode.Error {
	if !u.shaped() {
		return &decode.Error{Path: "$", Given: fmt.Sprintf("%q", u), Allowed: "a UUID in lower case"}
	}
	return nil
}
