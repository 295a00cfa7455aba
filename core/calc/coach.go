package calc

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"reflect"
	"strconv"
	"strings"

	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

const coachExample = `{"t":0,"event":"start","protocol":"graded-stages","muscle":"gastrocnemius-medial","side":"left"}
{"t":4,"event":"contact"}
{"t":8,"event":"score","value":6}
{"t":18,"event":"score","value":5}
{"t":29,"event":"score","value":4}
{"t":34,"event":"score","value":6}
{"t":55,"event":"score","value":2}
{"t":59,"event":"release"}
{"t":80,"event":"tick"}`

// coach reads and writes JSON lines. It is made when it is asked for, so that a page's core,
// which never does, goes without it.
func coach() Calc {
	return Calc{
		Name: "coach", Summary: "Run the log of one hold", Example: coachExample, Lines: true,
		In: reflect.TypeFor[string](), Out: reflect.TypeFor[string](), run: coachLines,
	}
}

// CoachStartLine is the first line of a hold's log.
type CoachStartLine struct {
	T          json.Number  `json:"t"`
	Event      string       `json:"event" enum:"start"`
	Protocol   ids.Protocol `json:"protocol"`
	Target     *float64     `json:"target,omitempty" minimum:"0" maximum:"10"`
	Soft       *float64     `json:"soft_ceiling,omitempty" minimum:"0" maximum:"10"`
	Hard       *float64     `json:"hard_ceiling,omitempty" minimum:"0" maximum:"10"`
	CapSeconds *json.Number `json:"cap_seconds,omitempty"`
	Scale      *int         `json:"scale,omitempty"`
	Muscle     ids.Muscle   `json:"muscle,omitempty"`
	Side       ids.Side     `json:"side,omitempty"`

	ScoreSteers *bool              `json:"number_steers,omitempty"`
	MinGainDeg  *float64           `json:"min_gain_deg,omitempty" minimum:"0" maximum:"90"`
	Variant     string             `json:"variant,omitempty" enum:"reciprocal,small,imagined"`
	Stations    *int               `json:"stations,omitempty"`
	Places      *int               `json:"places,omitempty"`
	Moves       *int               `json:"moves,omitempty"`
	Numbers     map[string]float64 `json:"numbers,omitempty" doc:"a practice's own, by name, within their bounds"`
	Name        string             `json:"name,omitempty" doc:"what the practice calls its copy"`
	Source      string             `json:"source,omitempty"`
}

// CoachLine is one later line; value holds the score, the trend, the kind of
// sign, the regions or kPa.
type CoachLine struct {
	T     json.Number     `json:"t"`
	Event string          `json:"event"`
	Value json.RawMessage `json:"value,omitempty"`
	// Source is the device that it came from; undo takes back only its own.
	Source string `json:"source,omitempty"`
}

// milliseconds reads seconds with at most three decimals, exactly.
func milliseconds(n json.Number, path string) (int64, error) {
	refuse := &decode.Error{Path: path, Given: string(n), Allowed: "seconds from 0, at most 3 decimals"}
	whole, frac, _ := strings.Cut(string(n), ".")
	if strings.ContainsAny(string(n), "eE-+") || len(frac) > 3 || len(whole) > 9 {
		return 0, refuse
	}
	ms, err := strconv.ParseInt(whole+(frac + "000")[:3], 10, 64)
	if err != nil {
		return 0, refuse
	}
	return ms, nil
}

// ParseStart reads and resolves the first line, for a place that lies there.
func ParseStart(raw []byte, where []safety.Place) (treat.Start, error) {
	var in CoachStartLine
	if err := decode.JSON(raw, &in); err != nil {
		return treat.Start{}, err
	}
	return Resolve(in, where)
}

// Resolve resolves what a hold is asked for by, for a place that lies there.
func Resolve(in CoachStartLine, where []safety.Place) (treat.Start, error) {
	if ms, err := milliseconds(in.T, "$.t"); err != nil || ms != 0 {
		return treat.Start{}, &decode.Error{Path: "$.t", Given: string(in.T), Allowed: "0 for the start"}
	}
	r := holdRequest{treat.Request{
		Protocol: in.Protocol, Target: in.Target, Soft: in.Soft, Hard: in.Hard, Muscle: in.Muscle, Where: where,
		Side: in.Side, ScoreSteers: in.ScoreSteers, MinGainDeg: in.MinGainDeg, Variant: in.Variant,
		Stations: in.Stations, Places: in.Places, Moves: in.Moves, Numbers: in.Numbers, Name: in.Name,
	}}
	if in.Scale != nil {
		if *in.Scale != 10 && *in.Scale != 5 {
			return treat.Start{}, &decode.Error{Path: "$.scale", Given: fmt.Sprint(*in.Scale), Allowed: "10 or 5"}
		}
		r.Scale = *in.Scale
	}
	if in.CapSeconds != nil {
		ms, err := milliseconds(*in.CapSeconds, "$.cap_seconds")
		if err != nil {
			return treat.Start{}, &decode.Error{
				Path: "$.cap_seconds", Given: string(*in.CapSeconds),
				Allowed: "a number from 10 to 120, at most 3 decimals",
			}
		}
		r.CapMS = &ms
	}
	r.fromAtlas()
	return treat.NewStart(r.Request)
}

// holdRequest is a request whose absent numbers the atlas knows.
type holdRequest struct{ treat.Request }

const (
	stationCM     = 1.25 // from one station to the next
	limbGain      = 5.0  // degrees; a round that gains less is the last
	spineGain     = 7.0
	fewest, most  = 3, 12
	usualHeightCM = 170.0
)

// fromAtlas sets what depends on the muscle: how many stations its attachment
// has, and how many degrees count.
func (r *holdRequest) fromAtlas() {
	m, err := atlas.Get(r.Muscle)
	if err != nil {
		return
	}
	if r.Stations == nil {
		side := cmp.Or(r.Side, ids.Right)
		n := int(m.AttachmentCM(side, usualHeightCM) / stationCM)
		r.Stations = new(min(most, max(fewest, n)))
	}
	if r.MinGainDeg == nil {
		r.MinGainDeg = new(limbGain)
		if m.OfSpine() {
			r.MinGainDeg = new(spineGain)
		}
	}
}

// ParseEvent reads a later line on a scale.
func ParseEvent(raw []byte, scale int) (treat.Event, error) {
	var in CoachLine
	if err := decode.JSON(raw, &in); err != nil {
		// A start line in the middle is well-formed content in a place where
		// it makes no sense: recorded and ignored, not refused.
		var again CoachStartLine
		if decode.JSON(raw, &again) != nil {
			return treat.Event{}, err
		}
		in = CoachLine{T: again.T, Event: again.Event}
	}
	ms, err := milliseconds(in.T, "$.t")
	if err != nil {
		return treat.Event{}, err
	}
	e, err := treat.ParseEvent(ms, in.Event, in.Value, scale)
	e.Source = in.Source
	return e, err
}

// maxLines is far above any hold: 120 s of pressure and of a pad at 20 Hz are
// 5,000 lines.
const maxLines = 20_000

// coachLines reads all lines before it answers any.
func coachLines(gone Cancelled, raw []byte) ([]byte, error) {
	lines, err := splitLines(raw)
	if err != nil {
		return nil, err
	}
	start, err := ParseStart(lines[0].text, nil)
	if err != nil {
		return nil, lines[0].refused(err)
	}
	events, err := readLog(lines[1:], start.Scale)
	if err != nil {
		return nil, err
	}
	out, err := runLog(gone, start, events)
	if err != nil {
		return nil, err
	}
	return writeLines(out)
}

// numbered is a line of the input that is not empty, with its number from 1.
type numbered struct {
	text   []byte
	number int
}

// refused puts the line's number into a refusal.
func (l numbered) refused(err error) error {
	e, ok := err.(*decode.Error)
	if !ok {
		return err
	}
	return &decode.Error{Path: fmt.Sprintf("line %d: %s", l.number, e.Path), Given: e.Given, Allowed: e.Allowed}
}

// splitLines keeps the numbers of the lines that hold something, because errors name them.
func splitLines(raw []byte) ([]numbered, error) {
	var lines []numbered
	for i, l := range bytes.Split(raw, []byte("\n")) {
		if l = bytes.TrimSpace(l); len(l) > 0 {
			lines = append(lines, numbered{l, i + 1})
		}
	}
	switch {
	case len(lines) == 0:
		return nil, &decode.Error{Path: "line 1", Given: "nothing", Allowed: "a start event"}
	case len(lines) > maxLines:
		return nil, &decode.Error{
			Path: "line " + fmt.Sprint(maxLines+1), Given: fmt.Sprint(len(lines)) + " lines",
			Allowed: fmt.Sprintf("at most %d", maxLines),
		}
	}
	return lines, nil
}

// readLog reads what follows the start; time never goes back.
func readLog(lines []numbered, scale int) ([]treat.Event, error) {
	events := make([]treat.Event, 0, len(lines))
	last := int64(0)
	for _, l := range lines {
		e, err := ParseEvent(l.text, scale)
		if err == nil && e.At < last {
			err = &decode.Error{
				Path: "$.t", Given: fmt.Sprint(float64(e.At) / 1000),
				Allowed: fmt.Sprintf("a time from %v, never going back", float64(last)/1000),
			}
		}
		if err != nil {
			return nil, l.refused(err)
		}
		last = e.At
		events = append(events, e)
	}
	return events, nil
}

// runLog answers every event, the last one with the summary.
func runLog(gone Cancelled, start treat.Start, events []treat.Event) ([]treat.Line, error) {
	c := treat.NewCoach(start)
	out := []treat.Line{c.At(0)}
	for i, e := range events {
		if i%512 == 0 {
			if err := gone(); err != nil {
				return nil, err
			}
		}
		out = append(out, c.Apply(e))
	}
	sum := c.Summary()
	out[len(out)-1].Summary = &sum
	return out, nil
}

// writeLines writes one document a line, so that the reader can show each as it comes.
func writeLines(lines []treat.Line) ([]byte, error) {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	for _, l := range lines {
		if err := enc.Encode(l); err != nil {
			return nil, err
		}
	}
	return b.Bytes(), nil
}
