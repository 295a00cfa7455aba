package exchange_test

import (
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/visit"
	"mokren/exchange"
)

// texts gives the text of every element of a name in a document that must be well
// formed.
func texts(t *testing.T, doc []byte, name string) []string {
	t.Helper()
	var out []string
	d := xml.NewDecoder(strings.NewReader(string(doc)))
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			return out
		}
		require.NoError(t, err)
		start, ok := token.(xml.StartElement)
		if !ok || start.Name.Local != name {
			continue
		}
		var text string
		require.NoError(t, d.DecodeElement(&text, &start))
		out = append(out, text)
	}
}

func charted(view body.View, number float64, grade int) visit.Point {
	var p visit.Point
	p.Muscle, p.Side, p.View = "soleus", "left", view
	p.X, p.Y, p.NPRS, p.Grade = 100, 200, &number, &grade
	return p
}

func TestBodyMapShowsTheLatestPoints(t *testing.T) {
	a := exchange.Archive{Visits: []exchange.ArchiveVisit{
		{ID: "3", StartsAt: "2026-03-03T09:00:00Z"},
		{ID: "2", StartsAt: "2026-02-02T09:00:00Z"},
		{ID: "1", StartsAt: "2026-01-01T09:00:00Z"},
	}}
	states := map[visit.UUID]visit.State{
		"1": {Points: []visit.Point{charted(body.Front, 8, 4)}},
		"2": {Points: []visit.Point{charted(body.Back, 6, 3), charted(body.Back, 4.5, 1)}},
	}
	doc, err := exchange.WriteBodyMap(a, states)
	require.NoError(t, err)
	titles := texts(t, doc, "title")
	assert.Contains(t, titles, "Soleus, left: 6 of 10, tenderness 3 of 4")
	assert.Contains(t, titles, "Soleus, left: 4.5 of 10, tenderness 1 of 4")
	assert.NotContains(t, string(doc), "8 of 10", "an earlier visit's")
	assert.Equal(t, []string{"6", "4.5", "Full: active. Larger: more tender. Number: pain at test pressure, of " +
		"10."}, texts(t, doc, "text"))
}

func TestBodyMapOfNothingIsAnEmptyBody(t *testing.T) {
	doc, err := exchange.WriteBodyMap(exchange.Archive{}, nil)
	require.NoError(t, err)
	assert.Equal(t, []string{""}, texts(t, doc, "text"))
}
