package exchange

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"mokren/core/decode"
	"mokren/core/rights"
	"mokren/core/visit"
)

// The archive's name and versions; a reader refuses what it does not know. The second
// may hold what a practice has set; what has nothing of that is still of the first.
const (
	ArchiveFormat     = "mokren-archive"
	ArchiveOfClients  = 1
	ArchiveOfPractice = 2
	// MaxArchiveBytes is what is read of an archive at once.
	MaxArchiveBytes = 64 << 20
)

// Archive is clients with all that is known of them. Written twice it is the
// same bytes; read and written again it is too.
type Archive struct {
	Format  string `json:"format" maxLength:"40"`
	Version int    `json:"version"`
	// Practice is there where the archive is of a whole practice that has set something.
	Practice *ArchivePractice `json:"practice,omitempty"`
	People   []ArchivePerson  `json:"people" maxItems:"10000" doc:"whom events and visits name"`
	Clients  []ArchiveClient  `json:"clients" maxItems:"100000"`
	Visits   []ArchiveVisit   `json:"visits" maxItems:"1000000"`
	Photos   []ArchivePhoto   `json:"photos" maxItems:"100000"`
}

// ArchivePerson is someone who wrote.
type ArchivePerson struct {
	ID   visit.UUID  `json:"id"`
	Name string      `json:"name" maxLength:"200"`
	Role rights.Role `json:"role"`
}

// Check implements decode.Checker.
func (p ArchivePerson) Check() *decode.Error {
	staff := []rights.Role{rights.Owner, rights.Therapist, rights.Student, rights.FrontDesk}
	if !slices.Contains(staff, p.Role) {
		return &decode.Error{Path: "$.role", Given: fmt.Sprintf("%q", p.Role), Allowed: fmt.Sprint(staff)}
	}
	if p.Name == "" {
		return &decode.Error{Path: "$.name", Given: `""`, Allowed: "a name"}
	}
	return nil
}

// ArchiveClient is a person who is treated.
type ArchiveClient struct {
	ID         visit.UUID `json:"id"`
	GivenName  string     `json:"given_name" maxLength:"100"`
	FamilyName string     `json:"family_name" maxLength:"100"`
	BornOn     string     `json:"born_on,omitempty" maxLength:"10" doc:"YYYY-MM-DD"`
	HeightCM   *float64   `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
	Work       string     `json:"work,omitempty" maxLength:"200"`
	Complaint  string     `json:"complaint,omitempty" maxLength:"1000"`
	Cautions   []string   `json:"cautions,omitempty" maxItems:"20"`
	Hand       string     `json:"dominant_hand,omitempty" enum:"left,right,both"`
	Phone      string     `json:"phone,omitempty" maxLength:"60"`
	Email      string     `json:"email,omitempty" maxLength:"200"`
	Emergency  string     `json:"emergency_contact,omitempty" maxLength:"300"`
	Guardian   string     `json:"guardian,omitempty" maxLength:"300"`
	Archived   bool       `json:"archived,omitempty"`
	Revision   int64      `json:"revision" minimum:"1" maximum:"9007199254740991"`
}

// Check implements decode.Checker.
func (c ArchiveClient) Check() *decode.Error {
	for _, f := range []struct{ name, value string }{{"given_name", c.GivenName}, {"family_name", c.FamilyName}} {
		if blank(f.value) {
			return &decode.Error{Path: "$." + f.name, Given: fmt.Sprintf("%q", f.value), Allowed: "a name"}
		}
	}
	if c.BornOn == "" {
		return nil
	}
	if t, err := time.Parse(time.DateOnly, c.BornOn); err != nil || t.Year() < 1900 {
		return &decode.Error{
			Path: "$.born_on", Given: fmt.Sprintf("%q", c.BornOn),
			Allowed: "a day of the calendar from 1900, YYYY-MM-DD",
		}
	}
	return nil
}

// ArchiveVisit is an appointment with its log.
type ArchiveVisit struct {
	ID        visit.UUID    `json:"id"`
	Client    visit.UUID    `json:"client"`
	Therapist visit.UUID    `json:"therapist"`
	StartsAt  string        `json:"starts_at" maxLength:"40" doc:"RFC 3339, UTC"`
	Minutes   int           `json:"minutes" minimum:"5" maximum:"480"`
	Reason    string        `json:"reason,omitempty" maxLength:"500"`
	Room      string        `json:"room,omitempty" maxLength:"60"`
	Series    visit.UUID    `json:"series,omitempty" doc:"the same for those that were booked together"`
	Status    string        `json:"status,omitempty" enum:"booked,cancelled,no-show"`
	Events    []visit.Event `json:"events" maxItems:"200000"`
}

// Starts is when it begins.
func (v ArchiveVisit) Starts() time.Time {
	t, _ := time.Parse(time.RFC3339Nano, v.StartsAt) //nolint:errcheck // checked when it was read
	return t
}

// Check implements decode.Checker: the visit's own events, in their order.
func (v ArchiveVisit) Check() *decode.Error {
	if _, err := time.Parse(time.RFC3339Nano, v.StartsAt); err != nil {
		return &decode.Error{Path: "$.starts_at", Given: fmt.Sprintf("%q", v.StartsAt), Allowed: "a time, RFC 3339"}
	}
	for i, e := range v.Events {
		at := fmt.Sprintf("$.events[%d]", i)
		switch {
		case e.Visit != string(v.ID) || e.Client != string(v.Client):
			return &decode.Error{
				Path:    at + ".visit",
				Given:   fmt.Sprintf("%q", e.Visit),
				Allowed: "this visit and its client",
			}
		case e.Version != int64(i+1):
			return &decode.Error{Path: at + ".version", Given: fmt.Sprint(e.Version), Allowed: fmt.Sprint(i + 1)}
		case e.Verdict == "":
			return &decode.Error{Path: at + ".verdict", Given: "nothing", Allowed: "accepted or aside"}
		}
	}
	return nil
}

// ArchivePhoto is a photograph with what was marked on it.
type ArchivePhoto struct {
	ID       visit.UUID      `json:"id"`
	Client   visit.UUID      `json:"client"`
	Visit    visit.UUID      `json:"visit"`
	By       visit.UUID      `json:"by"`
	View     string          `json:"view" enum:"front,back,left,right"`
	Revision int64           `json:"revision" minimum:"1" maximum:"9007199254740991"`
	Removed  bool            `json:"removed,omitempty"`
	Marks    json.RawMessage `json:"marks"`
	JPEG     string          `json:"jpeg" maxLength:"14000000" doc:"base64"`
}

// Sort puts an archive in its one order.
func (a *Archive) Sort() {
	a.Format, a.Version = ArchiveFormat, ArchiveOfClients
	if a.Practice != nil {
		a.Version = ArchiveOfPractice
		a.Practice.sort()
	}
	slices.SortFunc(a.People, func(x, y ArchivePerson) int { return cmp.Compare(x.ID, y.ID) })
	slices.SortFunc(a.Clients, func(x, y ArchiveClient) int { return cmp.Compare(x.ID, y.ID) })
	slices.SortFunc(a.Visits, func(x, y ArchiveVisit) int {
		return cmp.Or(x.Starts().Compare(y.Starts()), cmp.Compare(x.ID, y.ID))
	})
	slices.SortFunc(a.Photos, func(x, y ArchivePhoto) int { return cmp.Compare(x.ID, y.ID) })
}

// WriteArchive gives the archive as one JSON document.
func WriteArchive(a Archive) ([]byte, error) {
	a.Sort()
	a.People, a.Clients = orNone(a.People), orNone(a.Clients)
	a.Visits, a.Photos = orNone(a.Visits), orNone(a.Photos)
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	if err := e.Encode(a); err != nil {
		return nil, fmt.Errorf("writing an archive: %w", err)
	}
	return b.Bytes(), nil
}

func orNone[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
}

// ReadArchive reads an archive strictly: unknown fields, names of nobody and
// ids that are there twice are refused, each with its path.
func ReadArchive(raw []byte) (Archive, Report) {
	var a Archive
	if err := decode.JSON(raw, &a); err != nil {
		return Archive{}, refused(err)
	}
	r := Report{Clients: len(a.Clients), Visits: len(a.Visits)}
	if a.Format != ArchiveFormat || a.Version < ArchiveOfClients || a.Version > ArchiveOfPractice {
		r.problem("$.format", "", fmt.Sprintf("This is %q, version %d; read is %s, version %d to %d.", a.Format,
			a.Version, ArchiveFormat, ArchiveOfClients, ArchiveOfPractice))
		return Archive{}, r
	}
	if a.Practice != nil {
		if a.Version < ArchiveOfPractice {
			r.problem("$.practice", "", fmt.Sprintf("a part of version %d", ArchiveOfPractice))
		}
		a.Practice.check(&r)
	}
	a.check(&r)
	return a, r
}

// check looks whether everything that is named is there, once.
func (a Archive) check(r *Report) {
	people := unique(r, "people", a.People, "id", func(p ArchivePerson) visit.UUID { return p.ID })
	clients := unique(r, "clients", a.Clients, "id", func(c ArchiveClient) visit.UUID { return c.ID })
	visits := unique(r, "visits", a.Visits, "id", func(v ArchiveVisit) visit.UUID { return v.ID })
	unique(r, "photos", a.Photos, "id", func(p ArchivePhoto) visit.UUID { return p.ID })
	events := map[string]bool{}
	for i, v := range a.Visits {
		at := fmt.Sprintf("$.visits[%d]", i)
		r.names(at+".client", v.Client, clients, "a client of the archive")
		r.names(at+".therapist", v.Therapist, people, "a person of the archive")
		for k, e := range v.Events {
			at := fmt.Sprintf("%s.events[%d]", at, k)
			// A client's own pad writes for the therapist whose visit it is.
			r.names(at+".author", visit.UUID(e.Author), people, "a person of the archive")
			if events[e.ID] {
				r.problem(at+".id", e.ID, "an id that is there once")
			}
			events[e.ID] = true
			if _, err := e.Decode(); err != nil && e.Verdict == visit.Accepted {
				r.problem(at, "", err.Error())
			}
		}
	}
	for i, p := range a.Photos {
		at := fmt.Sprintf("$.photos[%d]", i)
		r.names(at+".client", p.Client, clients, "a client of the archive")
		r.names(at+".visit", p.Visit, visits, "a visit of the archive")
		r.names(at+".by", p.By, people, "a person of the archive")
	}
}

// unique looks whether what a field says is there once in a list.
func unique[T any, K ~string](r *Report, of string, list []T, field string, key func(T) K) map[K]bool {
	seen := map[K]bool{}
	for i, x := range list {
		if seen[key(x)] {
			r.problem(fmt.Sprintf("$.%s[%d].%s", of, i, field), string(key(x)), "there once")
		}
		seen[key(x)] = true
	}
	return seen
}

func newID() visit.UUID { return visit.UUID(uuid.Must(uuid.NewV7()).String()) }
