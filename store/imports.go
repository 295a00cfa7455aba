package store

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/exchange"
)

// Incoming is a file that is to be taken in.
type Incoming struct {
	Kind    string // archive, fhir, clients-csv, readings-csv, vcard, icalendar
	File    string // its name, for the list
	SHA256  []byte
	Archive exchange.Archive
	Now     time.Time
}

// ImportResult is what was taken in.
type ImportResult struct {
	ID     uuid.UUID  `db:"id"`
	At     time.Time  `db:"at"`
	By     string     `db:"name"`
	Kind   string     `db:"kind"`
	File   string     `db:"file"`
	Counts []byte     `db:"summary"` // JSON: ImportCounts
	Undone *time.Time `db:"undone_at"`
}

// ImportCounts is what an import brought.
type ImportCounts struct {
	Clients int `json:"clients"`
	Visits  int `json:"visits"`
	Events  int `json:"events"`
	Photos  int `json:"photos"`
	// Set is what it brought of a practice's own: weights, thresholds, protocols, notes and
	// sites; Stayed is what of that is set otherwise here, and stays so.
	Set    int `json:"set"`
	Stayed int `json:"stayed"`
	// Aside are events that the file had as accepted and that were not accepted here.
	Aside int `json:"aside"`
}

// ErrThere is a file of which something is here already: an import adds, it
// never writes over.
var ErrThere = errors.New("it is here already")

// ErrUnfit is a file of which something cannot be kept.
var ErrUnfit = errors.New("it cannot be kept")

// importer takes one file in, within one transaction.
type importer struct {
	*Tx
	in Incoming
	id uuid.UUID
	// counts are what is told of the import when it is done.
	counts ImportCounts
	// marks name each row that it brought, so that it can be taken out again.
	marks []row
	// members work here: they sign for themselves.
	members map[string]bool
}

// Import takes a file in, all or nothing. Every event is judged anew by the rules
// of this program: what an archive claims gets round no rule.
func (t *Tx) Import(ctx context.Context, in Incoming) (uuid.UUID, ImportCounts, error) {
	i := importer{Tx: t, in: in, id: uuid.Must(uuid.NewV7()), members: map[string]bool{}}
	people, err := t.People(ctx)
	if err != nil {
		return i.id, i.counts, err
	}
	for _, p := range people {
		i.members[p.ID.String()] = true
	}
	in.Archive.Sort()
	for _, step := range []func(context.Context) error{i.people, i.practice, i.clients, i.visits, i.photos, i.record} {
		if err := step(ctx); err != nil {
			return i.id, i.counts, err
		}
	}
	return i.id, i.counts, nil
}

// mark notes what this import has brought, so that it can be taken out again as a whole.
func (i *importer) mark(kind string, id visit.UUID, version int64) {
	i.marks = append(i.marks, row{
		"practice_id": i.who.Practice, "import_id": i.id, "kind": kind, "id": id, "version": version,
	})
}

// people who are not of the practice are named and cannot sign in; whoever is
// known here keeps the role that is known here.
func (i *importer) people(ctx context.Context) error {
	for _, p := range i.in.Archive.People {
		r, err := i.tx.ExecContext(ctx, `insert into person (practice_id, id, name, role, elsewhere)
			values ($1, $2, $3, $4, true) on conflict (practice_id, id) do nothing`, i.who.Practice, p.ID, p.Name, p.Role)
		if err != nil {
			return found("taking a person in", err)
		}
		if n, err := r.RowsAffected(); err == nil && n > 0 {
			i.mark("person", p.ID, 0)
		}
	}
	return nil
}

// clients adds those who are not here yet. One who is here keeps what the practice has written
// since.
func (i *importer) clients(ctx context.Context) error {
	for _, c := range i.in.Archive.Clients {
		if err := i.notErased(ctx, string(c.ID)); err != nil {
			return err
		}
		r, err := i.tx.ExecContext(ctx, `insert into client (practice_id, id, given_name, family_name, born_on, height_cm,
			work, complaint, cautions, dominant_hand, phone, email, emergency_contact, guardian, revision, archived_at)
			values ($1, $2, $3, $4, nullif($5, '')::date, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15,
				case when $16 then $17::timestamptz end) on conflict (practice_id, id) do nothing`,
			i.who.Practice, c.ID, c.GivenName, c.FamilyName, c.BornOn, c.HeightCM, c.Work, c.Complaint,
			append([]string{}, c.Cautions...), c.Hand, c.Phone, c.Email, c.Emergency, c.Guardian, max(1, c.Revision),
			c.Archived, i.in.Now)
		if err := added(r, err, "client", c.GivenName+" "+c.FamilyName); err != nil {
			return err
		}
		i.counts.Clients++
		i.mark("client", c.ID, max(1, c.Revision))
	}
	return nil
}

type affected interface{ RowsAffected() (int64, error) }

// added refuses what is there already.
func added(r affected, err error, what, name string) error {
	if err != nil {
		return found("taking a "+what+" in", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, fmt.Errorf("%w: %s %s", ErrThere, what, name))
	}
	return nil
}

// visits come in the order of their days, since a visit is read against those
// before it.
func (i *importer) visits(ctx context.Context) error {
	for _, v := range i.in.Archive.Visits {
		status := v.Status
		if status == "" {
			status = "booked"
		}
		r, err := i.tx.ExecContext(ctx, `insert into visit (practice_id, id, client_id, therapist_id, starts_at, minutes,
			reason, room, status, series) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, nullif($10, '')::uuid)
			on conflict (practice_id, id) do nothing`,
			i.who.Practice, v.ID, v.Client, v.Therapist, v.Starts(), v.Minutes, v.Reason, v.Room, status,
			string(v.Series))
		if err := added(r, err, "visit", v.StartsAt); err != nil {
			return err
		}
		if err := i.log(ctx, v); err != nil {
			return err
		}
		i.counts.Visits++
		i.mark("visit", v.ID, int64(len(v.Events)))
	}
	return nil
}

// log judges a visit's events anew, for whoever can write a file could write a verdict into
// it.
func (i *importer) log(ctx context.Context, v exchange.ArchiveVisit) error {
	if len(v.Events) == 0 {
		return nil
	}
	stored, err := i.Visit(ctx, uuid.MustParse(string(v.ID)))
	if err != nil {
		return err
	}
	vc, err := i.VisitContext(ctx, stored, i.in.Now)
	if err != nil {
		return err
	}
	// The people of an archive were members where they acted. Here nothing new rests on them.
	vc.Gone = nil
	validator := rulesOf(v).Validator(vc)
	log := make([]visit.Event, len(v.Events))
	for k, e := range v.Events {
		log[k] = i.judged(validator, e, int64(k+1))
	}
	if err := i.insert(ctx, log); err != nil {
		return err
	}
	i.counts.Events += len(log)
	_, err = i.project(ctx, stored, int64(len(log)), visit.Reduce(vc, log), vc)
	return err
}

// rulesOf is today's rules; of a visit whose holds were begun under earlier rules
// that can still be replayed, those.
func rulesOf(v exchange.ArchiveVisit) visit.Rules {
	rules := visit.Today()
	for _, e := range v.Events {
		b, err := e.Decode()
		if h, ok := b.(*visit.HoldStarted); ok && err == nil {
			if _, err := treat.Replayer(h.Start); err == nil {
				rules.Coach = h.Start.Rules
			}
			break
		}
	}
	return rules
}

// judged lets an event stand as it stood, unless the rules of this program would
// not have let it.
func (i *importer) judged(j *visit.Validator, e visit.Event, version int64) visit.Event {
	e.Version = version
	now := i.in.Now.UnixMilli()
	if e.ReceivedMS == 0 {
		e.ReceivedMS = now
	}
	if e.HappenedMS == 0 {
		e.HappenedMS = max(1, min(now, e.DeviceMS))
	}
	if e.Verdict == visit.Rejected {
		j.Replay(e)
		return e
	}
	was := e
	if i.members[e.Author] && e.Author != i.who.Person.String() && signs(e.Type) {
		e.Verdict, e.Why = visit.Rejected, "Not accepted when it was taken in: a member of this practice signs here."
		i.counts.Aside++
		j.Replay(e)
		return e
	}
	got := j.Admit(e)
	switch {
	case got.Verdict == visit.Rejected && was.Verdict == visit.Accepted:
		i.counts.Aside++
		got.Why = "Not accepted when it was taken in: " + got.Why
	case was.Verdict == visit.Accepted:
		// As it was kept: the result and the time in a hold are part of the record.
		got.HoldAtMS, got.Clock, got.Result = was.HoldAtMS, was.Clock, was.Result
	}
	return got
}

// signs reports whether a type of event is somebody's own word for others' work: an
// archive says it for nobody who can say it here.
func signs(kind string) bool {
	switch kind {
	case "note-signed", "note-countersigned", "hold-countersigned", "screening-cleared", "block-overridden":
		return true
	}
	return false
}

// photos decodes each picture whole, so that nothing else than a picture is ever stored.
func (i *importer) photos(ctx context.Context) error {
	for k, p := range i.in.Archive.Photos {
		raw, err := base64.StdEncoding.DecodeString(p.JPEG)
		if err != nil {
			return fmt.Errorf("%w: $.photos[%d].jpeg is not base64", ErrUnfit, k)
		}
		// Decoded whole, so that a bomb or something else than a picture is refused;
		// kept as it came where it has nothing but pixels.
		pic, err := exchange.ReadPhoto(raw)
		if err != nil {
			return fmt.Errorf("%w: $.photos[%d].jpeg: %w", ErrUnfit, k, err)
		}
		jpeg := pic.JPEG
		if exchange.OnlyPixels(raw, pic) {
			jpeg = raw
		}
		marks := p.Marks
		if len(marks) == 0 {
			marks = json.RawMessage(`{}`)
		}
		r, err := i.tx.ExecContext(ctx, `insert into photo (practice_id, id, client_id, visit_id, view, width, height,
			jpeg, thumb, marks, revision, person_id, removed_at)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, case when $13 then $14::timestamptz end)
			on conflict (practice_id, id) do nothing`, i.who.Practice, p.ID, p.Client, p.Visit, p.View, pic.Width,
			pic.Height, jpeg, pic.Thumb, string(marks), p.Revision, p.By, p.Removed, i.in.Now)
		if err := added(r, err, "photograph", string(p.ID)); err != nil {
			return err
		}
		i.counts.Photos++
		i.mark("photo", p.ID, p.Revision)
	}
	return nil
}

// record keeps what was imported, from which file, by whom, with a checksum of the file.
func (i *importer) record(ctx context.Context) error {
	counts, err := json.Marshal(i.counts)
	if err != nil {
		return err
	}
	if _, err := i.tx.ExecContext(ctx, `insert into import (practice_id, id, at, person_id, kind, file, sha256, summary)
		values ($1, $2, $3, $4, $5, $6, $7, $8)`, i.who.Practice, i.id, i.in.Now, i.who.Person, i.in.Kind, i.in.File,
		i.in.SHA256, counts); err != nil {
		return found("noting an import", err)
	}
	if len(i.marks) == 0 {
		return nil
	}
	raw, err := json.Marshal(i.marks)
	if err != nil {
		return err
	}
	_, err = i.tx.ExecContext(ctx, `insert into imported select * from jsonb_populate_recordset(null::imported, $1)`, raw)
	return found("noting what an import brought", err)
}

// Here tells which of some ids are clients or visits of this practice; visits with when they begin.
func (t *Tx) Here(ctx context.Context, of []visit.UUID) (map[visit.UUID]time.Time, error) {
	ids := make([]string, 0, len(of))
	for _, id := range of {
		ids = append(ids, string(id))
	}
	var rows []struct {
		ID     uuid.UUID  `db:"id"`
		Starts *time.Time `db:"starts_at"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select id, null::timestamptz as starts_at from client where id = any($1::uuid[])
		union all select id, starts_at from visit where id = any($1::uuid[])`, ids)
	if err != nil {
		return nil, found("looking for what is here", err)
	}
	out := map[visit.UUID]time.Time{}
	for _, x := range rows {
		var at time.Time
		if x.Starts != nil {
			at = *x.Starts
		}
		out[visit.UUID(x.ID.String())] = at
	}
	return out, nil
}

// Imports lists what was taken in, the latest first.
func (t *Tx) Imports(ctx context.Context) ([]ImportResult, error) {
	out := []ImportResult{}
	err := t.tx.SelectContext(ctx, &out, `select i.id, i.at, p.name, i.kind, i.file, i.summary, i.undone_at
		from import i join person p on p.practice_id = i.practice_id and p.id = i.person_id
		order by i.at desc, i.id limit 100`)
	return out, found("listing imports", err)
}

// ErrWorkedOn is an import that cannot go any more, since somebody has worked on
// what it brought.
var ErrWorkedOn = errors.New("what it brought has been worked on since")

// UndoImport takes out what an import brought, as long as nobody has worked on it.
func (t *Tx) UndoImport(ctx context.Context, id uuid.UUID) error {
	var undone bool
	if err := t.tx.GetContext(ctx, &undone, `select undone_at is not null from import where id = $1 for update`,
		id); err != nil {
		return found("looking for an import", err)
	}
	if undone {
		return nil
	}
	var worked int
	err := t.tx.GetContext(ctx, &worked, `select count(*) from imported i where import_id = $1 and (
		kind = 'client' and exists (select from client c where c.id = i.id and c.revision <> i.version)
		or kind = 'visit' and exists (select from visit v where v.id = i.id and v.version <> i.version)
		or key is not null and version is distinct from set_version(kind, key)
		or kind = 'photo' and exists (select from photo p where p.id = i.id and p.revision <> i.version)
		or kind = 'client' and exists (select from visit v where v.client_id = i.id and not exists (
			select from imported x where x.import_id = i.import_id and x.kind = 'visit' and x.id = v.id)))`, id)
	if err != nil {
		return found("looking whether an import was worked on", err)
	}
	if worked > 0 {
		return ErrWorkedOn
	}
	_, err = t.tx.ExecContext(ctx, `select import_undo_set($1, $2), import_undo_sequences($1, $2), import_undo($1, $2)`, t.who.Practice, id)
	return found("undoing an import", err)
}
