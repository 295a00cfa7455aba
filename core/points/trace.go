package points

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// SuspectedMuscle is a muscle's confidence from the assessment.
type SuspectedMuscle struct {
	Muscle     ids.Muscle `json:"muscle"`
	Side       ids.Side   `json:"side"`
	Confidence float64    `json:"confidence" minimum:"0" maximum:"1"`
}

// SearchedMuscle is a muscle that was searched.
type SearchedMuscle struct {
	Muscle ids.Muscle `json:"muscle"`
	Side   ids.Side   `json:"side"`
}

// Search asks where a point may come from.
type Search struct {
	// Point is the id of the one that is traced.
	Point  string
	Points []Point
	// Painful are movements that hurt or are short; muscles that work in them count more.
	Painful []Action
	// Suspects bring what the findings say of each muscle.
	Suspects []SuspectedMuscle
	// Searched are muscles in which nothing was found: they count less.
	Searched  []SearchedMuscle
	Screening safety.Screening
}

// Candidate is where a point may come from.
type Candidate struct {
	Muscle  ids.Muscle `json:"muscle"`
	Name    string     `json:"name"`
	Side    ids.Side   `json:"side"`
	Score   float64    `json:"score" doc:"comparable within one answer"`
	Reasons []string   `json:"reasons"`
	Blocked bool       `json:"blocked"`
	Because string     `json:"blocked_because,omitempty"`
	Site    string     `json:"site,omitempty" doc:"where to press next"`
	Press   string     `json:"press,omitempty" doc:"where to press next, in words"`
}

// mostCandidates are returned.
const mostCandidates = 8

// How much each way of depending weighs before it is multiplied by what is
// known of the muscle (working values).
const (
	fromOwn       = 1.2  // this client's own pattern
	fromEssential = 1.0  // the usual pattern covers the spot
	fromSpillover = 0.5  // the spill-over does
	fromHelper    = 0.35 // works with the point's muscle
	fromOpponent  = 0.3  // works against it
	floor         = 0.15 // confidence when nothing is known
	wasSearched   = 0.25 // what was searched already counts a quarter
)

// Trace ranks the muscles from which a point may come; ok is false when the
// point is not among the points. Muscles that safety blocks are marked.
func Trace(s Search) (out []Candidate, ok bool) {
	i := slices.IndexFunc(s.Points, func(p Point) bool { return p.ID == s.Point })
	if i < 0 {
		return nil, false
	}
	p := s.Points[i]
	judged := Judge(s.Points, s.Painful)
	out = []Candidate{}
	own, err := atlas.Get(p.Muscle)
	if err != nil {
		return out, true
	}
	helps, opposes := own.Relations()
	for _, m := range atlas.All() {
		for _, side := range [2]ids.Side{ids.Left, ids.Right} {
			if m.Kind != "muscle" || m.ID == p.Muscle && sameSide(side, p.Side) {
				continue
			}
			c := Candidate{Muscle: m.ID, Name: m.Name, Side: side, Reasons: []string{}}
			s.weighReferral(&c, m, p)
			if sameSide(side, p.Side) {
				weighWork(&c, m, own, helps, opposes)
			}
			if c.Score == 0 {
				continue
			}
			s.weighKnown(&c, judged)
			c.aim(m, s.Screening)
			c.Score = math.Round(c.Score*1000) / 1000
			out = append(out, c)
		}
	}
	stable.Sort(out, func(a, b Candidate) int {
		return cmp.Or(cmp.Compare(b.Score, a.Score), cmp.Compare(a.Muscle, b.Muscle), cmp.Compare(a.Side, b.Side))
	})
	return out[:min(mostCandidates, len(out))], true
}

// weighReferral: some site of the muscle sends pain to where the point lies.
func (s Search) weighReferral(c *Candidate, m *atlas.Muscle, p Point) {
	where := p.where()
	best := 0.0
	for i := range m.Sites {
		site := &m.Sites[i]
		from := Point{Muscle: m.ID, Side: c.Side, Site: site.ID}
		switch {
		case covers(from.usual(false), where) && best < fromEssential:
			best, c.Site = fromEssential, site.ID
		case covers(from.usual(true), where) && best < fromSpillover:
			best, c.Site = fromSpillover, site.ID
		}
	}
	switch best {
	case fromEssential:
		c.Reasons = append(c.Reasons, "Its usual referral covers this spot.")
	case fromSpillover:
		c.Reasons = append(c.Reasons, "Its usual referral sometimes spreads to this spot.")
	}
	felt := slices.DeleteFunc(slices.Clone(s.Points), func(o Point) bool {
		return o.Muscle != m.ID || o.Side != c.Side || !covers(o.Own, where) && !covers(o.Referral, where)
	})
	if len(felt) > 0 {
		first := slices.MinFunc(felt, func(a, b Point) int { return cmp.Compare(a.ID, b.ID) })
		best, c.Site = fromOwn, cmp.Or(first.Site, c.Site)
		c.Reasons = append([]string{"In this client pressing it was felt here."}, c.Reasons...)
	}
	c.Score += best
}

// weighWork adds for muscles that work with or against the point's own, the more the stronger
// their part.
func weighWork(c *Candidate, m, own *atlas.Muscle, helps, opposes []ids.Muscle) {
	// The lists have the strongest first.
	rank := func(list []ids.Muscle) float64 {
		i := slices.Index(list, m.ID)
		if i < 0 {
			return 0
		}
		return 1 / (1 + float64(i)/4)
	}
	if r := rank(helps); r > 0 {
		c.Score += fromHelper * r
		c.Reasons = append(c.Reasons, "Works with "+own.Name+".")
	}
	if r := rank(opposes); r > 0 {
		c.Score += fromOpponent * r
		c.Reasons = append(c.Reasons, "Works against "+own.Name+".")
	}
}

// weighKnown multiplies by the assessment, by what is charted there, and by
// whether it was searched.
func (s Search) weighKnown(c *Candidate, judged []Judgement) {
	confidence := 0.0
	for _, x := range s.Suspects {
		if x.Muscle == c.Muscle && x.Side == c.Side {
			confidence = max(confidence, x.Confidence)
		}
	}
	c.Score *= floor + (1-floor)*confidence
	if confidence >= 0.2 {
		c.Reasons = append(c.Reasons, fmt.Sprintf("Confidence %.0f %% from the findings.", confidence*100))
	}
	if factor := s.weighCharted(c, judged); factor > 0 {
		c.Score *= factor
		return
	}
	if slices.Contains(s.Searched, SearchedMuscle{c.Muscle, c.Side}) {
		c.Score *= wasSearched
		c.Reasons = append(c.Reasons, "Searched already, nothing found.")
	}
}

// weighCharted is the factor of the strongest point charted in a muscle; 0 when
// none is.
func (s Search) weighCharted(c *Candidate, judged []Judgement) (strongest float64) {
	why := ""
	for i, o := range s.Points {
		if o.Muscle != c.Muscle || o.Side != c.Side {
			continue
		}
		factor, words := 1.0, ""
		switch judged[i].Activity {
		case Active:
			factor, words = 2, "An active point is charted there."
		case Latent:
			factor, words = 1.4, "A latent point is charted there."
		}
		if t, ok := o.tenderness(); ok {
			factor *= 1 + t/20
		}
		if factor > strongest {
			strongest, why = factor, words
		}
	}
	if why != "" {
		c.Reasons = append(c.Reasons, why)
	}
	return strongest
}

// aim says where to press next, and what safety says to it.
func (c *Candidate) aim(m *atlas.Muscle, s safety.Screening) {
	if site, ok := m.Site(c.Site); ok {
		c.Site, c.Press = site.ID, site.Name
	}
	where := (&Point{Muscle: m.ID, Side: c.Side, Site: c.Site}).where()
	c.Because, c.Blocked = s.Blocks(m.ID, where)
	if c.Blocked {
		c.Press = ""
	}
}
