package bench

import (
	"fmt"
	"slices"
	"sync"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// ClientCase is one simulated client with what is true of them.
type ClientCase struct {
	ID    string `json:"id" maxLength:"60"`
	Title string `json:"title" maxLength:"120"`
	Goal  string `json:"goal" maxLength:"200" doc:"what it teaches"`
	Level int    `json:"level" minimum:"1" maximum:"3"`
	// Behaviour: brave says too little, anxious too much, pleasing agrees with a leading question.
	Behaviour string `json:"behaviour" enum:"plain,brave,anxious,pleasing"`
	Story     string `json:"story" maxLength:"1000" doc:"in the client's words"`
	// Best is what a good therapist does.
	Best     string       `json:"best" enum:"treat,nothing,refer"`
	Protocol ids.Protocol `json:"protocol,omitempty" doc:"that suits it best, of one that is treated"`
	// Pain is what the drawing shows.
	Pain  []assess.Pain `json:"pain" maxItems:"20"`
	Truth CaseTruth     `json:"truth"`
	// Yes are the questions of the screening that are true of the client.
	Yes []ids.Question `json:"yes" maxItems:"20"`
}

// CaseTruth is what hands and tests would find.
type CaseTruth struct {
	Points []TruePoint `json:"points" maxItems:"10"`
	Ranges []LostRange `json:"ranges" maxItems:"20"`
	Near   []NearTruth `json:"near" maxItems:"10"`
}

// TruePoint is a point of the case.
type TruePoint struct {
	Muscle     ids.Muscle   `json:"muscle"`
	Side       ids.Side     `json:"side"`
	Fibre      int          `json:"fibre,omitempty" minimum:"0" maximum:"20" doc:"index of the muscle's part"`
	AlongPct   float64      `json:"along_pct" minimum:"0" maximum:"100"`
	AcrossMM   float64      `json:"across_mm" minimum:"-60" maximum:"60"`
	DepthMM    int          `json:"depth_mm" minimum:"1" maximum:"80"`
	BandMM     int          `json:"band_mm" minimum:"4" maximum:"10" doc:"width"`
	NoduleMM   int          `json:"nodule_mm" minimum:"0" maximum:"12"`
	Tenderness int          `json:"tenderness" minimum:"0" maximum:"4"`
	Response   string       `json:"response" enum:"quick,slow,needs-slack,hyperirritable,stubborn,sham"`
	TwitchPct  *int         `json:"twitch_pct,omitempty" minimum:"0" maximum:"100" doc:"by the response where absent"`
	Referral   []ids.Region `json:"referral,omitempty" maxItems:"10"`
	Familiar   bool         `json:"familiar"`
}

// primary tells that treating it is what helps.
func (p TruePoint) primary() bool { return p.Response != "sham" && p.Response != "stubborn" }

// LostRange is a movement that is short, by so much.
type LostRange struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	LostDeg  float64      `json:"lost_deg" minimum:"1" maximum:"90" doc:"mm for jaw.opening"`
}

// NearTruth is a structure beside the truth.
type NearTruth struct {
	Structure ids.Structure `json:"structure"`
	MM        int           `json:"mm" minimum:"0" maximum:"60"`
}

// Check implements decode.Checker: names are the core's own, and the truth fits what is best.
func (c ClientCase) Check() *decode.Error {
	treated := slices.ContainsFunc(c.Truth.Points, TruePoint.primary)
	red := slices.ContainsFunc(c.Yes, isRed)
	switch {
	case c.Best == "treat" && !treated:
		return &decode.Error{
			Path: "$.truth.points", Given: "no point that helps",
			Allowed: "one, where the best is to treat",
		}
	case c.Best != "treat" && treated:
		return &decode.Error{Path: "$.best", Given: c.Best, Allowed: "treat, where a point would help"}
	case (c.Best == "refer") != red:
		return &decode.Error{
			Path: "$.yes", Given: fmt.Sprint(c.Yes),
			Allowed: "a red flag, and only where the best is to refer",
		}
	}
	for i, p := range c.Truth.Points {
		if e := atlas.Pressable(p.Muscle, fmt.Sprintf("$.truth.points[%d].muscle", i)); e != nil {
			return e
		}
	}
	for i, q := range c.Yes {
		if _, known := questions()[q]; !known {
			return &decode.Error{
				Path: fmt.Sprintf("$.yes[%d]", i), Given: string(q),
				Allowed: "a question of the screening",
			}
		}
	}
	return nil
}

var questions = sync.OnceValue(func() map[ids.Question]safety.Question {
	out := map[ids.Question]safety.Question{}
	for _, q := range safety.Questions() {
		out[q.ID] = q
	}
	return out
})

// isRed tells that a yes means nobody presses before somebody else has looked.
func isRed(q ids.Question) bool {
	o := questions()[q].Outcome
	return o == safety.Emergency || o == safety.ReferFirst
}

var shipped = sync.OnceValue(func() []ClientCase {
	out := make([]ClientCase, len(files))
	for i, f := range files {
		if err := decode.JSON([]byte(f), &out[i]); err != nil {
			panic(fmt.Sprintf("bench: case %d: %v", i, err))
		}
	}
	return out
})

// Cases are the shipped ones; do not alter the list.
func Cases() []ClientCase { return shipped() }

// IDs names them, in their order.
func IDs() []string {
	out := make([]string, 0, len(files))
	for _, c := range shipped() {
		out = append(out, c.ID)
	}
	return out
}
