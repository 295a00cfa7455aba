package visit

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/plan"
	"mokren/core/points"
	"mokren/core/progress"
	"mokren/core/safety"
)

// Working is what a visit's state, read beside the client's earlier spots, comes
// to: every point judged and given a protocol, and what is still to be searched.
type Working struct {
	Points []PointWork  `json:"points" doc:"in the order of the state's points"`
	Search []SearchItem `json:"search" doc:"in the order in which the client turns least"`
	Led    []Guidance   `json:"led" doc:"stiff shoulders, each with its order"`
}

// PointWork is a point judged, with what may be done there.
type PointWork struct {
	Point  UUID             `json:"point"`
	Judged points.Judgement `json:"judged" doc:"as computed"`
	// Certainty, Activity and Role are those that count: by hand, else computed.
	Certainty points.Certainty `json:"certainty" enum:"trigger-point,possible,tender-spot"`
	Activity  points.Activity  `json:"activity" enum:"active,latent,none"`
	Role      string           `json:"role" enum:"primary,satellite,functional"`
	// Of is the point that a satellite or functional point depends on.
	Of UUID `json:"of,omitempty"`
	// Suggested is by the rules alone, also where something else was chosen.
	Suggested points.Suggestion `json:"suggested"`
	// Taken is the protocol chosen by hand with what the safety rules say to it.
	Taken *points.Suggestion `json:"taken,omitempty"`
	// NotOffered are the protocols that would be refused at this point.
	NotOffered []points.NotHere `json:"not_offered"`
	// Perhaps are spots of earlier visits just beyond the tolerance.
	Perhaps []FoundPoint `json:"perhaps"`
	// Own is where this client has felt it before, from the second time on.
	Own []safety.Place `json:"own_referral"`
}

// SearchItem is a muscle of the search with what came of it.
type SearchItem struct {
	plan.SearchStop
	Name   string `json:"name"`
	Result string `json:"result,omitempty" enum:"found,nothing,not-reachable"`
}

// searchedAtMost so many muscles are on the list: those above the line, then the
// likeliest next.
const searchedAtMost = 12

// Work reads a state: it judges each point beside the others, and asks for a protocol twice:
// what the rules would suggest, and what they say to the one that the therapist has chosen.
// earlier are the client's spots of other visits, suspects the ranking's.
func (s State) Work(ctx Context, earlier []FoundPoint, suspects []assess.Suspect) Working {
	list := s.judging(earlier)
	judged := points.Judge(list, s.painful(ctx))
	out := Working{Points: make([]PointWork, len(s.Points)), Search: s.search(suspects), Led: s.leads(ctx)}
	first := slices.ContainsFunc(s.Screening.Rules, func(a safety.AppliedRule) bool { return a.ID == "first-visit" })
	for i, p := range s.Points {
		before := spotOf(earlier, p.Identity)
		w := PointWork{
			Point: p.Point, Judged: judged[i], Perhaps: perhaps(earlier, p, ctx.height()), Own: list[i].Own,
		}
		if w.Own == nil {
			w.Own = []safety.Place{}
		}
		w.count(p.ByHand)
		r := points.Request{
			Point: list[i], FirstVisit: first, Screening: s.Screening, BellyTouchable: true, Default: ctx.Protocol,
			// What the screening forbids is not forbidden where no block stands.
			Overridden: p.Blocked == "",
		}
		if before != nil {
			r.WorkedBefore = before.Worked
		}
		w.Suggested = points.Suggest(r)
		w.NotOffered = []points.NotHere{}
		if !w.Suggested.Blocked {
			w.NotOffered = points.NotOffered(r)
		}
		if p.Chosen != "" {
			r.Instead = p.Chosen
			taken := points.Suggest(r)
			w.Taken = &taken
		}
		out.Points[i] = w
	}
	return out
}

// count puts what was judged by hand over what was computed.
func (w *PointWork) count(byHand *JudgementMade) {
	w.Certainty, w.Activity = w.Judged.Certainty, w.Judged.Activity
	w.Role, w.Of = w.Judged.Roles[0].Role, UUID(w.Judged.Roles[0].Of)
	if byHand == nil {
		return
	}
	w.Certainty = points.Certainty(cmp.Or(byHand.Certainty, string(w.Certainty)))
	w.Activity = points.Activity(cmp.Or(byHand.Activity, string(w.Activity)))
	if byHand.Role != "" {
		w.Role, w.Of = byHand.Role, byHand.Of
	}
}

// Trace ranks where a point may come from.
func (s State) Trace(
	ctx Context, earlier []FoundPoint, suspects []assess.Suspect, point UUID,
) ([]points.Candidate, error) {
	search := points.Search{
		Point: string(point), Points: s.judging(earlier), Painful: s.painful(ctx), Screening: s.Screening,
	}
	for _, x := range suspects {
		search.Suspects = append(search.Suspects,
			points.SuspectedMuscle{Muscle: x.Muscle, Side: x.Side, Confidence: x.Confidence})
	}
	for _, x := range s.Searched {
		search.Searched = append(search.Searched, points.SearchedMuscle{Muscle: x.Muscle, Side: x.Side})
	}
	out, ok := points.Trace(search)
	if !ok {
		return nil, noPoint(point)
	}
	return out, nil
}

// judging gives the visit's points as they are judged. A spot that was there before is as old
// as its first charting, and new ones are as old as the visit's last: within one visit the
// order of charting says nothing about which point came first.
func (s State) judging(earlier []FoundPoint) []points.Point {
	out := make([]points.Point, len(s.Points))
	for i, p := range s.Points {
		q := points.Point{
			ID: string(p.Point), Muscle: p.Muscle, Side: p.Side, Site: p.Site, Band: p.Band, Grade: p.Grade,
			NPRS: p.NPRS, Painted: p.Painted, NoReferral: p.NoReferral, Familiar: p.Familiar, Twitch: p.Twitch,
			Where: p.Where,
		}
		if m, err := atlas.Get(p.Muscle); err == nil {
			if _, usual := m.Site(p.Site); !usual {
				q.Site = "" // a site of the practice's own has no pattern
			}
		}
		q.Referral, _ = p.answered()
		if p.Threshold != nil {
			q.PPT = &p.Threshold.KPa
		}
		if p.ThresholdOther != nil {
			q.Other = &p.ThresholdOther.KPa
		}
		found := float64(p.ChartedMS)
		if before := spotOf(earlier, p.Identity); before != nil {
			found = float64(cmp.Or(before.FirstMS, before.ChartedMS))
			q.Own = before.Own
		} else {
			found = lastCharted(s, found)
		}
		q.FoundAt = &found
		out[i] = q
	}
	return out
}

// lastCharted is when the visit's last point was charted: the new spots of one
// visit are found at one time.
func lastCharted(s State, found float64) float64 {
	for _, p := range s.Points {
		found = max(found, float64(p.ChartedMS))
	}
	return found
}

// onceIsChance: an answer counts as this client's own from the second time on.
const onceIsChance = 2

// OwnMap is where a client has felt a spot at two visits or more. It counts before the usual
// pattern, which is only what most people feel.
func OwnMap(answers []SpotAnswer) []safety.Place {
	times := map[safety.Place]int{}
	var out []safety.Place
	for _, a := range answers {
		for _, p := range a.Places {
			if times[p]++; times[p] == onceIsChance {
				out = append(out, p)
			}
		}
	}
	return out
}

// spotOf finds the spot of earlier visits that a point is, or nil.
func spotOf(earlier []FoundPoint, identity UUID) *FoundPoint {
	i := slices.IndexFunc(earlier, func(p FoundPoint) bool { return p.Identity == identity })
	if i < 0 {
		return nil
	}
	return &earlier[i]
}

// perhaps are the earlier spots that a new one may be, for the hand to say: those that lie just
// beyond what counts as the same spot by itself.
func perhaps(earlier []FoundPoint, p Point, heightCM float64) []FoundPoint {
	out := []FoundPoint{}
	m, err := atlas.Get(p.Muscle)
	if err != nil || spotOf(earlier, p.Identity) != nil {
		return out
	}
	for _, o := range earlier {
		if o.Muscle == p.Muscle && o.Side == p.Side && m.PerhapsSameSpot(o.Place, p.Place, p.Side, heightCM) {
			out = append(out, o)
		}
	}
	return out
}

// painful are the movements that hurt or are short, and those that pressing a point makes
// easier or harder. By them a muscle that works in such a movement becomes functional to
// another.
func (s State) painful(ctx Context) []points.Action {
	var out []points.Action
	for _, r := range s.Ranges {
		hurts := r.BeforePain != nil && *r.BeforePain > 0 || r.Felt == "pain" || r.Felt == "pinch"
		short := r.Before != nil && progress.Flag(r.Movement, *r.Before, s.otherSide(r), ctx.Age).Flagged
		if hurts || short {
			out = ids.With(out, points.Action{Movement: r.Movement, Side: r.Side})
		}
	}
	for _, p := range s.Points {
		if p.Moves != nil && p.Moves.Becomes != "same" {
			out = ids.With(out, points.Action{Movement: p.Moves.Movement, Side: p.Moves.Side})
		}
	}
	return out
}

// otherSide is the reading of the same movement on the other side, beside which a short one is
// flagged; nil where there is none.
func (s State) otherSide(r Range) *float64 {
	for _, o := range s.Ranges {
		if o.Movement == r.Movement && o.Side != r.Side && r.Side != ids.Midline && o.Side != ids.Midline {
			return o.Before
		}
	}
	return nil
}

// search lists the muscles to be searched, with what came of them: all that are above the line,
// and the likeliest others up to twelve. One in which a point is charted counts as found.
func (s State) search(suspects []assess.Suspect) []SearchItem {
	var wanted []plan.SearchTarget
	for _, x := range suspects {
		if x.Raised && !x.Blocked && (x.Ready || len(wanted) < searchedAtMost) {
			wanted = append(wanted,
				plan.SearchTarget{Muscle: x.Muscle, Side: x.Side, Confidence: x.Confidence, Ready: x.Ready})
		}
	}
	out := []SearchItem{}
	for _, x := range plan.SearchOrder(wanted, s.Screening.Limits.AvoidPositions) {
		item := SearchItem{SearchStop: x, Result: s.searched(x.Muscle, x.Side)}
		if m, err := atlas.Get(x.Muscle); err == nil {
			item.Name = m.Name
		}
		out = append(out, item)
	}
	return out
}

// searched is what came of a search. A charted point answers it, whatever was said before.
func (s State) searched(m ids.Muscle, side ids.Side) string {
	if slices.ContainsFunc(s.Points, func(p Point) bool { return p.Muscle == m && p.Side == side }) {
		return "found"
	}
	for _, x := range s.Searched {
		if x.Muscle == m && x.Side == side {
			return x.Result
		}
	}
	return ""
}

// sayName of a point, in words.
func sayName(p Point) string {
	name := string(p.Muscle)
	if m, err := atlas.Get(p.Muscle); err == nil {
		name = m.Name
	}
	return fmt.Sprintf("%s, %s", name, p.Side)
}
