package exchange

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"strings"

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
		card.SetName(&vcard.Name{GivenName: c.GivenName, FamilyName: c.FamilyName})
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
	return b.Bytes(), nil
}

// understood are the fields that become something of a client.
var understood = map[string]bool{
	vcard.FieldVersion: true, vcard.FieldUID: true, vcard.FieldName: true, vcard.FieldFormattedName: true,
	vcard.FieldBirthday: true, vcard.FieldTelephone: true, vcard.FieldEmail: true,
}

// ReadVCards reads contacts as new clients.
func ReadVCards(ctx context.Context, raw []byte) (Archive, Report) {
	var a Archive
	var r Report
	if !bytes.Contains(bytes.ToUpper(raw[:min(len(raw), 4096)]), []byte("BEGIN:VCARD")) {
		r.problem("file", "", "This is no vCard file.")
		return a, r
	}
	in := vcard.NewDecoder(stoppable(ctx, raw))
	for n := 1; ; n++ {
		card, err := in.Decode()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			r.add(Problem{n, "card", "", "The card cannot be read: " + err.Error()})
			return a, r
		}
		if n > MaxCards {
			r.problem("file", "", fmt.Sprintf("More than %d cards.", MaxCards))
			return a, r
		}
		c := clientOf(card)
		for field := range card {
			if !understood[field] {
				r.leave("field " + field)
			}
		}
		if e := valid(c); e != nil {
			r.add(Problem{n, strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed})
			continue
		}
		a.Clients = append(a.Clients, c)
		r.show("%s %s %s", c.GivenName, c.FamilyName, c.BornOn)
	}
	r.Clients = len(a.Clients)
	return a, r
}

func clientOf(card vcard.Card) ArchiveClient {
	c := ArchiveClient{
		ID: newID(), Phone: card.PreferredValue(vcard.FieldTelephone), Email: card.PreferredValue(vcard.FieldEmail),
		Revision: 1,
	}
	c.Phone = strings.TrimPrefix(c.Phone, "tel:")
	if n := card.Name(); n != nil {
		c.GivenName, c.FamilyName = n.GivenName, n.FamilyName
	}
	if c.GivenName == "" || c.FamilyName == "" {
		// One name alone: the last word is the family's.
		words := strings.Fields(card.PreferredValue(vcard.FieldFormattedName))
		if len(words) > 1 {
			c.GivenName, c.FamilyName = strings.Join(words[:len(words)-1], " "), words[len(words)-1]
		}
	}
	day := strings.ReplaceAll(card.Value(vcard.FieldBirthday), "-", "")
	if len(day) >= 8 {
		c.BornOn = day[:4] + "-" + day[4:6] + "-" + day[6:8]
	}
	return c
}
