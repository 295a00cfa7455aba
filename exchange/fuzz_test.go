package exchange_test

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"
	"time"

	"mokren/exchange"
)

// A file of any content is read or refused, and what was read without a problem is
// written and read again to the same.
func FuzzArchive(f *testing.F) {
	raw, err := exchange.WriteArchive(exchange.Archive{})
	if err != nil {
		f.Fatal(err)
	}
	f.Add(raw)
	f.Add([]byte(`{"format":"mokren-archive","version":1,"people":[],"clients":[{"id":"x"}],"visits":[],"photos":[]}`))
	f.Fuzz(func(t *testing.T, raw []byte) {
		a, report := exchange.ReadArchive(raw)
		if len(report.Problems) > 0 {
			return
		}
		once, err := exchange.WriteArchive(a)
		if err != nil {
			t.Fatal(err)
		}
		b, report := exchange.ReadArchive(once)
		if len(report.Problems) > 0 {
			t.Fatalf("what was written is refused: %v", report.Problems)
		}
		if twice, err := exchange.WriteArchive(b); err != nil || !bytes.Equal(once, twice) {
			t.Fatalf("written twice it differs: %q, %q, %v", once, twice, err)
		}
	})
}

// foreignFiles are seeds that tools of others have written.
func foreignFiles(f *testing.F, pattern string) {
	f.Helper()
	list, err := filepath.Glob(filepath.Join("testdata", "foreign", pattern))
	if err != nil || len(list) == 0 {
		f.Fatal("no file is there: ", pattern, err)
	}
	for _, name := range list {
		raw, err := os.ReadFile(name)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
}

func FuzzTables(f *testing.F) {
	foreignFiles(f, "clients*")
	f.Add([]byte("given_name,family_name,born_on\nAda,Quill,1980-02-03\n"))
	f.Add([]byte("client,date,measure,value\nAda Quill,2026-01-02,nprs,4\n"))
	f.Add([]byte("\xef\xbb\xbfa;b\n\"=1+1\";2\n"))
	f.Fuzz(func(_ *testing.T, raw []byte) {
		exchange.ReadClientsCSV(context.Background(), raw, exchange.Choices{Day: "dmy"})
		exchange.ReadReadingsCSV(context.Background(), raw, exchange.Choices{})
	})
}

func FuzzCards(f *testing.F) {
	foreignFiles(f, "*.vcf")
	f.Add([]byte("BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ada Quill\r\nN:Quill;Ada;;;\r\nEND:VCARD\r\n"))
	f.Fuzz(func(_ *testing.T, raw []byte) { exchange.ReadVCards(context.Background(), raw, exchange.Choices{}) })
}

func FuzzCalendar(f *testing.F) {
	foreignFiles(f, "*.ics")
	f.Add([]byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:20260101T090000Z\r\n" +
		"DURATION:PT1H\r\nSUMMARY:Ada Quill\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"))
	f.Fuzz(func(_ *testing.T, raw []byte) {
		exchange.ReadCalendar(context.Background(), raw, exchange.Choices{}, time.Unix(1_900_000_000, 0))
	})
}

// An upload is pixels or nothing.
func FuzzPhoto(f *testing.F) {
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewGray(image.Rect(0, 0, 60, 60))); err != nil {
		f.Fatal(err)
	}
	f.Add(b.Bytes())
	f.Fuzz(func(t *testing.T, raw []byte) {
		p, err := exchange.ReadPhoto(raw)
		if err != nil {
			return
		}
		if kind, _, err := image.DecodeConfig(bytes.NewReader(p.JPEG)); err != nil || kind.Width != p.Width {
			t.Fatalf("what was kept is not the picture: %v", err)
		}
	})
}
