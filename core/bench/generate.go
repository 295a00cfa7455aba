package bench

import (
	"fmt"
	"slices"
	"sync"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/wording"
)

// A treatable case is tried so often; the engine has to have its muscle among so many.
const (
	mostTries = 20
	among     = 3
	// A muscle that may not be held for so many ms, as on the front of the neck, is in no generated
	// case: its number could not be seen to fall.
	longEnough = 60_000
)

// Shares of generated cases, of a hundred, by level: to refer, and with nothing to be found.
var (
	referPct   = map[int]int{1: 10, 2: 15, 3: 20}
	nothingPct = map[int]int{1: 5, 2: 10, 3: 15}
)

// Generate makes a case of a seed and a level; the same two make the same case.
func Generate(seed int64, level int) ClientCase {
	d := newDice(seed, forCase)
	kind := d.below(100)
	switch {
	case kind < referPct[level]:
		return toRefer(seed, level, d)
	case kind < referPct[level]+nothingPct[level]:
		return withNothing(seed, level, d)
	}
	var c ClientCase
	for range mostTries {
		c = toTreat(seed, level, d)
		if rank := c.ranks(c.Findings(seed)); rank > 0 && rank <= among {
			return c
		}
	}
	return withNothing(seed, level, d)
}

var treatable = sync.OnceValue(func() []*atlas.Muscle {
	var out []*atlas.Muscle
	for _, m := range atlas.All() {
		start, err := treat.NewStart(treat.Request{Protocol: "hold-to-release", Muscle: m.ID, Side: ids.Left})
		if m.Kind == "muscle" && m.Usual != nil && err == nil && start.Limits.CapMS >= longEnough {
			out = append(out, m)
		}
	}
	return out
})

var responses = []string{"quick", "quick", "slow", "slow", "needs-slack", "hyperirritable"}

func (d dice) side() ids.Side { return []ids.Side{ids.Left, ids.Right}[d.below(2)] }

func (d dice) behaviour(level int) string {
	return []string{"plain", "brave", "anxious", "pleasing"}[d.below(1+level)]
}

func named(seed int64, level int) ClientCase {
	return ClientCase{
		ID: fmt.Sprintf("generated-%d-%d", level, seed), Title: "A new client", Level: level,
		Goal: "Find out what it is, and what to do", Yes: []ids.Question{},
		Truth: CaseTruth{Points: []TruePoint{}, Ranges: []LostRange{}, Near: []NearTruth{}},
	}
}

// toTreat has one point that helps, in a muscle's usual place, with its pattern and its lost ranges.
func toTreat(seed int64, level int, d dice) ClientCase {
	c := named(seed, level)
	m := treatable()[d.below(len(treatable()))]
	side := d.side()
	site := m.Sites[d.below(len(m.Sites))]
	c.Best, c.Protocol, c.Behaviour = "treat", m.Usual.Protocol, d.behaviour(level)
	c.Truth.Points = append(c.Truth.Points, TruePoint{
		Muscle: m.ID, Side: side, Fibre: site.Fibre, AlongPct: float64(int(site.AlongPct)),
		AcrossMM: float64(int(site.AcrossMM)),
		DepthMM:  5 + 7*m.Layer + d.below(6), BandMM: 4 + d.below(7), NoduleMM: 3 + d.below(6), Tenderness: 2 +
			d.below(3),
		Response: responses[d.below(len(responses))], Familiar: true,
	})
	c.suit()
	for _, r := range site.Essential {
		c.Pain = append(c.Pain, painAt(r, side, 4+d.below(4)))
	}
	for _, r := range site.Spillover {
		if d.chance(50) {
			c.Pain = append(c.Pain, painAt(r, side, 2+d.below(3)))
		}
	}
	for _, motion := range m.Restricts {
		on := sideOf(motion, side)
		if usual, known := progress.Reference(motion.Movement, 0); known && len(c.Truth.Ranges) < 1+d.below(2) {
			lost := max(8, int(usual)*(15+d.below(15))/100)
			c.Truth.Ranges = append(c.Truth.Ranges, LostRange{motion.Movement, on, float64(min(90, lost))})
		}
	}
	c.Story = "It hurts " + painWords(c.Pain) + ". It has been so for some weeks."
	return c
}

// suit gives a case the protocol that suits the way in which its point gives, rather than the one
// that the muscle usually has.
func (c *ClientCase) suit() {
	switch c.Truth.Points[0].Response {
	case "needs-slack":
		c.Protocol = "slack-hold"
	case "hyperirritable":
		c.Protocol = "hold-to-release"
	}
}

func painAt(r ids.Region, side ids.Side, intensity int) assess.Pain {
	if atlas.MidlineRegion(r) {
		side = ids.Midline
	}
	return assess.Pain{Region: r, Side: side, Intensity: float64(intensity)}
}

// onMidline are movements of the spine and jaw that have no side.
func onMidline(m ids.Movement) bool {
	switch m {
	case "cervical.flexion", "cervical.extension", "lumbar.flexion", "lumbar.extension", "jaw.opening", "jaw.closing":
		return true
	}
	return false
}

// sideOf is the side on which a movement is read that a muscle keeps back.
func sideOf(m atlas.Motion, own ids.Side) ids.Side {
	switch {
	case onMidline(m.Movement):
		return ids.Midline
	case m.Toward == "other" && own == ids.Left:
		return ids.Right
	case m.Toward == "other":
		return ids.Left
	}
	return own
}

func painWords(pain []assess.Pain) string {
	if len(pain) == 0 {
		return "a little everywhere"
	}
	most := pain[0]
	for _, p := range pain {
		if p.Intensity > most.Intensity {
			most = p
		}
	}
	return "most here: " + wording.OnSide(wording.Plain(most.Region), most.Side)
}

var redFlags = sync.OnceValue(func() []ids.Question {
	var out []ids.Question
	for _, q := range safety.Questions() {
		if isRed(q.ID) {
			out = append(out, q.ID)
		}
	}
	return out
})

// toRefer hurts as a muscle would, and has a red flag.
func toRefer(seed int64, level int, d dice) ClientCase {
	c := toTreat(seed, level, d)
	c.Truth.Points, c.Truth.Ranges = []TruePoint{}, []LostRange{}
	c.Best, c.Protocol = "refer", ""
	c.Yes = append(c.Yes, redFlags()[d.below(len(redFlags()))])
	return c
}

// withNothing has a little pain and no point that would help.
func withNothing(seed int64, level int, d dice) ClientCase {
	c := toTreat(seed, level, d)
	c.Best, c.Protocol = "nothing", ""
	c.Truth.Ranges = []LostRange{}
	for i := range c.Truth.Points {
		c.Truth.Points[i].Response, c.Truth.Points[i].Tenderness = "sham", 1
		c.Truth.Points[i].Familiar = false
	}
	for i := range c.Pain {
		c.Pain[i].Intensity = float64(1 + d.below(2))
	}
	c.Story = "It is sore " + painWords(c.Pain) + ". I did a lot of work with my hands last week."
	if slices.Contains([]string{"plain", "brave"}, c.Behaviour) && level > 1 {
		c.Behaviour = "pleasing"
	}
	return c
}
