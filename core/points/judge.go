package points

import (
	"fmt"

	"mokren/core/ids"
)

// Certainty of a point.
type Certainty string

// Two criteria of three make a trigger point (international consensus, 2018).
const (
	TriggerPoint Certainty = "trigger-point"
	Possible     Certainty = "possible"
	TenderSpot   Certainty = "tender-spot"
)

// Activity of a point.
type Activity string

// Active: pressing it gives the pain that the client came with.
const (
	Active Activity = "active"
	Latent Activity = "latent"
	None   Activity = "none"
)

// Judgement is what a point comes to, with its reasons.
type Judgement struct {
	ID        string    `json:"id"`
	Certainty Certainty `json:"certainty" enum:"trigger-point,possible,tender-spot"`
	Criteria  []string  `json:"criteria" doc:"those fulfilled: taut-band, hypersensitive, referred-pain"`
	Activity  Activity  `json:"activity" enum:"active,latent,none"`
	Roles     []Role    `json:"roles" doc:"strongest first"`
	Match     *float64  `json:"referral_match,omitempty" doc:"Dice overlap with the usual pattern, 0 to 1"`
	// Text is the judgement in words, with its reasons.
	Text string `json:"text"`
	// Unsaid lists missing answers that could change the result.
	Unsaid []string `json:"unsaid"`
}

// From where on a spot is hypersensitive: a grade, a number (working values of
// the consensus), or a pressure threshold 2 kgf/cm² below the other side's
// (Fischer 1987).
const (
	tenderGrade   = 2
	tenderScore   = 4.0
	thresholdDrop = 196.0 // kPa
)

// Judge judges every point beside the others, in their order. painful are the
// movements that hurt or are restricted.
func Judge(points []Point, painful []Action) []Judgement {
	out := make([]Judgement, len(points))
	all := make([]beside, len(points))
	var active []*beside
	for i := range points {
		out[i] = points[i].judge()
		all[i] = newBeside(&points[i], out[i].Activity == Active, painful)
		if out[i].Activity == Active {
			active = append(active, &all[i])
		}
	}
	for i := range points {
		out[i].Roles = roles(&all[i], active, painful)
	}
	return out
}

// judge says what one point is by itself.
func (p *Point) judge() Judgement {
	j := Judgement{ID: p.ID, Criteria: []string{}, Activity: None, Unsaid: p.unsaid()}
	if p.Band == "yes" {
		j.Criteria = append(j.Criteria, "taut-band")
	}
	if p.hypersensitive() {
		j.Criteria = append(j.Criteria, "hypersensitive")
	}
	if len(p.Referral) > 0 || len(p.Painted) > 0 {
		j.Criteria = append(j.Criteria, "referred-pain")
	}
	switch len(j.Criteria) {
	case 0:
		j.Certainty = TenderSpot
	case 1:
		j.Certainty = Possible
	default:
		j.Certainty = TriggerPoint
	}
	if j.Certainty == TriggerPoint {
		switch p.Familiar {
		case "yes", "partly":
			j.Activity = Active
		case "no":
			j.Activity = Latent
		}
	}
	if dice, ok := p.match(); ok {
		j.Match = &dice
	}
	j.Text = p.inWords(j)
	return j
}

// hypersensitive: any of the three tells it, for not every practice has an algometer.
func (p *Point) hypersensitive() bool {
	return p.Grade != nil && *p.Grade >= tenderGrade ||
		p.NPRS != nil && *p.NPRS >= tenderScore ||
		p.PPT != nil && p.Other != nil && *p.Other-*p.PPT >= thresholdDrop
}

// unsaid lists what would still change the result, so that the page can ask for it.
func (p *Point) unsaid() []string {
	out := []string{}
	if p.Band == "" || p.Band == "unsure" {
		out = append(out, "taut band")
	}
	if _, said := p.tenderness(); !said {
		out = append(out, "tenderness")
	}
	if len(p.Referral) == 0 && len(p.Painted) == 0 && !p.NoReferral {
		out = append(out, "referral")
	}
	if p.Familiar == "" || p.Familiar == "unknown" {
		out = append(out, "whether the pain is familiar")
	}
	return out
}

var criterionWords = map[string]string{
	"taut-band": "a taut band", "hypersensitive": "a hypersensitive spot", "referred-pain": "referred pain",
}

// inWords names the criteria that are fulfilled, and how many are needed.
func (p *Point) inWords(j Judgement) string {
	named := make([]string, len(j.Criteria))
	for i, c := range j.Criteria {
		named[i] = criterionWords[c]
	}
	text := ""
	switch j.Certainty {
	case TriggerPoint:
		text = fmt.Sprintf("Trigger point: %s; two of three are needed.", listed(named))
	case Possible:
		text = fmt.Sprintf("Possible: %s alone; a second of the three would make it a trigger point.", named[0])
	case TenderSpot:
		text = "Tender spot: none of taut band, hypersensitive spot and referred pain."
	}
	switch j.Activity {
	case Active:
		text += " Active: this is the pain the client came with."
		if p.Familiar == "partly" {
			text = text[:len(text)-1] + ", in part."
		}
	case Latent:
		text += " Latent: not the pain the client came with; overloaded, it can become active."
	}
	if p.Twitch != nil && *p.Twitch {
		text += " A twitch supports it."
	}
	if j.Match != nil {
		text += p.matchInWords(*j.Match)
	}
	return text
}

// Below this the answer is said to differ; patterns do vary.
const likeUsual = 0.4

// matchInWords compares the answer with the usual pattern and, where it differs, with what
// this client has said before.
func (p *Point) matchInWords(dice float64) string {
	if dice >= likeUsual {
		return fmt.Sprintf(" Referral as usual here (overlap %.0f %%).", dice*100)
	}
	if covers(p.Own, p.Referral) {
		return fmt.Sprintf(" Referral as before in this client, unlike the usual pattern (overlap %.0f %%).", dice*100)
	}
	return fmt.Sprintf(" Referral unlike the usual pattern (overlap %.0f %%): patterns vary from person to person.",
		dice*100)
}

// listed joins words as a sentence does.
func listed(words []string) string {
	out := ""
	for i, w := range words {
		switch {
		case i == 0:
			out = w
		case i == len(words)-1:
			out += " and " + w
		default:
			out += ", " + w
		}
	}
	return out
}

// name of a muscle on a side, in words.
func name(m ids.Muscle, side ids.Side) string { return muscleName(m) + ", " + string(side) }
