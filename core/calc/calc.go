// Package calc is the door to the core: a name, a JSON document in, a JSON
// document out. The command line, the HTTP API and the browser all come
// through here, so they cannot differ.
//
//	out, err := calc.Run("change", []byte(`{"measure":"nprs","before":7,"after":4}`))
//
// Errors are *strict.Error and name the field by its JSON path.
package calc

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/strict"
)

// Calc is one named computation.
type Calc struct {
	Name    string
	Summary string
	Example string // a valid input
	Lines   bool   // JSON lines in and out instead of one document
	run     func(ctx context.Context, raw []byte) ([]byte, error)
}

var all = []Calc{
	{"atlas", "Muscles by name, region, action or position", `{"text":"trapezus"}`, false, typed(Atlas)},
	{
		"cells", "The cells of some regions in a view", `{"view":"back","regions":[{"region":"heel","side":"left"}]}`,
		false, typed(Cells),
	},
	{
		"change", "Is the change of a measure meaningful?", `{"measure":"nprs","before":7,"after":4}`, false,
		typed(Change),
	},
	{"coach", "Run the log of one hold", coachExample, true, coachLines},
	{
		"drawing", "Two pain drawings compared",
		`{"before":{"back":["back:-4,31","back:-4,32"]},"after":{"back":["back:-4,31"]},"height_cm":170}`, false,
		typed(Drawing),
	},
	{"evidence", "What each finding weighs, with its source", `{}`, false, typed(Evidence)},
	{"gauges", "Toe-touch, lunge, straight-leg raise and breathing: how they are taken", `{}`, false, typed(Gauges)},
	{"hurts", "Muscles whose usual referral covers a place", `{"view":"back","x":212,"y":150}`, false, typed(Hurts)},
	{
		"layers", "Everything that can be laid on a view", `{"view":"back","layers":["landmarks","structures"]}`, false,
		typed(Layers),
	},
	{
		"level", "Vertebral level at a landmark, or what lies beside one", `{"landmark":"iliac-crest"}`, false,
		typed(Level),
	},
	{"movements", "The movements with a reference range", `{}`, false, typed(Movements)},
	{
		"palpate", "How to find and confirm a muscle on this client",
		`{"muscle":"infraspinatus","side":"left","site":"upper-inner","height_cm":168}`, false, typed(Palpate),
	},
	{
		"photo", "Angles and offsets of a photograph, corrected for camera roll",
		`{"view":"left","plumb":[[400,50],[405,1150]],"landmarks":{"tragus":[380,180],"C7":[440,260]},"height_cm":170}`, false, typed(assess.MeasurePhoto),
	},
	{
		"place", "Where a place on a muscle's fibres lies on the figure",
		`{"muscle":"soleus","side":"left","place":{"fibre":0,"along_pct":55,"across_mm":0}}`, false, typed(Place),
	},
	{"questions", "The questions of the screening, with what a yes means", `{}`, false, typed(Questions)},
	{
		"range", "Is a range of motion reading short?",
		`{"movement":"cervical.rotation","active_deg":60,"other_side_deg":74,"age":44}`, false, typed(Range),
	},
	{
		"screen", "Judge the answers of a screening",
		`{"answers":[{"question":"anticoagulant","answer":"yes"},{"question":"fever","answer":"no"}]}`, false,
		typed(Screen),
	},
	{"signs", "Where the signs of squat and toe-touch are touched on the figure", `{}`, false, typed(Signs)},
	{
		"slope", "The third value of a caliper-inclinometer reading", `{"distance_cm":34,"height_difference_cm":1.8}`,
		false, typed(SlopeOf),
	},
	{
		"steady", "Is an instrument's streamed reading steady enough to be taken?",
		`{"watch":{"mode":"range","share":0},"samples":[{"t_ms":0,"deg":0.1}]}`, false, typed(Steady),
	},
	{"suspects", "Muscles ranked by the evidence, with the next best tests", suspectsExample, false, typed(Suspects)},
	{"tests", "The tests that the evidence knows, with instructions", `{}`, false, typed(Tests)},
	{"thresholds", "Where each posture flag begins, with its source", `{}`, false, typed(Thresholds)},
	{
		"under", "Which muscles lie under a touched place", `{"view":"back","x":195,"y":770,"height_cm":170}`, false,
		typed(Under),
	},
}

const suspectsExample = `{"pain":[{"region":"heel","side":"left","intensity":7},{"region":"achilles","side":"left","intensity":5}],
"rom":[{"movement":"ankle.dorsiflexion-knee-bent","side":"left","active_deg":9,"felt":"pull","felt_region":"lower-calf"},{"movement":"ankle.dorsiflexion-knee-bent","side":"right","active_deg":20}],
"loads":["running"]}`

// List gives the computations in the order of their names.
func List() []Calc { return all }

// Find looks a computation up.
func Find(name string) (Calc, bool) {
	for _, c := range all {
		if c.Name == name {
			return c, true
		}
	}
	return Calc{}, false
}

// Run computes. The output ends with a newline.
func Run(name string, raw []byte) ([]byte, error) { return RunFor(context.Background(), name, raw) }

// RunFor computes for a caller who may leave: what takes long stops then.
func RunFor(ctx context.Context, name string, raw []byte) ([]byte, error) {
	c, ok := Find(name)
	if !ok {
		names := make([]string, len(all))
		for i := range all {
			names[i] = all[i].Name
		}
		return nil, &strict.Error{
			Path: "NAME", Given: fmt.Sprintf("%q", name),
			Allowed: "one of " + strings.Join(names, ", "),
		}
	}
	return c.run(ctx, raw)
}

func typed[In, Out any](f func(In) (Out, error)) func(context.Context, []byte) ([]byte, error) {
	return func(ctx context.Context, raw []byte) ([]byte, error) {
		var in In
		if err := strict.Decode(raw, &in); err != nil {
			return nil, err
		}
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		out, err := f(in)
		if err != nil {
			return nil, err
		}
		b, err := json.Marshal(out)
		return append(b, '\n'), err
	}
}

// ChangeIn asks about a pair or a series.
type ChangeIn struct {
	Measure ids.Measure        `json:"measure"`
	Before  *float64           `json:"before,omitempty"`
	After   *float64           `json:"after,omitempty"`
	Series  []progress.Reading `json:"series,omitempty" maxItems:"100000"`
}

// Change judges whether a change is meaningful.
func Change(in ChangeIn) (progress.Change, error) {
	if in.Series != nil {
		if in.Before != nil || in.After != nil {
			return progress.Change{}, &strict.Error{
				Path: "$.series", Given: "a series and a pair",
				Allowed: "before and after, or series",
			}
		}
		return progress.Series(in.Measure, in.Series)
	}
	for _, f := range []struct {
		path string
		v    *float64
	}{{"$.before", in.Before}, {"$.after", in.After}} {
		if f.v == nil {
			return progress.Change{}, &strict.Error{
				Path: f.path, Given: "nothing",
				Allowed: "a number (or give series)",
			}
		}
	}
	return progress.Pair(in.Measure, *in.Before, *in.After)
}

// RangeIn is one reading; without degrees it only asks for the reference.
type RangeIn struct {
	Movement  ids.Movement `json:"movement"`
	ActiveDeg *float64     `json:"active_deg,omitempty" minimum:"-90" maximum:"360"`
	OtherDeg  *float64     `json:"other_side_deg,omitempty" minimum:"-90" maximum:"360"`
	Age       int          `json:"age,omitempty" minimum:"0" maximum:"130" doc:"years; 0 or absent is unknown"`
}

// Range flags a short reading, with the reference and the reason.
func Range(in RangeIn) (progress.RangeFlag, error) {
	if _, ok := progress.Reference(in.Movement, in.Age); !ok {
		return progress.RangeFlag{}, &strict.Error{
			Path: "$.movement", Given: fmt.Sprintf("%q", in.Movement),
			Allowed: "a movement with a reference range",
		}
	}
	if in.ActiveDeg == nil {
		f := progress.Flag(in.Movement, 360, nil, in.Age)
		return f, nil
	}
	return progress.Flag(in.Movement, *in.ActiveDeg, in.OtherDeg, in.Age), nil
}
