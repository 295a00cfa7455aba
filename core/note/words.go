package note

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"mokren/core/ids"
	"mokren/core/wording"
)

// capital begins a sentence.
func capital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(r)) + s[n:]
}

// number has no needless decimals.
func number(v float64) string {
	return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64)
}

// orUnread says when a value was not read: an empty place could be taken for zero.
func orUnread(v *float64, unit string) string {
	if v == nil {
		return "not read"
	}
	return number(*v) + unit
}

// seconds as a hand keeps them: whole ones. The log and the tables have them to the millisecond.
func seconds(s float64) string { return number(math.Round(s)) + " s" }

// count adds the plural.
func count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

func among(list []string) string { return strings.Join(list, ", ") }

// numbers lists values as a sentence does.
func numbers(list []float64) string {
	out := make([]string, len(list))
	for i, v := range list {
		out[i] = number(v)
	}
	return among(out)
}

// regions lists places as a sentence does.
func regions(list []ids.Region) string {
	out := make([]string, len(list))
	for i, r := range list {
		out[i] = wording.Plain(r)
	}
	return among(out)
}
