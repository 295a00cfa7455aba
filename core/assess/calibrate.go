package assess

import (
	"cmp"
	"math"
	"strings"

	"mokren/core/progress"
	"mokren/core/stable"
)

// SearchTally is so many muscles that hands have searched, with what the list had
// said of them.
type SearchTally struct {
	Region     string
	Confidence float64
	Findings   []string // kinds of evidence that spoke for it
	Found      int      // trigger points
	InVain     int
}

// Calibration holds the list to its word.
type Calibration struct {
	Bands     []Band       `json:"bands" doc:"of all regions"`
	Regions   []RegionWord `json:"regions"`
	Proposals []Proposal   `json:"proposals"`
}

// Band is suspects of a like confidence: were as many found as it said?
type Band struct {
	From float64 `json:"from"`
	To   float64 `json:"to"`
	// Said is their mean confidence; Found is how many had a trigger point.
	Said  float64        `json:"said"`
	Found progress.Share `json:"found"`
	// Verdict is none where the interval holds what was said, or they are too few.
	Verdict string `json:"verdict" enum:"none,less-than-said,more-than-said"`
}

// RegionWord is a region's bands in one.
type RegionWord struct {
	Region string `json:"region"`
	Band
}

// Proposal is a finding that weighs too much or too little here, by its counts.
// Nothing is changed by it: a practice may take it over.
type Proposal struct {
	Evidence string `json:"evidence"`
	Name     string `json:"name"`
	Now      Ratio  `json:"now"`
	Proposed Ratio  `json:"proposed"`
	// Said and Found are those in which this finding spoke for the muscle.
	Said  float64        `json:"said"`
	Found progress.Share `json:"found"`
	Text  string         `json:"text"`
}

// Where the bands begin; below the first the list hardly says anything.
const (
	bandsFrom = 0.5
	bandWidth = 0.1
	// enough searches with a finding before its weight is questioned.
	enough = 20
	// closest and farthest that a proposal moves a ratio at once.
	mostStep = 2.0
)

// KindOf is the kind of evidence of a finding: "test:ober-type:left" is
// "length-test".
func KindOf(finding string) string {
	kind, rest, _ := strings.Cut(finding, ":")
	switch {
	case kind == "rom":
		return "restricted"
	case kind == "weak":
		return "weak-active"
	case kind == "sign":
		return "squat"
	case kind == "test" && strings.HasPrefix(rest, "resisted:"):
		return "contraction"
	case kind == "test":
		return "length-test"
	}
	return kind
}

// tally sums up searches.
type tally struct {
	said          float64
	found, inVain int
}

// add weighs a confidence by how many muscles it was said of, so that a band's mean is of
// muscles and not of visits.
func (t *tally) add(s SearchTally) {
	t.said += s.Confidence * float64(s.Found+s.InVain)
	t.found += s.Found
	t.inVain += s.InVain
}

func (t tally) of() int { return t.found + t.inVain }

// band compares what was said with what was found. The list is held to be wrong only where the
// interval of the share leaves no doubt.
func (t tally) band(from, to float64) Band {
	b := Band{From: from, To: to, Found: progress.ShareOf(t.found, t.of()), Verdict: "none"}
	if t.of() == 0 {
		return b
	}
	b.Said = t.said / float64(t.of())
	switch {
	case b.Found.Few:
	case b.Said > b.Found.High:
		b.Verdict = "less-than-said"
	case b.Said < b.Found.Low:
		b.Verdict = "more-than-said"
	}
	return b
}

// Calibrate compares what the list said with what hands have found.
func Calibrate(list []SearchTally, w Weights) Calibration {
	out := Calibration{Bands: []Band{}, Regions: []RegionWord{}, Proposals: []Proposal{}}
	const n = 5
	var bands [n]tally
	regions, kinds := map[string]*tally{}, map[string]*tally{}
	for _, s := range list {
		for _, k := range s.Findings {
			sum(kinds, k).add(s)
		}
		if s.Confidence < bandsFrom {
			continue
		}
		i := min(n-1, int((s.Confidence-bandsFrom)/bandWidth+1e-9))
		bands[i].add(s)
		sum(regions, s.Region).add(s)
	}
	for i, t := range bands {
		from := bandsFrom + float64(i)*bandWidth
		out.Bands = append(out.Bands, t.band(round2(from), round2(from+bandWidth)))
	}
	for r, t := range regions {
		out.Regions = append(out.Regions, RegionWord{r, t.band(bandsFrom, 1)})
	}
	stable.Sort(out.Regions, func(a, b RegionWord) int { return cmp.Compare(a.Region, b.Region) })
	for _, e := range evidence {
		if t := kinds[e.ID]; t != nil {
			if p, ok := propose(e, w.of(e.ID), *t); ok {
				out.Proposals = append(out.Proposals, p)
			}
		}
	}
	return out
}

// sum is the tally of a key, made when it is first asked for.
func sum(m map[string]*tally, key string) *tally {
	if m[key] == nil {
		m[key] = &tally{}
	}
	return m[key]
}

// propose moves a ratio by as much as the odds of what was found differ from
// those of what was said, within the bounds of a ratio and by half or double at
// most; only where the interval leaves out what was said.
func propose(e Evidence, now Ratio, t tally) (Proposal, bool) {
	b := t.band(0, 1)
	if t.of() < enough || b.Verdict == "none" {
		return Proposal{}, false
	}
	// A share of none or all has no odds: half a find either way.
	share := (float64(t.found) + 0.5) / (float64(t.of()) + 1)
	step := odds(share) / odds(b.Said)
	step = min(mostStep, max(1/mostStep, step))
	p := Proposal{Evidence: e.ID, Name: e.Name, Now: now, Proposed: now, Said: b.Said, Found: b.Found}
	p.Proposed.Plus = round2(min(50, max(1, now.Plus*step)))
	if p.Proposed.Plus == now.Plus {
		return Proposal{}, false
	}
	p.Text = "Where this spoke, fewer trigger points were found than the list said: it may weigh less here."
	if p.Proposed.Plus > now.Plus {
		p.Text = "Where this spoke, more trigger points were found than the list said: it may weigh more here."
	}
	return p, true
}

func odds(p float64) float64 { return p / (1 - p) }

func round2(v float64) float64 { return math.Round(v*100) / 100 }
