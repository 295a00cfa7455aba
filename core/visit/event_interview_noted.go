package visit

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/rights"
)

var interviewNoted = kind{
	name: "interview-noted",
	body: func() Body { return new(InterviewNoted) },
	by:   rights.Role.Clinical,
}

// InterviewNoted is the client's story, in their words and numbers.
type InterviewNoted struct {
	// Complaint in the client's own words.
	Complaint string `json:"complaint,omitempty" maxLength:"2000"`
	// Now, Worst and Best are scores from 0 to 10; nil was not asked.
	Now   *float64 `json:"now,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Worst *float64 `json:"worst,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Best  *float64 `json:"best,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	// Since when it hurts, as the client says it.
	Since   string `json:"since,omitempty" maxLength:"300"`
	Pattern string `json:"pattern,omitempty" maxLength:"500" doc:"over the day"`
	// Eases and Worsens are what the client has noticed.
	Eases   string `json:"eases,omitempty" maxLength:"500"`
	Worsens string `json:"worsens,omitempty" maxLength:"500"`
	// Medication as it is taken; it can set off nothing by itself, the screening asks.
	Medication string `json:"medication,omitempty" maxLength:"1000"`
	Treatment  string `json:"earlier_treatment,omitempty" maxLength:"1000" doc:"what was done about it before, and what it brought"`
	// Activities that the client wants to return to, each with a score of its own.
	Activities []Activity `json:"activities,omitempty" maxItems:"3"`
}

// ClientStory is the story as the client tells it on an own device, with the loads.
type ClientStory struct {
	InterviewNoted
	Loads []ids.Load `json:"loads,omitempty" maxItems:"50"`
}

// Activity that the client wants back, 0 cannot to 10 as before (the
// patient-specific functional scale, Stratford et al. 1995).
type Activity struct {
	Name  string `json:"name" maxLength:"200"`
	Score int    `json:"score" minimum:"0" maximum:"10"`
}

// Check implements decode.Checker: best is not above worst.
func (i InterviewNoted) Check() *decode.Error {
	if i.Best != nil && i.Worst != nil && *i.Best > *i.Worst {
		return &decode.Error{
			Path: "$.best", Given: fmt.Sprint(*i.Best),
			Allowed: fmt.Sprintf("at most the worst, %v", *i.Worst),
		}
	}
	return nil
}

func (i *InterviewNoted) sets(Event) []thing { return []thing{{"interview", "interview"}} }

// apply replaces the whole story: the page sends it whole, so that two editors see a conflict.
func (i *InterviewNoted) apply(r *reducer, _ Event) error {
	r.state.Interview = i
	return nil
}

func (i *InterviewNoted) timeline() string { return "Story noted" }
