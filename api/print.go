package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/assess"
	"mokren/core/note"
	"mokren/core/visit"
	"mokren/exchange/paper"
	"mokren/store"
)

const pdfKind = "application/pdf"

func (s *server) registerPrint(a huma.API) {
	huma.Register(a, s.paged(a, "print-visit", http.MethodGet, "/api/visits/{id}/print/{what}",
		"A visit's note, aftercare sheet, incident record or referral letter as PDF", 401, 404), s.printVisit)
	huma.Register(a, s.paged(a, "print-client", http.MethodGet, "/api/clients/{id}/print/progress",
		"A client's progress as PDF", 401, 404), s.printClient)
	huma.Register(a, s.paged(a, "print-blank", http.MethodGet, "/api/practice/print/blank",
		"A blank assessment sheet as PDF, for a day without power", 401), s.printBlank)
	huma.Register(a, op("visit-note", http.MethodGet, "/api/visits/{id}/note",
		"A visit's note: as signed, as edited last, or as the core writes it", 401, 404), s.visitNote)
}

// heading is what stands on a page of this practice; made is by its own clock.
func (s *server) heading(ctx context.Context, tx *store.Tx, title string) (paper.Heading, *time.Location, error) {
	me, err := tx.Person(ctx, tx.Who().Person)
	if err != nil {
		return paper.Heading{}, nil, err
	}
	zone, err := time.LoadLocation(me.TimeZone)
	if err != nil {
		return paper.Heading{}, nil, err
	}
	l, err := tx.Letterhead(ctx)
	if err != nil {
		return paper.Heading{}, nil, err
	}
	return paper.Heading{
		Title: title, Practice: paper.Practice(l), Letter: me.Units == "imperial", Made: s.now().In(zone),
	}, zone, nil
}

func (s *server) printVisit(ctx context.Context, in *struct {
	ByID
	What string `path:"what" enum:"note,aftercare,incident,letter"`
},
) (*fileOut, error) {
	return signed(ctx, s, action("print", "visit", in.ID), func(tx *store.Tx) (*fileOut, error) {
		open, err := s.readVisit(ctx, tx, in.uuid())
		if err != nil {
			return nil, err
		}
		var raw []byte
		switch in.What {
		case "note":
			raw, err = s.printNote(ctx, tx, open)
		case "incident":
			raw, err = s.printIncident(ctx, tx, open)
		case "letter":
			raw, err = s.printLetter(ctx, tx, open)
		default:
			raw, err = s.printAftercare(ctx, tx, open)
		}
		return fileOf(in.What+".pdf", pdfKind, raw), err
	})
}

// visitHeading names the client, when the visit was and whose.
func (s *server) visitHeading(
	ctx context.Context, tx *store.Tx, title string, v Visit,
) (paper.Heading, *time.Location, error) {
	h, zone, err := s.heading(ctx, tx, title)
	if err != nil {
		return h, zone, err
	}
	starts, err := time.Parse(time.RFC3339, v.StartsAt)
	if err != nil {
		return h, zone, err
	}
	h.Client = v.Name
	h.About = starts.In(zone).Format("2 January 2006, 15:04") + " · " + v.Therapist
	return h, zone, nil
}

func (s *server) printNote(ctx context.Context, tx *store.Tx, open OpenVisit) ([]byte, error) {
	h, zone, err := s.visitHeading(ctx, tx, "Note of a visit", open.Visit)
	if err != nil {
		return nil, err
	}
	text, err := noteOf(ctx, tx, open)
	if err != nil {
		return nil, err
	}
	page := paper.NotePage{Heading: h, Text: text}
	if x := open.State.Signed; x != nil {
		at := func(ms int64) string { return time.UnixMilli(ms).In(zone).Format("2 January 2006, 15:04") }
		page.SignedBy = x.Name + ", " + at(x.AtMS)
		if x.Counter != nil {
			page.SignedBy += "; countersigned by " + x.Counter.Name + ", " + at(x.Counter.AtMS)
		}
	}
	for _, a := range open.State.Addenda {
		page.Addenda = append(page.Addenda, time.UnixMilli(a.AtMS).In(zone).Format("2 January 2006, 15:04")+": "+a.Text)
	}
	page.Points, page.Ranges = paper.Tables(open.State)
	for i, p := range open.State.Points {
		spot := paper.Spot{View: p.View, X: p.X, Y: p.Y, Number: i + 1}
		if p.Grade != nil {
			spot.Grade = *p.Grade
		}
		spot.Active = p.Familiar == "yes"
		page.Spots = append(page.Spots, spot)
	}
	return paper.Note(page)
}

// printIncident: a visit without one has no such page.
func (s *server) printIncident(ctx context.Context, tx *store.Tx, open OpenVisit) ([]byte, error) {
	if len(open.State.Incidents) == 0 {
		return nil, store.ErrNotFound
	}
	h, zone, err := s.visitHeading(ctx, tx, "Incident record", open.Visit)
	if err != nil {
		return nil, err
	}
	names := map[string]string{}
	for _, m := range open.Team {
		names[m.ID] = m.Name
	}
	page := paper.IncidentPage{Heading: h}
	for _, x := range open.State.Incidents {
		written := time.UnixMilli(x.AtMS).In(zone).Format("2 January 2006, 15:04")
		if by := names[x.Author]; by != "" {
			written += " by " + by
		}
		page.Incidents = append(page.Incidents, paper.DatedIncident{Written: written, Incident: x.Incident})
	}
	return paper.Incident(page)
}

// printLetter sets the letter that was signed last, else the draft; a visit without one has no
// such page.
func (s *server) printLetter(ctx context.Context, tx *store.Tx, open OpenVisit) ([]byte, error) {
	letter := open.State.LetterDraft
	if n := len(open.State.Letters); n > 0 {
		letter = &open.State.Letters[n-1]
	}
	if letter == nil {
		return nil, store.ErrNotFound
	}
	h, zone, err := s.visitHeading(ctx, tx, "Referral", open.Visit)
	if err != nil {
		return nil, err
	}
	if born, err := time.Parse(time.DateOnly, open.Client.BornOn); err == nil {
		h.Client += ", born " + born.Format("2 January 2006")
	}
	h.About = time.UnixMilli(letter.AtMS).In(zone).Format("2 January 2006")
	return paper.Letter(paper.LetterPage{Heading: h, Letter: letter.Letter})
}

// NoteOut is a visit's note.
type NoteOut struct {
	visit.NoteText
	Signed bool `json:"signed"`
}

func (s *server) visitNote(ctx context.Context, in *ByID) (*oneOut[NoteOut], error) {
	return one(ctx, s, action("read", "note", in.ID), func(tx *store.Tx) (NoteOut, error) {
		open, err := s.readVisit(ctx, tx, in.uuid())
		if err != nil {
			return NoteOut{}, err
		}
		text, err := noteOf(ctx, tx, open)
		return NoteOut{text, open.State.Signed != nil}, err
	})
}

// noteOf is the note that stands: signed, else edited last, else written now.
func noteOf(ctx context.Context, tx *store.Tx, open OpenVisit) (visit.NoteText, error) {
	if open.State.Signed != nil {
		return open.State.Signed.NoteText, nil
	}
	if n := len(open.State.Drafts); n > 0 {
		return open.State.Drafts[n-1].NoteText, nil
	}
	weights, err := tx.Weights(ctx)
	if err != nil {
		return visit.NoteText{}, err
	}
	starts, err := time.Parse(time.RFC3339, open.Visit.StartsAt)
	if err != nil {
		return visit.NoteText{}, err
	}
	found := open.State.Findings(open.Context, open.Earlier, starts.UnixMilli())
	return note.Write(note.Visit{
		State: open.State, Context: open.Context, Earlier: open.Earlier, Suspects: assess.Rank(found, weights).Suspects,
		OffsetMin: open.OffsetMin,
	}), nil
}

func (s *server) printAftercare(ctx context.Context, tx *store.Tx, open OpenVisit) ([]byte, error) {
	h, zone, err := s.heading(ctx, tx, "After your treatment")
	if err != nil {
		return nil, err
	}
	if starts, err := time.Parse(time.RFC3339, open.Visit.StartsAt); err == nil {
		h.About = starts.In(zone).Format("2 January 2006")
	}
	me, err := tx.Person(ctx, tx.Who().Person)
	if err != nil {
		return nil, err
	}
	return paper.Aftercare(paper.AftercarePage{
		Heading: h, Care: open.State.Aftercare(open.Earlier), Emergency: me.Emergency,
	})
}

func (s *server) printClient(ctx context.Context, in *ByID) (*fileOut, error) {
	return signed(ctx, s, clientAction("print", *in), func(tx *store.Tx) (*fileOut, error) {
		raw, err := s.progressPage(ctx, tx, in.uuid())
		return fileOf("progress.pdf", pdfKind, raw), err
	})
}

func (s *server) progressPage(ctx context.Context, tx *store.Tx, client uuid.UUID) ([]byte, error) {
	course, err := s.readCourse(ctx, tx, client, true)
	if err != nil {
		return nil, err
	}
	h, _, err := s.heading(ctx, tx, "Progress")
	if err != nil {
		return nil, err
	}
	h.Client = course.Client.GivenName + " " + course.Client.FamilyName
	if course.Client.BornOn != "" {
		h.About = "born " + course.Client.BornOn
	}
	return paper.Report(paper.ReportPage{Heading: h, History: course.History, Visits: course.Client.Visits})
}

func (s *server) printBlank(ctx context.Context, _ *struct{}) (*fileOut, error) {
	return signed(ctx, s, action("print", "blank", ""), func(tx *store.Tx) (*fileOut, error) {
		h, _, err := s.heading(ctx, tx, "Assessment")
		if err != nil {
			return nil, err
		}
		raw, err := paper.Blank(h)
		return fileOf("blank.pdf", pdfKind, raw), err
	})
}
