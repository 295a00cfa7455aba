package exchange

import (
	"bytes"
	"fmt"
	"io"
	"mime/quotedprintable"
	"regexp"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/htmlindex"
)

// cardText gives a file of cards in UTF-8, those of version 2.1 written as later versions write
// them, which is what the library reads: that version names types without a word before them,
// and writes other than ASCII as quoted-printable in a charset of each line's own.
func cardText(raw []byte, r *Report) ([]byte, bool) {
	ascii := bytes.IndexFunc(raw, func(c rune) bool { return c >= utf8.RuneSelf }) < 0
	if !ascii || bytes.IndexByte(raw, 0) >= 0 {
		var ok bool
		if raw, ok = textOf(raw, true, r); !ok {
			return nil, false
		}
	}
	if !version21.Match(raw) {
		return raw, true
	}
	var out bytes.Buffer
	out.Grow(len(raw))
	for len(raw) > 0 {
		var line string
		line, raw = nextLine(raw)
		head, _, _ := strings.Cut(line, ":")
		if strings.Contains(strings.ToUpper(head), "QUOTED-PRINTABLE") {
			// A soft line break ends in "=".
			for strings.HasSuffix(line, "=") && len(raw) > 0 {
				var more string
				more, raw = nextLine(raw)
				line = strings.TrimSuffix(line, "=") + strings.TrimLeft(more, " \t")
			}
		}
		out.WriteString(later(line, r))
		out.WriteString("\r\n")
	}
	return out.Bytes(), true
}

var version21 = regexp.MustCompile(`(?i)VERSION:2\.1`)

func nextLine(raw []byte) (line string, rest []byte) {
	l, rest, _ := bytes.Cut(raw, []byte("\n"))
	return strings.TrimSuffix(string(l), "\r"), rest
}

// later writes one line as vCard 3.0 would.
func later(line string, r *Report) string {
	head, value, ok := strings.Cut(line, ":")
	if !ok || line == "" || line[0] == ' ' || line[0] == '\t' {
		return line // goes on with the line before
	}
	words := strings.Split(head, ";")
	charset, quoted := "", false
	out := words[:1]
	for _, w := range words[1:] {
		name, v, has := strings.Cut(w, "=")
		if !has {
			name, v = "TYPE", w
		}
		switch {
		case strings.EqualFold(name, "CHARSET"):
			charset = v
		case strings.EqualFold(v, "QUOTED-PRINTABLE"):
			quoted = true
		default:
			out = append(out, strings.ToUpper(name)+"="+v)
		}
	}
	if quoted {
		read, err := io.ReadAll(quotedprintable.NewReader(strings.NewReader(value)))
		if err != nil {
			r.leave(fmt.Sprintf("text that is not quoted-printable (%s)", words[0]), "")
		} else {
			value = inCharset(string(read), charset, r)
		}
	}
	// A comma parts nothing in version 2.1; a line break was written as it is.
	value = strings.NewReplacer("\r\n", `\n`, "\n", `\n`, ",", `\,`).Replace(value)
	return strings.Join(out, ";") + ":" + value
}

// inCharset reads text of a named charset; without a name it is UTF-8 or Windows-1252.
func inCharset(s, charset string, r *Report) string {
	if charset == "" {
		charset = "utf-8"
		if !utf8.ValidString(s) {
			charset = "windows-1252"
		}
	}
	enc, err := htmlindex.Get(charset)
	if err != nil {
		r.leave("charset "+charset, "")
		return strings.ToValidUTF8(s, "?")
	}
	read, err := enc.NewDecoder().String(s)
	if err != nil {
		return strings.ToValidUTF8(s, "?")
	}
	return read
}
