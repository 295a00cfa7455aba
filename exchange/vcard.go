package exchange

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"maps"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/emersion/go-vcard"
)

// MaxCards is how many cards are read of a file.
const MaxCards = 5000

// WriteVCards gives the clients' contacts (vCard 4.0, RFC 6350). Nothing clinical
// goes into an address book.
func WriteVCards(a Archive) ([]byte, error) {
	var b bytes.Buffer
	w := vcard.NewEncoder(&b)
	for _, c := range a.Clients {
		card := vcard.Card{}
		card.SetValue(vcard.FieldUID, "urn:uuid:"+string(c.ID))
		card.SetName(&vcard.Name{GivenName: hideSemicolons(c.GivenName), FamilyName: hideSemicolons(c.FamilyName)})
		card.SetValue(vcard.FieldFormattedName, c.GivenName+" "+c.FamilyName)
		if c.BornOn != "" {
			card.SetValue(vcard.FieldBirthday, strings.ReplaceAll(c.BornOn, "-", ""))
		}
		if c.Phone != "" {
			card.SetValue(vcard.FieldTelephone, c.Phone)
		}
		if c.Email != "" {
			card.SetValue(vcard.FieldEmail, c.Email)
		}
		vcard.ToV4(card)
		if err := w.Encode(card); err != nil {
			return nil, fmt.Errorf("writing a vCard: %w", err)
		}
	}
	return bytes.ReplaceAll(b.Bytes(), []byte(hidden), []byte(`\;`)), nil
}

// The library takes every semicolon of a name for the end of a part, an escaped one too; while it
// works, a noncharacter stands for those that are none.
const hidden = "\uffff"

func hideSemicolons(s string) string { return strings.ReplaceAll(s, ";", hidden) }

func unhide(s string) string { return strings.ReplaceAll(s, hidden, ";") }

var beginCard = regexp.MustCompile(`(?i)BEGIN:VCARD`)

// hideEscaped does so for a file that comes in.
func hideEscaped(raw []byte) []byte {
	if !bytes.Contains(raw, []byte(`\;`)) {
		return raw
	}
	return []byte(strings.NewReplacer(`\\`, `\\`, `\;`, hidden).Replace(string(raw)))
}

// understood are the fields that become something of a client, or tell nothing of one.
var understood = map[string]bool{
	vcard.FieldVersion: true, vcard.FieldUID: true, vcard.FieldName: true, vcard.FieldFormattedName: true,
	vcard.FieldBirthday: true, vcard.FieldTelephone: true, vcard.FieldEmail: true, vcard.FieldKind: true,
	vcard.FieldProductID: true, vcard.FieldRevision: true,
}

// ReadVCards reads contacts as new clients: vCard 2.1, 3.0 and 4.0. Organisations and groups are
// named and left out.
func ReadVCards(ctx context.Context, raw []byte, ch Choices) (Archive, Report) {
	var a Archive
	var r Report
	if n := len(beginCard.FindAllIndex(raw, MaxCards+1)); n > MaxCards {
		r.problem("file", "", fmt.Sprintf("More than %d cards.", MaxCards))
		return a, r
	}
	raw, ok := cardText(raw, &r)
	if !ok {
		return a, r
	}
	if !bytes.Contains(bytes.ToUpper(raw[:min(len(raw), 4096)]), []byte("BEGIN:VCARD")) {
		r.problem("file", "", "This is no vCard file.")
		return a, r
	}
	in := vcard.NewDecoder(stoppable(ctx, hideEscaped(raw)))
	before := map[string]int{}
	for n := 1; ; n++ {
		card, err := in.Decode()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			r.add(Problem{n, "card", "", "The card cannot be read: " + err.Error()})
			return a, r
		}
		if ch.left(&r, n) || organisation(card, n, &r) {
			continue
		}
		c := clientOf(card, n, ch, &r)
		if e := valid(c); e != nil {
			r.add(Problem{n, strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed})
			continue
		}
		if at, twice := before[same(c)]; twice {
			r.add(Problem{n, "FN", c.GivenName + " " + c.FamilyName, fmt.Sprintf("The same client as in card %d.", at)})
			continue
		}
		before[same(c)] = n
		a.Clients, r.rows = append(a.Clients, c), append(r.rows, n)
		r.show("%s %s %s", c.GivenName, c.FamilyName, c.BornOn)
	}
	r.Clients = len(a.Clients)
	return a, r
}

// organisation names a card that is no person's: its kind says so, or it has an organisation and
// no name of a person.
func organisation(card vcard.Card, n int, r *Report) bool {
	kind := strings.ToLower(card.Value(vcard.FieldKind))
	name := card.PreferredValue(vcard.FieldFormattedName)
	named := card.Name() != nil && !blank(card.Name().GivenName+card.Name().FamilyName)
	org, _, _ := strings.Cut(card.Value(vcard.FieldOrganization), ";")
	company := strings.EqualFold(card.Value("X-ABSHOWAS"), "company")
	switch {
	case kind == "org", kind == "group", kind == "location", company, !named && org != "":
		r.Leave("card of an organisation or group: "+cmp.Or(name, org), n)
		return true
	}
	return false
}

// clientOf takes what is understood of a card; the rest is named.
func clientOf(card vcard.Card, n int, ch Choices, r *Report) ArchiveClient {
	c := ArchiveClient{
		ID: newID(), Phone: first(card, vcard.FieldTelephone, "telephone", n, r),
		Email: first(card, vcard.FieldEmail, "e-mail address", n, r), Revision: 1,
	}
	if uid := card.Value(vcard.FieldUID); uid != "" {
		c.ID = ch.known("card", strings.TrimPrefix(uid, "urn:uuid:"))
	}
	c.Phone = strings.TrimPrefix(c.Phone, "tel:")
	c.Email = strings.TrimPrefix(c.Email, "mailto:")
	if name := card.Name(); name != nil {
		c.GivenName = strings.TrimSpace(name.GivenName + " " + strings.ReplaceAll(name.AdditionalName, ",", " "))
		c.FamilyName = strings.TrimSpace(name.FamilyName)
		for _, more := range []string{name.HonorificPrefix, name.HonorificSuffix} {
			if !blank(more) {
				r.Leave("title "+more, n)
			}
		}
	}
	if c.GivenName == "" || c.FamilyName == "" {
		// One name alone: the last word is the family's.
		words := strings.Fields(card.PreferredValue(vcard.FieldFormattedName))
		if len(words) > 1 {
			c.GivenName, c.FamilyName = strings.Join(words[:len(words)-1], " "), words[len(words)-1]
		}
	}
	if born := card.Value(vcard.FieldBirthday); born != "" {
		c.BornOn = birthday(born)
		if c.BornOn == "" {
			r.Leave("birth date "+born+", which is no whole day", n)
		}
	}
	c.GivenName, c.FamilyName = unhide(c.GivenName), unhide(c.FamilyName)
	c.Phone, c.Email = unhide(c.Phone), unhide(c.Email)
	for _, field := range slices.Sorted(maps.Keys(card)) {
		if !understood[field] {
			r.Leave("field "+field, n)
		}
	}
	return c
}

// first is the preferred value of a field; others are named.
func first(card vcard.Card, field, name string, n int, r *Report) string {
	value := card.PreferredValue(field)
	told := false
	for _, x := range card[field] {
		if x.Value == value && !told {
			told = true // the one that is taken
			continue
		}
		r.Leave("second "+name+" "+x.Value, n)
	}
	return value
}

// birthday reads a whole day in any of the forms that the versions write.
func birthday(s string) string {
	day, _, _ := strings.Cut(s, "T")
	day = strings.ReplaceAll(strings.TrimSpace(day), "-", "")
	t, err := time.Parse("20060102", day)
	if err != nil {
		return ""
	}
	return t.Format(time.DateOnly)
}
