package plan

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// Step of a session.
type Step struct {
	Kind  string `json:"kind" enum:"recheck,warm-up,turn,treat,lengthen,close"`
	Point string `json:"point,omitempty"`
	// Position in which it is done; empty for what needs none.
	Position  ids.Position `json:"position,omitempty"`
	StartsMin float64      `json:"starts_min" doc:"from the session's beginning"`
	Minutes   float64      `json:"minutes"`
	// Broken names the order rules that this step breaks, in an order by hand.
	Broken []string `json:"broken,omitempty"`
}

// OmittedPoint is a point that is not in the plan, and why.
type OmittedPoint struct {
	Point  string `json:"point"`
	Reason string `json:"reason"`
	// Never: it cannot be put in by hand either.
	Never bool `json:"never,omitempty"`
}

// Plan of a session.
type Plan struct {
	// Steps in the order of the session, blocks and turns among them.
	Steps   []Step         `json:"steps"`
	LeftOut []OmittedPoint `json:"left_out"`
	// Worth of all points in it; comparable within one request.
	Worth float64 `json:"worth"`
	// Turns of the client, not counting how they lie at first.
	Turns   int     `json:"turns"`
	Minutes float64 `json:"minutes" doc:"of all steps"`
	// OverMin is by how much an order by hand does not fit.
	OverMin float64 `json:"over_min,omitempty"`
	// Notes say what did not fit, and why the order is as it is.
	Notes []string `json:"notes"`
}

// exactUpTo so many points the plan is the best there is; of more, those most
// worth by themselves are weighed.
const exactUpTo = 14

// Make plans the session, or what is left of it.
func Make(r Request) (Plan, error) {
	if e := r.Check(); e != nil {
		return Plan{}, e
	}
	s := safety.Screen(r.Answers)
	f := r.fix()
	p := problem{r: r, fixed: f, room: r.left() - f.sum(), most: mostPoints}
	if r.FirstVisit || slices.ContainsFunc(s.Rules, func(a safety.AppliedRule) bool { return a.ID == "first-visit" }) {
		p.most = mostAtFirst
	}
	p.most -= len(r.Done)
	p.all = r.candidates(s, f)
	for _, c := range p.all {
		if c.never == "" && !slices.ContainsFunc(r.Done, func(d TreatedPoint) bool { return d.Point == c.ID }) {
			p.open = append(p.open, c)
		}
	}
	notes := []string{}
	if len(p.open) > exactUpTo {
		notes = append(notes, fmt.Sprintf("%d points: only the %d most worth were weighed against each other.",
			len(p.open), exactUpTo))
		p.narrow()
	}
	p.prepare()
	var chosen route
	if len(r.Order) > 0 {
		chosen = p.byHand()
	} else {
		chosen = p.best()
	}
	out := p.lay(chosen)
	out.Notes = notes
	return out, nil
}

// narrow keeps the points most worth, those that must be treated first.
func (p *problem) narrow() {
	stable.Sort(p.open, func(a, b candidate) int {
		must := func(c candidate) int {
			if slices.Contains(p.r.Must, c.ID) {
				return 1
			}
			return 0
		}
		if d := must(b) - must(a); d != 0 {
			return d
		}
		switch {
		case a.worth > b.worth:
			return -1
		case a.worth < b.worth:
			return 1
		}
		return 0
	})
	p.open = p.open[:exactUpTo]
}

// lay puts a route between the fixed blocks.
func (p *problem) lay(chosen route) Plan {
	out := Plan{
		Steps: []Step{}, LeftOut: []OmittedPoint{}, Worth: p.worthOf(chosen.set()), Turns: chosen.turns,
	}
	at := p.r.GoneMin
	add := func(s Step) {
		if s.Minutes > 0 {
			s.StartsMin = at
			at += s.Minutes
			out.Steps = append(out.Steps, s)
		}
	}
	add(Step{Kind: "recheck", Minutes: p.fixed.recheck})
	add(Step{Kind: "warm-up", Minutes: p.fixed.warmUp})
	lying := p.r.Position
	for i, k := range chosen.order {
		c, position := p.open[k], chosen.lying[i]
		if lying != "" && position != lying {
			add(Step{Kind: "turn", Position: position, Minutes: turnMin})
		}
		lying = position
		add(Step{
			Kind: "treat", Point: c.ID, Position: position, Minutes: c.minutes, Broken: p.broken(chosen.order, i),
		})
	}
	add(Step{Kind: "lengthen", Minutes: p.fixed.lengthen})
	add(Step{Kind: "close", Minutes: p.fixed.close})
	out.Minutes = at - p.r.GoneMin
	if over := out.Minutes - p.r.left(); over > 1e-9 {
		out.OverMin = math.Round(over*10) / 10
	}
	p.leftOut(&out, chosen)
	return out
}

// leftOut says why each point is not in the plan.
func (p *problem) leftOut(out *Plan, chosen route) {
	set := chosen.set()
	for _, c := range p.all {
		if slices.ContainsFunc(p.r.Done, func(d TreatedPoint) bool { return d.Point == c.ID }) {
			continue
		}
		if c.never != "" {
			byHand := slices.Contains(p.r.Dropped, c.ID) || c.worth == 0
			out.LeftOut = append(out.LeftOut, OmittedPoint{c.ID, c.never, !byHand})
			continue
		}
		k := slices.IndexFunc(p.open, func(o candidate) bool { return o.ID == c.ID })
		switch {
		case k < 0:
			out.LeftOut = append(out.LeftOut, OmittedPoint{
				c.ID, "Worth less than the others that there were to weigh.", false,
			})
		case set&(1<<k) == 0:
			why, never := p.why(k, chosen)
			out.LeftOut = append(out.LeftOut, OmittedPoint{c.ID, why, never})
		}
	}
}

// why a point that could be treated is not: the dose, or the time.
func (p *problem) why(k int, chosen route) (reason string, never bool) {
	set := chosen.set()
	c := p.open[k]
	switch {
	case len(chosen.order) >= p.most:
		return fmt.Sprintf("At most %d points a session.", p.most+len(p.r.Done)), true
	case p.overDose(set | 1<<k):
		return "This region has had its six minutes, or this site its two treatments.", true
	case len(p.r.Order) > 0 && !slices.Contains(p.r.Order, c.ID):
		return "Not in the order set by hand.", false
	case len(p.r.Order) > 0:
		return "Both sides of the neck directly one after the other.", true
	case chosen.minutes+c.minutes <= p.room:
		return "Its order and turns do not fit with the points that are treated.", false
	}
	short := max(roundToMinutes, chosen.minutes+c.minutes-p.room)
	return fmt.Sprintf("No time: it takes %.4g more minutes.", short), false
}
