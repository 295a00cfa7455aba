package paper_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"golang.org/x/text/unicode/norm"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/visit"
	"mokren/exchange/paper"
)

var head = paper.Heading{
	Title: "Progress", Practice: paper.Practice{
		Name: "Alder Room", Address: "3 Mill Lane\nHollin", Telephone: "0155 0100 10", Hours: "Monday to Friday",
	}, Client: "Ødegård Ångström-Żółć", About: "born 1990-02-03",
	Made: time.Date(2031, 3, 4, 10, 20, 0, 0, time.UTC),
}

func p[T any](v T) *T { return &v }

func aHistory() visit.History {
	h := visit.History{Summed: visit.CourseSummary{Text: "Since the first visit: 1 of 1 point clearly better."}}
	var visits []visit.PointVisit
	for i, n := range []float64{7, 6, 4, 2.5} {
		visits = append(visits, visit.PointVisit{
			Date: []string{"2031-01-04", "2031-01-11", "2031-01-18", "2031-01-25"}[i], Before: &n, After: p(n - 1),
			Grade: p(3),
		})
	}
	h.Points = []visit.PointHistory{{
		Name: "Gastrocnemius, inner head with a long name", Side: ids.Left, View: "back", X: 190, Y: 780,
		Visits: visits,
		Number: &progress.Change{Delta: -4.5, Text: "clearly better"},
	}}
	h.Ranges = []visit.RangeHistory{{
		Movement: "cervical.rotation", Side: ids.Left, Reference: 80, FlagBelow: 68,
		Visits: []visit.RangeVisit{{Date: "2031-01-04", Before: p(55.0)}},
	}}
	h.Worked = progress.WhatWorked([]progress.TreatmentResult{{Protocol: "pulses", Before: 7, After: 4, PressedS: 60}})
	return h
}

// Every page is set, is a PDF with its fonts within, and says what it should.
func TestPagesAreSet(t *testing.T) {
	care := visit.Aftercare{
		Worked: []string{"Soleus, left"}, NotUsual: []string{"Numbness."}, Usual: []string{"Sore for a day."},
		Stretches: []visit.HomeStretch{
			{Name: "Soleus", Sides: []ids.Side{ids.Left}, Text: "Lean.", Repeats: 3, HoldS: 20},
		},
		Next: visit.NextVisit{FromDays: 3, ToDays: 7, Why: "Points are still active."},
	}
	text := visit.NoteText{
		Subjective: "Reason: calf.", Objective: strings.Repeat("Point, Soleus, left: number 7 of 10 → 3.\n", 90),
		Assessment: "Active trigger point.", Plan: "Again in 3 to 7 days.",
	}
	spots := []paper.Spot{{View: body.Back, X: 190, Y: 780, Number: 1, Grade: 3, Active: true}}
	letter := head
	letter.Letter = true
	for _, x := range []struct {
		name  string
		make  func() ([]byte, error)
		says  []string
		pages int
	}{
		{
			"note", func() ([]byte, error) {
				return paper.Note(paper.NotePage{
					Heading: head, Text: text, SignedBy: "T. Hart, 4 March 2031",
					Spots: spots,
					Points: []paper.PointRow{{
						Number: 1, Name: "Soleus, left (a place whose name needs more than one line of its column)",
						Before: "7", After: "3", Results: "released",
					}},
					Ranges: []paper.RangeRow{
						{Name: "Neck rotation, left", Before: "50°", After: "62°", Change: "better"},
					},
				})
			},
			[]string{
				"Before", "of its column)", "Neck rotation, left", "62°", "released", "Subjective", "7 of 10 → 3.",
				"Signed: T. Hart, 4 March 2031", "Ødegård Ångström-Żółć",
			},
			3,
		},
		{
			"draft", func() ([]byte, error) { return paper.Note(paper.NotePage{Heading: letter, Text: text}) },
			[]string{"Not signed"},
			3,
		},
		{"progress", func() ([]byte, error) {
			return paper.Report(paper.ReportPage{Heading: head, History: aHistory(), Visits: 4})
		}, []string{"1 of 1 point clearly better", "Neck rotation, left", "pulses", "too few to say more"}, 1},
		{
			"aftercare",
			func() ([]byte, error) { return paper.Aftercare(paper.AftercarePage{Heading: head, Care: care}) },
			[]string{"Numbness.", "hold 20 s each", "In 3 to 7 days"},
			1,
		},
		{
			"blank", func() ([]byte, error) { return paper.Blank(head) },
			[]string{"Movement", "Protocol", "Wants back"},
			3,
		},
	} {
		raw, err := x.make()
		require.NoError(t, err, x.name)
		again, err := x.make()
		require.NoError(t, err)
		assert.Equal(t, raw, again, "%s: the same data gives the same bytes", x.name)
		require.True(t, strings.HasPrefix(string(raw), "%PDF-"), x.name)
		assert.Contains(t, string(raw), "/FontFile2", "fonts are within")
		said, pages := read(t, raw)
		assert.GreaterOrEqual(t, pages, x.pages, x.name)
		for _, w := range x.says {
			assert.Contains(t, said, w, x.name)
		}
		if dir := os.Getenv("MOKREN_PAPER"); dir != "" {
			require.NoError(t, os.WriteFile(filepath.Join(dir, x.name+".pdf"), raw, 0o600))
		}
	}
}

// read gives a PDF's text as another program reads it, and its pages.
func read(t *testing.T, raw []byte) (string, int) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "x.pdf")
	require.NoError(t, os.WriteFile(file, raw, 0o600))
	out, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err, "pdftotext is needed: run `scripts/system pdftotext`")
	return string(out), strings.Count(string(out), "\f")
}

// A page of every script that is promised: each in order, joined, and of fonts within; a sign that
// no font has stands as its code.
func TestAPageOfManyScripts(t *testing.T) {
	h := head
	h.Title = "Zoë 😀 מרים كريم"
	raw, err := paper.Letter(paper.LetterPage{Heading: h, Letter: visit.Letter{
		To: "李娜 · 김민준 · さくら", Name: "Ελένη Жанна",
		Text: strings.Join([]string{
			"Hurts 😫, knee 90° (ok).", "שלום עולם 12 (בדיקה)",
			"ألم في الكتف الأيسر منذ 12 يومًا",
			"左肩疼痛，三天。" + strings.Repeat("疼", 90), "ไทย",
		}, "\n"),
	}})
	require.NoError(t, err)
	said, _ := read(t, raw)
	for _, w := range []string{
		"Zoë", "李娜", "김민준", "さくら", "Ελένη Жанна",
		"Hurts", "左肩疼痛", "[U+0E44]", "stands for a sign",
	} {
		assert.Contains(t, said, w)
	}
	// Letters as they are joined are compatible with those that were written.
	assert.Contains(t, norm.NFKC.String(said), "ألم في الكتف الأيسر")
	assert.Contains(t, said, "שלום עולם")
	if dir := os.Getenv("MOKREN_PAPER"); dir != "" {
		require.NoError(t, os.WriteFile(filepath.Join(dir, "scripts.pdf"), raw, 0o600))
	}
}
