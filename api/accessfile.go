package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/base64"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"mokren/core/visit"
	"mokren/exchange"
	"mokren/exchange/fhirr4"
	"mokren/store"
)

// signedNotes are the notes of an archive's visits that somebody has signed, as they are printed.
func (s *server) signedNotes(
	ctx context.Context, tx *store.Tx, a exchange.Archive, states map[visit.UUID]visit.State,
) (map[visit.UUID]fhirr4.Document, error) {
	out := map[visit.UUID]fhirr4.Document{}
	for _, v := range a.Visits {
		if states[v.ID].Signed == nil {
			continue
		}
		open, err := s.readVisit(ctx, tx, uuid.MustParse(string(v.ID)))
		if err != nil {
			return nil, err
		}
		raw, err := s.printNote(ctx, tx, open)
		if err != nil {
			return nil, err
		}
		out[v.ID] = fhirr4.Document{PDF: raw, Signed: true}
	}
	return out, nil
}

// clientFHIR is a client's record as a Bundle, with the signed notes as documents.
func (s *server) clientFHIR(ctx context.Context, tx *store.Tx, client uuid.UUID) (*fileOut, error) {
	a, err := tx.Export(ctx, client)
	if err != nil {
		return nil, err
	}
	states := statesOf(a)
	notes, err := s.signedNotes(ctx, tx, a, states)
	if err != nil {
		return nil, err
	}
	raw, err := fhirr4.Write(a, states, notes)
	return fileOf("fhir.json", fhirKind, raw), err
}

// accessFile is all that is known of a client, for whoever asks what is kept about them: one zip,
// with a plain index that explains each file.
func (s *server) accessFile(ctx context.Context, tx *store.Tx, client uuid.UUID) (*fileOut, error) {
	a, err := tx.Export(ctx, client)
	if err != nil {
		return nil, err
	}
	h, zone, err := s.heading(ctx, tx, "Progress")
	if err != nil {
		return nil, err
	}
	f := accessZip{zone: zone, made: s.now()}
	f.w = zip.NewWriter(&f.out)
	if err := s.fillAccess(ctx, tx, a, &f); err != nil {
		return nil, err
	}
	f.add("INDEX.txt", "", []byte(accessIndex(h.Practice.Name, f)))
	if f.err == nil {
		f.err = f.w.Close()
	}
	return fileOf("record.zip", zipKind, f.out.Bytes()), f.err
}

// accessZip is the file in the making.
type accessZip struct {
	out   bytes.Buffer
	w     *zip.Writer
	zone  *time.Location
	made  time.Time
	lines []string
	err   error
}

// add puts a file in, and what it is into the index.
func (f *accessZip) add(name, what string, raw []byte) {
	if f.err != nil {
		return
	}
	to, err := f.w.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: f.made.UTC()})
	if err == nil {
		_, err = to.Write(raw)
	}
	f.err = err
	if what != "" {
		f.lines = append(f.lines, fmt.Sprintf("%-40s %s", name, what))
	}
}

// accessTables are the files of an access request that are written from the archive alone.
var accessTables = []struct{ format, name, what string }{
	{"archive", "record.json", "Everything, exactly, for a practice that works with the same program."},
	{"vcard", "contact.vcf", "Name and how to reach you, for an address book."},
	{"clients-csv", "you.csv", "What is written about you yourself. CSV opens in any spreadsheet."},
	{"visits-csv", "visits.csv", "Your visits: when, how long, why."},
	{"points-csv", "points.csv", "The points that were found, with the scores you gave."},
	{"holds-csv", "holds.csv", "How each point was pressed, how long, and what came of it."},
	{"ranges-csv", "ranges.csv", "How far you moved, before and after treatment."},
	{"body-svg", "body.svg", "The points of the latest visit on a drawing of the body; opens in a browser."},
}

func (s *server) fillAccess(ctx context.Context, tx *store.Tx, a exchange.Archive, f *accessZip) error {
	states := statesOf(a)
	notes, err := s.signedNotes(ctx, tx, a, states)
	if err != nil {
		return err
	}
	raw, err := fhirr4.Write(a, states, notes)
	if err != nil {
		return err
	}
	f.add("record.fhir.json", "Your record in FHIR R4, which other health programs read.", raw)
	for _, x := range accessTables {
		for _, format := range formats {
			if format.name == x.format {
				if raw, err = format.write(a, states); err != nil {
					return err
				}
				f.add(x.name, x.what, raw)
			}
		}
	}
	if err := s.pagesOf(ctx, tx, a, states, f); err != nil {
		return err
	}
	for _, p := range a.Photos {
		raw, err := base64.StdEncoding.DecodeString(p.JPEG)
		if err != nil {
			return err
		}
		what := "Photograph, " + p.View + "."
		if p.Removed {
			what = "Photograph, " + p.View + ", which was taken out of the record's view."
		}
		f.add(fmt.Sprintf("photographs/%s-%s.jpg", p.View, p.ID), what, raw)
	}
	return f.err
}

// pagesOf are the printed pages: progress, and the note of each visit that was opened.
func (s *server) pagesOf(
	ctx context.Context, tx *store.Tx, a exchange.Archive, states map[visit.UUID]visit.State, f *accessZip,
) error {
	for _, c := range a.Clients {
		raw, err := s.progressPage(ctx, tx, uuid.MustParse(string(c.ID)))
		if err != nil {
			return err
		}
		f.add("progress.pdf", "Your course on one page, for reading.", raw)
	}
	for _, v := range a.Visits {
		if states[v.ID].OpenedMS == 0 {
			continue
		}
		open, err := s.readVisit(ctx, tx, uuid.MustParse(string(v.ID)))
		if err != nil {
			return err
		}
		day := v.Starts().In(f.zone).Format("2006-01-02-1504")
		for _, page := range []struct {
			name, what string
			print      func(context.Context, *store.Tx, OpenVisit) ([]byte, error)
			there      bool
		}{
			{"note", "Note of the visit", s.printNote, true},
			{"aftercare", "What you took home from it", s.printAftercare, open.State.ClosedMS > 0},
			{
				"incident", "What went wrong at it, as it was written down", s.printIncident,
				len(open.State.Incidents) > 0,
			},
			{"letter", "The letter to whom you were sent", s.printLetter, len(open.State.Letters) > 0},
		} {
			if !page.there {
				continue
			}
			raw, err := page.print(ctx, tx, open)
			if err != nil {
				return err
			}
			f.add("visits/"+day+"-"+page.name+".pdf", page.what+".", raw)
		}
	}
	return f.err
}

// accessIndex explains the zip to whoever opens it.
func accessIndex(practice string, f accessZip) string {
	return strings.ReplaceAll("What "+practice+" keeps about you\n"+
		"Made "+f.made.In(f.zone).Format("2 January 2006, 15:04 MST")+".\n\n"+
		"Begin with progress.pdf and the notes in the folder visits. The other files hold the same for programs.\n"+
		"Times in the tables and in the FHIR file are in UTC; lengths are in cm, angles in degrees, scores run "+
		"from 0 to 10.\n\n"+
		strings.Join(f.lines, "\n")+"\n\n"+
		"If something is wrong or missing, ask the practice: you can have it corrected.\n", "\n", "\r\n")
}
