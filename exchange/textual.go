package exchange

import (
	"bytes"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// textOf gives a file's text as UTF-8, by its byte order mark; without one it is UTF-8, or
// UTF-16 where every other byte of its beginning is zero, or where western is set Windows-1252,
// of which Latin-1 is a part; that is told. Text with a NUL character is none.
func textOf(raw []byte, western bool, r *Report) ([]byte, bool) {
	var order unicode.Endianness
	wide := true
	switch {
	case bytes.HasPrefix(raw, []byte{0xff, 0xfe}), zeroes(raw, 1):
		order = unicode.LittleEndian
	case bytes.HasPrefix(raw, []byte{0xfe, 0xff}), zeroes(raw, 0):
		order = unicode.BigEndian
	default:
		wide = false
	}
	out := bytes.TrimPrefix(raw, []byte("\xef\xbb\xbf"))
	if wide {
		// Replaces what cannot be read, which is looked for below.
		if read, err := unicode.UTF16(order, unicode.UseBOM).NewDecoder().Bytes(raw); err == nil {
			out = read
		} else if read, err := unicode.UTF16(order, unicode.IgnoreBOM).NewDecoder().Bytes(raw); err == nil {
			out = read
		}
	}
	if !utf8.Valid(out) && western {
		read, err := charmap.Windows1252.NewDecoder().Bytes(out)
		if err == nil && !bytes.ContainsRune(read, utf8.RuneError) {
			out = read
			r.leave("file without a charset, read as Western European (Windows-1252)", "")
		}
	}
	if !utf8.Valid(out) || bytes.IndexByte(out, 0) >= 0 {
		r.problem("file", "", "Text in UTF-8 or UTF-16, without NUL characters; this is something else.")
		return nil, false
	}
	return out, true
}

// zeroes tells that of the first bytes all of one parity are zero, as in UTF-16 of Latin letters.
func zeroes(raw []byte, at int) bool {
	const looked = 32
	if len(raw) < looked {
		return false
	}
	for i := 0; i < looked; i++ {
		if (raw[i] == 0) != (i%2 == at) {
			return false
		}
	}
	return true
}
