package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
)

// A note is edited before and after the closing, signed once it is closed, and
// stands from then on; every version is kept.
func TestANoteIsSignedOnceAndThenOnlyAddedTo(t *testing.T) {
	text := func(s string) visit.NoteText { return visit.NoteText{Subjective: s} }
	sign := visit.NoteSigned{NoteText: text("signed"), Name: "T. Hart"}
	l := &log{}
	l.add("a", "visit-opened", 0, visit.VisitOpened{})
	l.add("a", "note-drafted", 0, visit.NoteDrafted{NoteText: text("first")})
	l.add("a", "note-signed", 0, sign)
	s := visit.Reduce(asked(), l.events)
	require.Nil(t, s.Signed, "an open visit can change under its note")
	require.Len(t, s.Rejected, 1)

	l.add("a", "visit-closed", 0, visit.VisitClosed{})
	l.add("a", "note-drafted", 0, visit.NoteDrafted{NoteText: text("second")})
	signed := l.add("a", "note-signed", 0, sign)
	l.add("a", "note-drafted", 0, visit.NoteDrafted{NoteText: text("too late")})
	l.add("a", "note-signed", 0, visit.NoteSigned{NoteText: text("again"), Name: "B"})
	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(signed.ID)})
	l.add("a", "addendum-written", 0, visit.Addendum{Text: "added"})
	s = visit.Reduce(asked(), l.events)
	require.NotNil(t, s.Signed)
	assert.Equal(t, "signed", s.Signed.Subjective)
	assert.Equal(t, "T. Hart", s.Signed.Name)
	assert.Equal(t, therapist, s.Signed.Author)
	require.Len(t, s.Drafts, 2, "both versions are kept")
	assert.Equal(t, "second", s.Drafts[1].Subjective)
	assert.Len(t, s.Rejected, 4)
	require.Len(t, s.Addenda, 1)
}

// A student's note asks for a licensed person's word, once; nobody else's does.
func TestAStudentsNoteIsCountersigned(t *testing.T) {
	counter := visit.NoteCountersigned{Name: "T. Hart"}
	for name, k := range map[string]struct {
		signs, counters string
		want            bool
	}{
		"a student's by a therapist":           {student, therapist, true},
		"a student's by the student":           {student, student, false},
		"a therapist's by a therapist":         {therapist, therapist, false},
		"one that is not signed, by therapist": {"", therapist, false},
	} {
		l := &log{}
		l.add("a", "visit-opened", 0, visit.VisitOpened{})
		l.add("a", "visit-closed", 0, visit.VisitClosed{})
		if k.signs != "" {
			l.write("a", k.signs, "note-signed", 0, visit.NoteSigned{Name: "S"})
		}
		l.write("b", k.counters, "note-countersigned", 0, counter)
		if k.want {
			l.add("a", "note-countersigned", 0, visit.NoteCountersigned{Name: "again"})
		}
		s := visit.Reduce(asked(), l.events)
		got := s.Signed != nil && s.Signed.Counter != nil
		assert.Equal(t, k.want, got, name)
		if k.want && got {
			assert.Equal(t, "T. Hart", s.Signed.Counter.Name)
			assert.True(t, s.Signed.ByStudent)
		}
	}
}
