package exchange

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/sequence"
	"mokren/core/treat"
	"mokren/core/visit"
)

// ArchivePractice is what a practice has set over what was shipped.
type ArchivePractice struct {
	Weights    []ArchiveWeight    `json:"weights" maxItems:"1000"`
	Thresholds []ArchiveThreshold `json:"thresholds" maxItems:"1000"`
	Protocols  []ArchiveProtocol  `json:"protocols" maxItems:"1000"`
	// Sequences may be missing: an archive of an earlier version has none.
	Sequences []ArchiveSequence `json:"sequences,omitempty" maxItems:"1000"`
	Notes     []ArchiveNote     `json:"notes" maxItems:"1000"`
	Sites     []ArchiveSite     `json:"sites" maxItems:"10000"`
}

// Empty tells that everything is as it was shipped.
func (p ArchivePractice) Empty() bool {
	return len(p.Weights)+len(p.Thresholds)+len(p.Protocols)+len(p.Sequences)+len(p.Notes)+len(p.Sites) == 0
}

// ArchiveWeight is what a kind of finding weighs.
type ArchiveWeight struct {
	Evidence string       `json:"evidence" maxLength:"100"`
	Ratio    assess.Ratio `json:"ratio"`
}

// Check implements decode.Checker.
func (w ArchiveWeight) Check() *decode.Error {
	if slices.ContainsFunc(assess.Defaults(), func(e assess.Evidence) bool { return e.ID == w.Evidence }) {
		return nil
	}
	return &decode.Error{Path: "$.evidence", Given: fmt.Sprintf("%q", w.Evidence), Allowed: "a kind of finding"}
}

// ArchiveThreshold is from where on a posture reading is flagged.
type ArchiveThreshold struct {
	Threshold string  `json:"threshold" maxLength:"100"`
	Value     float64 `json:"value"`
}

// Check implements decode.Checker.
func (t ArchiveThreshold) Check() *decode.Error { return assess.CheckThreshold(t.Threshold, t.Value) }

// ArchiveProtocol is a practice's own copy of a protocol.
type ArchiveProtocol struct {
	ID  visit.UUID        `json:"id"`
	Own treat.OwnProtocol `json:"own"`
}

// ArchiveSequence is a sequence of the practice's own.
type ArchiveSequence struct {
	ID  visit.UUID           `json:"id"`
	Own sequence.OwnSequence `json:"own"`
}

// ArchiveNote is what a practice wrote about a muscle.
type ArchiveNote struct {
	Muscle ids.Muscle `json:"muscle"`
	Text   string     `json:"text" maxLength:"10000"`
}

// ArchiveSite is a practice's own site on a muscle.
type ArchiveSite struct {
	ID     visit.UUID       `json:"id"`
	Muscle ids.Muscle       `json:"muscle"`
	Name   string           `json:"name" maxLength:"120"`
	Figure string           `json:"figure" maxLength:"20" doc:"version in which it was placed"`
	Place  atlas.FibrePlace `json:"place"`
	Note   string           `json:"note,omitempty" maxLength:"2000"`
}

// Check implements decode.Checker.
func (s ArchiveSite) Check() *decode.Error {
	if blank(s.Name) {
		return &decode.Error{Path: "$.name", Given: fmt.Sprintf("%q", s.Name), Allowed: "a name"}
	}
	m, err := atlas.Get(s.Muscle)
	if err != nil {
		return s.Muscle.Check().Under("$.muscle")
	}
	if e := atlas.Pressable(s.Muscle, "$.muscle"); e != nil {
		return e
	}
	if s.Figure != atlas.Figure1 && s.Place.Fibre >= len(m.Parts) {
		return &decode.Error{
			Path: "$.place.fibre", Given: fmt.Sprint(s.Place.Fibre), Allowed: fmt.Sprintf("0 to %d", len(m.Parts)-1),
		}
	}
	return nil
}

// sort puts the parts in their one order, and lets lists be lists.
func (p *ArchivePractice) sort() {
	p.Weights, p.Thresholds, p.Protocols = orNone(p.Weights), orNone(p.Thresholds), orNone(p.Protocols)
	p.Notes, p.Sites = orNone(p.Notes), orNone(p.Sites)
	slices.SortFunc(p.Weights, func(a, b ArchiveWeight) int { return cmp.Compare(a.Evidence, b.Evidence) })
	slices.SortFunc(p.Thresholds, func(a, b ArchiveThreshold) int { return cmp.Compare(a.Threshold, b.Threshold) })
	slices.SortFunc(p.Protocols, func(a, b ArchiveProtocol) int { return cmp.Compare(a.ID, b.ID) })
	slices.SortFunc(p.Sequences, func(a, b ArchiveSequence) int { return cmp.Compare(a.ID, b.ID) })
	slices.SortFunc(p.Notes, func(a, b ArchiveNote) int { return cmp.Compare(a.Muscle, b.Muscle) })
	slices.SortFunc(p.Sites, func(a, b ArchiveSite) int { return cmp.Compare(a.ID, b.ID) })
}

// check looks whether everything is set once.
func (p ArchivePractice) check(r *Report) {
	const at = "practice."
	unique(r, at+"weights", p.Weights, "evidence", func(w ArchiveWeight) string { return w.Evidence })
	unique(r, at+"thresholds", p.Thresholds, "threshold", func(t ArchiveThreshold) string { return t.Threshold })
	unique(r, at+"protocols", p.Protocols, "id", func(o ArchiveProtocol) string { return string(o.ID) })
	unique(r, at+"protocols", p.Protocols, "own.name", func(o ArchiveProtocol) string { return o.Own.Name })
	unique(r, at+"sequences", p.Sequences, "id", func(o ArchiveSequence) string { return string(o.ID) })
	unique(r, at+"sequences", p.Sequences, "own.name", func(o ArchiveSequence) string { return o.Own.Name })
	unique(r, at+"notes", p.Notes, "muscle", func(n ArchiveNote) string { return string(n.Muscle) })
	unique(r, at+"sites", p.Sites, "id", func(s ArchiveSite) string { return string(s.ID) })
}
