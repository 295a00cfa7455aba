package fhirr4

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/samply/golang-fhir-models/fhir-models/fhir"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/visit"
	"mokren/exchange"
)

// MaxResources are read of one file.
const MaxResources = 200_000

// Read takes patients, encounters, heights, ranges and pain numbers out of a Bundle of any type, or
// of NDJSON; everything else is named in the report, with which resource of the file it is, and left
// out. author is who takes it in.
func Read(raw []byte, author visit.UUID, c exchange.Choices) (exchange.Archive, exchange.Report) {
	r := reader{
		author: author, choices: c, index: index{}, clients: map[string]*patient{}, visits: map[string]*encounter{},
		told: map[string][]exchange.Measure{}, heights: map[string]height{},
	}
	list, ok := r.resources(raw)
	if !ok {
		return exchange.Archive{}, r.report
	}
	// A patient may stand behind what is about it.
	for _, pass := range []map[string]func(*resource){
		{"Patient": r.patient}, {"Encounter": r.encounter}, {"Observation": r.observation},
	} {
		for _, x := range list {
			if read := pass[x.kind]; read != nil {
				r.read(x, read)
			}
		}
	}
	return r.archive(), r.report
}

type patient struct {
	exchange.ArchiveClient
	n int
}

type encounter struct {
	exchange.ArchiveVisit
	done bool // it has been, so its log is closed
}

type height struct {
	cm float64
	at string
}

type reader struct {
	author  visit.UUID
	report  exchange.Report
	choices exchange.Choices
	index   index
	clients map[string]*patient // by key
	visits  map[string]*encounter
	told    map[string][]exchange.Measure // by the visit's key
	heights map[string]height
	order   []string // of patients, then encounters, as they stand
	n       int      // which resource is read
	at      string
}

func (r *reader) problem(field, given, text string) {
	if r.at != "" {
		field = strings.TrimSuffix(r.at+"."+field, ".")
	}
	r.report.Add(exchange.Problem{Row: r.n, Field: field, Given: given, Text: text})
}

func (r *reader) leave(what string) { r.report.Leave(what, r.n) }

// resources are those of a Bundle or of NDJSON, in their order; those that are to stay out or were
// entered in error are named.
func (r *reader) resources(raw []byte) ([]*resource, bool) {
	raw = bytes.TrimPrefix(raw, []byte("\xef\xbb\xbf"))
	if !utf8.Valid(raw) {
		r.problem("file", "", "FHIR in JSON is text in UTF-8; this is of another charset.")
		return nil, false
	}
	if bytes.Count(raw, []byte(`"resourceType"`)) > MaxResources {
		r.problem("file", "", fmt.Sprintf("More than %d resources.", MaxResources))
		return nil, false
	}
	bundle, ok := r.entries(raw)
	if !ok {
		return nil, false
	}
	var out []*resource
	for i, e := range bundle {
		x := &resource{n: i + 1, kind: typeOf(e.Resource), raw: e.Resource}
		r.n = x.n
		url := ""
		if e.FullUrl != nil {
			url = *e.FullUrl
		}
		r.index.add(x, url)
		switch {
		case r.choices.Leave[x.n]:
			r.leave("entry that you left out")
		case x.kind == "" && len(e.Resource) == 0:
			r.leave("entry without a resource")
		case x.kind == "":
			r.problem(fmt.Sprintf("entry[%d].resource.resourceType", i), "", "the type of the resource")
		case statusOf(e.Resource) == "entered-in-error":
			r.leave(x.kind + " that was entered in error")
		case !slices.Contains([]string{"Patient", "Encounter", "Observation"}, x.kind):
			r.leave(x.kind)
		default:
			out = append(out, x)
		}
	}
	r.n = 0
	return out, true
}

// entries reads a Bundle, or one resource a line.
func (r *reader) entries(raw []byte) ([]fhir.BundleEntry, bool) {
	var b fhir.Bundle
	switch kind := typeOf(raw); {
	case kind == "Bundle":
		if err := json.Unmarshal(raw, &b); err != nil {
			r.problem("Bundle", "", "The bundle cannot be read: "+err.Error())
			return nil, false
		}
		return b.Entry, true
	case kind != "" || !bytes.Contains(bytes.TrimSpace(raw), []byte("\n")):
		r.problem("resourceType", kind, "a FHIR Bundle in JSON, or NDJSON")
		return nil, false
	}
	for i, line := range bytes.Split(raw, []byte("\n")) {
		if line = bytes.TrimSpace(line); len(line) == 0 {
			continue
		}
		if typeOf(line) == "" {
			r.problem("resourceType", "", fmt.Sprintf("Line %d is no resource: a FHIR Bundle in JSON, or NDJSON.", i+1))
			return nil, false
		}
		b.Entry = append(b.Entry, fhir.BundleEntry{Resource: line})
	}
	return b.Entry, true
}

func typeOf(raw json.RawMessage) string {
	var t struct {
		ResourceType string `json:"resourceType"`
	}
	if json.Unmarshal(raw, &t) != nil {
		return ""
	}
	return t.ResourceType
}

func statusOf(raw json.RawMessage) string {
	var t struct {
		Status string `json:"status"`
	}
	if json.Unmarshal(raw, &t) != nil {
		return ""
	}
	return t.Status
}

// read hands a resource to whoever reads its type.
func (r *reader) read(x *resource, by func(*resource)) {
	r.n, r.at = x.n, fmt.Sprintf("entry[%d].%s", x.n-1, x.kind)
	defer func() { r.n, r.at = 0, "" }()
	by(x)
}

// shape reads a resource into its library's shape.
func (r *reader) shape(x *resource, into any) bool {
	if err := json.Unmarshal(x.raw, into); err != nil {
		r.problem("", "", "It cannot be read: "+err.Error())
		return false
	}
	return true
}

// rest names the fields of a resource that nobody reads here.
func (r *reader) rest(x *resource, read ...string) {
	var fields map[string]json.RawMessage
	if json.Unmarshal(x.raw, &fields) != nil {
		return
	}
	// What tells how it is kept, not what it says.
	plumbing := []string{"resourceType", "id", "meta", "implicitRules", "language", "text", "extension", "contained"}
	for _, name := range slices.Sorted(maps.Keys(fields)) {
		if !slices.Contains(read, name) && !slices.Contains(plumbing, name) && !strings.HasPrefix(name, "_") {
			r.leave(x.kind + "." + name)
		}
	}
}

// refuse holds what was made to its limits.
func (r *reader) refuse(e *decode.Error) bool {
	if e != nil {
		r.problem(strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed)
	}
	return e != nil
}

func (r *reader) patient(x *resource) {
	var p fhir.Patient
	if !r.shape(x, &p) {
		return
	}
	c := exchange.ArchiveClient{ID: r.idOf(x), Revision: 1}
	c.GivenName, c.FamilyName = r.name(p.Name)
	if p.BirthDate != nil {
		c.BornOn = *p.BirthDate
		if len(c.BornOn) != len(time.DateOnly) {
			// A year alone is no birth date here.
			r.leave("birth date without day " + c.BornOn)
			c.BornOn = ""
		}
	}
	for _, t := range p.Telecom {
		switch {
		case t.Value == nil:
		case t.System != nil && *t.System == fhir.ContactPointSystemPhone && c.Phone == "":
			c.Phone = *t.Value
		case t.System != nil && *t.System == fhir.ContactPointSystemEmail && c.Email == "":
			c.Email = *t.Value
		default:
			r.leave("further telecom " + *t.Value)
		}
	}
	for _, who := range p.Contact {
		r.contact(who, &c)
	}
	if p.DeceasedBoolean != nil && *p.DeceasedBoolean || p.DeceasedDateTime != nil {
		r.leave("that the patient has died")
	}
	r.rest(x, "name", "birthDate", "telecom", "contact", "deceasedBoolean", "deceasedDateTime", "active")
	if r.refuse(exchange.Valid(c)) {
		return
	}
	r.clients[x.key] = &patient{c, x.n}
	r.order = append(r.order, x.key)
	r.report.Show("%s", strings.TrimSpace(c.GivenName+" "+c.FamilyName+" "+c.BornOn))
}

// contact is an emergency contact or a guardian; any other is named.
func (r *reader) contact(who fhir.PatientContact, c *exchange.ArchiveClient) {
	name := ""
	if who.Name != nil {
		name = wholeName(*who.Name)
	}
	for _, t := range who.Telecom {
		if t.Value != nil {
			name = strings.TrimSpace(name + " " + *t.Value)
		}
	}
	for _, x := range who.Relationship {
		switch {
		case codeOf(x, contact) == emergencyContact && c.Emergency == "":
			c.Emergency = name
			return
		case codeOf(x, role) == guardian && c.Guardian == "":
			c.Guardian = name
			return
		}
	}
	r.leave("contact " + name)
}

func wholeName(n fhir.HumanName) string {
	if n.Text != nil {
		return *n.Text
	}
	family := ""
	if n.Family != nil {
		family = *n.Family
	}
	return strings.TrimSpace(strings.Join(n.Given, " ") + " " + family)
}

// name is the official one, else the usual one, else the first that is not of the past.
func (r *reader) name(names []fhir.HumanName) (given, family string) {
	rank := func(n fhir.HumanName) int {
		switch {
		case n.Use == nil:
			return 2
		case *n.Use == fhir.NameUseOfficial:
			return 0
		case *n.Use == fhir.NameUseUsual:
			return 1
		case *n.Use == fhir.NameUseOld || *n.Use == fhir.NameUseMaiden:
			return 4
		}
		return 3
	}
	sorted := slices.Clone(names)
	slices.SortStableFunc(sorted, func(a, b fhir.HumanName) int { return cmp.Compare(rank(a), rank(b)) })
	for i, n := range sorted {
		g, f := strings.Join(n.Given, " "), ""
		if n.Family != nil {
			f = *n.Family
		}
		if f == "" && g == "" && n.Text != nil {
			if words := strings.Fields(*n.Text); len(words) > 1 {
				g, f = strings.Join(words[:len(words)-1], " "), words[len(words)-1]
			}
		}
		if i == 0 {
			given, family = g, f
		} else if other := strings.TrimSpace(g + " " + f); other != strings.TrimSpace(given+" "+family) {
			r.leave("further name " + other)
		}
		for _, title := range slices.Concat(n.Prefix, n.Suffix) {
			r.leave("title " + title)
		}
	}
	return given, family
}

// idOf keeps an id that is a UUID; another gets one, the same every time.
func (r *reader) idOf(x *resource) visit.UUID {
	return r.choices.Known(x.kind, x.key[strings.LastIndexAny(x.key, ":/")+1:], x.key)
}

// subject finds whose it is; a reference to nobody in the bundle is a problem.
func (r *reader) subject(ref *fhir.Reference) (string, *patient) {
	if ref == nil {
		r.problem("subject", "", "a reference to a patient")
		return "", nil
	}
	key, there := r.index.find(ref, "Patient")
	c := r.clients[key]
	switch {
	case c != nil:
		return key, c
	case there:
		r.leave("what is about a patient who is left out")
	case ref.Reference != nil:
		r.problem("subject.reference", *ref.Reference, "a patient of this file")
	default:
		r.problem("subject", "", "a patient of this file")
	}
	return "", nil
}

func (r *reader) encounter(x *resource) {
	var e fhir.Encounter
	if !r.shape(x, &e) {
		return
	}
	_, c := r.subject(e.Subject)
	if c == nil {
		return
	}
	if e.Period == nil || e.Period.Start == nil {
		r.problem("period.start", "", "when the encounter began")
		return
	}
	start, day, err := r.moment(*e.Period.Start)
	if err != nil {
		r.problem("period.start", *e.Period.Start, "a FHIR dateTime")
		return
	}
	v := encounter{ArchiveVisit: exchange.ArchiveVisit{
		ID: r.idOf(x), Client: c.ID, Therapist: r.author, StartsAt: start.UTC().Format(time.RFC3339Nano),
		Minutes: 60, Status: "booked",
		Events: []visit.Event{},
	}, done: e.Status == fhir.EncounterStatusFinished}
	if day {
		r.leave("hour of an encounter, which is not told: noon is taken")
	}
	r.long(&v, e.Period, start, day)
	if e.Status == fhir.EncounterStatusCancelled {
		v.Status = "cancelled"
	}
	if len(e.ReasonCode) > 0 {
		v.Reason = textOf(e.ReasonCode[0])
	}
	for _, more := range e.ReasonCode[min(1, len(e.ReasonCode)):] {
		r.leave("further reason " + textOf(more))
	}
	r.rest(x, "status", "class", "subject", "period", "reasonCode")
	if r.refuse(exchange.Valid(v.ArchiveVisit)) {
		return
	}
	r.visits[x.key] = &v
	r.order = append(r.order, x.key)
}

// long sets how long an encounter was; one that is longer or shorter than an appointment can be is
// named.
func (r *reader) long(v *encounter, p *fhir.Period, start time.Time, day bool) {
	if p.End == nil || day {
		return
	}
	end, _, err := r.moment(*p.End)
	if err != nil {
		r.leave("end of an encounter " + *p.End)
		return
	}
	minutes := int(end.Sub(start).Minutes())
	v.Minutes = min(480, max(5, minutes))
	if v.Minutes != minutes {
		r.leave(fmt.Sprintf("length of %d minutes; %d are kept", minutes, v.Minutes))
	}
}

// textOf is a concept in words.
func textOf(c fhir.CodeableConcept) string {
	if c.Text != nil {
		return *c.Text
	}
	for _, x := range c.Coding {
		if x.Display != nil {
			return *x.Display
		}
	}
	return ""
}

// moment reads a FHIR dateTime, which may be a day: noon by the practice's clock.
func (r *reader) moment(s string) (at time.Time, day bool, err error) {
	if at, err = time.Parse(time.RFC3339, s); err == nil {
		return at, false, nil
	}
	zone := cmp.Or(r.choices.Zone, time.UTC)
	at, err = time.ParseInLocation(time.DateOnly, s, zone)
	return at.Add(12 * time.Hour), true, err
}

func (r *reader) observation(x *resource) {
	var o fhir.Observation
	if !r.shape(x, &o) {
		return
	}
	if o.Status == fhir.ObservationStatusCancelled {
		r.leave("Observation that was cancelled")
		return
	}
	code, move := codeOf(o.Code, loinc), codeOf(o.Code, movements)
	if code != loincHeight && code != loincPain && move == "" {
		r.leave("Observation of something else")
		return
	}
	if o.ValueQuantity == nil && o.ValueInteger != nil {
		n := json.Number(fmt.Sprint(*o.ValueInteger))
		o.ValueQuantity = &fhir.Quantity{Value: &n}
	}
	if o.ValueQuantity == nil || o.ValueQuantity.Value == nil {
		r.leave("Observation without a number")
		return
	}
	key, c := r.subject(o.Subject)
	if c == nil {
		return
	}
	if code == loincHeight {
		r.height(key, c, o)
		return
	}
	visit, there := r.index.find(o.Encounter, "Encounter")
	if r.visits[visit] == nil {
		if there {
			r.leave("what is of an encounter that is left out")
		} else {
			r.leave("Observation without an encounter")
		}
		return
	}
	r.reading(&o, visit, move)
}

// height keeps the one that was measured last.
func (r *reader) height(key string, c *patient, o fhir.Observation) {
	v, err := inCM(*o.ValueQuantity)
	if err != nil {
		r.problem("valueQuantity", "", err.Error())
		return
	}
	if v < 50 || v > 250 {
		r.problem("valueQuantity.value", fmt.Sprint(v), "50 to 250 cm")
		return
	}
	h := height{cm: v}
	switch {
	case o.EffectiveDateTime != nil:
		h.at = *o.EffectiveDateTime
	case o.Issued != nil:
		h.at = *o.Issued
	}
	last, there := r.heights[key]
	if there {
		r.leave("earlier height")
	}
	if there && !later(h.at, last.at) {
		return
	}
	r.heights[key], c.HeightCM = h, &v
}

// later compares FHIR dateTimes of any precision; what has none is earlier than what has one.
func later(a, b string) bool {
	at := func(s string) time.Time {
		for _, layout := range []string{time.RFC3339, time.DateOnly, "2006-01", "2006"} {
			if t, err := time.Parse(layout, s); err == nil {
				return t
			}
		}
		return time.Time{}
	}
	return !at(a).Before(at(b))
}

func (r *reader) reading(o *fhir.Observation, visitKey, move string) {
	m := exchange.Measure{Movement: move}
	var err error
	switch move {
	case "":
		m.Value, err = ofTen(*o.ValueQuantity)
	case "jaw.opening":
		m.Value, err = inMM(*o.ValueQuantity)
	default:
		m.Value, err = inDegrees(*o.ValueQuantity)
	}
	if err != nil {
		r.problem("valueQuantity", "", err.Error())
		return
	}
	if move == "" && (m.Value < 0 || m.Value > 10) {
		r.problem("valueQuantity.value", fmt.Sprint(m.Value), "0 to 10")
		return
	}
	if move != "" {
		m.Side, m.Moment = "midline", "before"
		if o.BodySite != nil {
			m.Side = codeOf(*o.BodySite, sides)
		}
		if o.Method != nil {
			m.Moment = codeOf(*o.Method, moments)
		}
		body := visit.RangeMeasured{
			Movement: ids.Movement(move), Side: ids.Side(m.Side), Moment: m.Moment, Active: &m.Value,
		}
		if r.refuse(body.Check()) {
			return
		}
	}
	r.told[visitKey] = append(r.told[visitKey], m)
	r.report.Readings++
}

func (r *reader) archive() exchange.Archive {
	var a exchange.Archive
	for _, key := range r.order {
		if c := r.clients[key]; c != nil {
			a.Clients = append(a.Clients, c.ArchiveClient)
			r.report.Stands(c.n)
		}
		v := r.visits[key]
		if v == nil {
			continue
		}
		if len(r.told[key]) > 0 || v.done {
			v.ArchiveVisit = exchange.ReadWords(v.ArchiveVisit, r.author, r.told[key])
		}
		a.Visits = append(a.Visits, v.ArchiveVisit)
	}
	r.report.Clients, r.report.Visits = len(a.Clients), len(a.Visits)
	return a
}
