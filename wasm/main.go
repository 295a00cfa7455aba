//go:build js && wasm

// Command wasm is the core for the browser. It puts one object on the page:
//
//	mokrenCore.calc(name, json)                                -> what the computation gives
//	mokrenCore.reduce(contextJSON, eventsJSON)                 -> visit state
//	mokrenCore.begin(requestJSON, adaptationJSON, placesJSON)  -> {start, line}: a hold with its limits resolved
//	mokrenCore.hold(startJSON, logJSON, ms)                    -> {line, summary, due_ms}: a hold replayed and shown
//	                                                              at ms; due_ms is when the line changes by itself
//	mokrenCore.suspects(contextJSON, stateJSON, earlierJSON, weightsJSON, startsMS) -> ranking
//	mokrenCore.same(earlierJSON, muscle, side, placeJSON, heightCM)                 -> identity or ""
//	mokrenCore.work(contextJSON, stateJSON, earlierJSON, suspectsJSON)     -> points judged, protocols, search
//	mokrenCore.trace(contextJSON, stateJSON, earlierJSON, suspectsJSON, point)  -> where a point may come from
//	mokrenCore.plan(contextJSON, stateJSON, earlierJSON, wantedJSON, nowMS)  -> the session as it stands
//	mokrenCore.note(visitJSON)                                 -> the note as the core writes it
//	mokrenCore.rules                                           -> version of the coach's rules
//
// Everything goes in and out as JSON text: one crossing, no shared memory. An
// answer is {"ok": …}, a refusal {"error": {"Path", "Given", "Allowed"}}.
package main

import (
	"encoding/json"
	"errors"
	"runtime/debug"
	"syscall/js"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/calc"
	"mokren/core/ids"
	"mokren/core/note"
	"mokren/core/safety"
	"mokren/core/strict"
	"mokren/core/treat"
	"mokren/core/visit"
)

// gcPercent: some 5 MB of the core stay, and an answer allocates little that lives on;
// at four times that a collection seldom falls into a frame.
const gcPercent = 400

func main() {
	debug.SetGCPercent(gcPercent)
	js.Global().Set("mokrenCore", map[string]any{
		"calc": text(func(a []js.Value) (any, error) {
			b, err := calc.InBrowser(a[0].String(), []byte(a[1].String()))
			return json.RawMessage(b), err
		}),
		"reduce":   text(reduce),
		"begin":    text(begin),
		"after":    text(after),
		"hold":     text(hold),
		"suspects": text(suspects),
		"same":     text(same),
		"work":     text(work),
		"trace":    text(trace),
		"plan":     text(planned),
		"note":     text(written),
		"rules":    treat.RulesVersion,
	})
	if ready := js.Global().Get("mokrenCoreReady"); ready.Type() == js.TypeFunction {
		ready.Invoke()
	}
	select {}
}

// text wraps a function so that its answer, or its refusal, comes out as JSON.
func text(f func([]js.Value) (any, error)) js.Func {
	return js.FuncOf(func(_ js.Value, args []js.Value) (answer any) {
		out := struct {
			OK    any           `json:"ok,omitempty"`
			Error *strict.Error `json:"error,omitempty"`
		}{}
		v, err := f(args)
		if err != nil {
			var e *strict.Error
			if !errors.As(err, &e) {
				e = &strict.Error{Path: "$", Given: "", Allowed: err.Error()}
			}
			out.Error = e
		} else {
			out.OK = v
		}
		b, err := json.Marshal(out)
		if err != nil {
			return `{"error":{"Path":"$","Given":"","Allowed":"a result that can be written"}}`
		}
		return string(b)
	})
}

func reduce(a []js.Value) (any, error) {
	var ctx visit.Context
	var events []visit.Event
	if err := read(a, &ctx, &events); err != nil {
		return nil, err
	}
	return visit.Reduce(ctx, events), nil
}

// suspects ranks the muscles from a visit's state.
func suspects(a []js.Value) (any, error) {
	var ctx visit.Context
	var state visit.State
	var earlier []visit.FoundPoint
	var weights assess.Weights
	if err := read(a, &ctx, &state, &earlier, &weights); err != nil {
		return nil, err
	}
	return assess.Rank(state.Findings(ctx, earlier, int64(a[4].Float())), weights), nil
}

// read takes the first arguments as JSON.
func read(a []js.Value, into ...any) error {
	for i, dst := range into {
		if err := json.Unmarshal([]byte(a[i].String()), dst); err != nil {
			return err
		}
	}
	return nil
}

// sought is a visit's state as it is read beside earlier spots and suspects.
type sought struct {
	ctx      visit.Context
	state    visit.State
	earlier  []visit.FoundPoint
	suspects []assess.Suspect
}

func readSought(a []js.Value) (v sought, err error) {
	err = read(a, &v.ctx, &v.state, &v.earlier, &v.suspects)
	return v, err
}

func work(a []js.Value) (any, error) {
	v, err := readSought(a)
	if err != nil {
		return nil, err
	}
	return v.state.Work(v.ctx, v.earlier, v.suspects), nil
}

func trace(a []js.Value) (any, error) {
	v, err := readSought(a)
	if err != nil {
		return nil, err
	}
	return v.state.Trace(v.ctx, v.earlier, v.suspects, visit.UUID(a[4].String()))
}

// planned plans as accepted, or as wanted where that is not null.
func planned(a []js.Value) (any, error) {
	var ctx visit.Context
	var state visit.State
	var earlier []visit.FoundPoint
	var wanted *visit.PlanMade
	if err := read(a, &ctx, &state, &earlier, &wanted); err != nil {
		return nil, err
	}
	return state.Planning(ctx, earlier, state.Work(ctx, earlier, nil), wanted, int64(a[4].Float()))
}

// written is the note of a visit.
func written(a []js.Value) (any, error) {
	var v note.Visit
	if err := read(a, &v); err != nil {
		return nil, err
	}
	return note.Write(v), nil
}

// after is the aftercare sheet of a visit.
func after(a []js.Value) (any, error) {
	var state visit.State
	var earlier []visit.FoundPoint
	if err := read(a, &state, &earlier); err != nil {
		return nil, err
	}
	return state.Aftercare(earlier), nil
}

func begin(a []js.Value) (any, error) {
	var adapt safety.Adaptation
	var where []safety.Place
	if err := read(a[1:], &adapt, &where); err != nil {
		return nil, err
	}
	start, err := calc.ParseStart([]byte(a[0].String()), where)
	if err != nil {
		return nil, err
	}
	if start, err = start.Adapt(adapt, where); err != nil {
		return nil, err
	}
	return map[string]any{"start": start, "line": treat.NewCoach(start).At(0)}, nil
}

// hold replays the log from its start; a hold has a few dozen events, so a
// whole replay stays far below a frame and there is no state to get out of step.
func hold(a []js.Value) (any, error) {
	var start treat.Start
	if err := json.Unmarshal([]byte(a[0].String()), &start); err != nil {
		return nil, err
	}
	var log []visit.HoldHappened
	if err := json.Unmarshal([]byte(a[1].String()), &log); err != nil {
		return nil, err
	}
	events := make([]treat.Event, 0, len(log))
	for _, h := range log {
		e, err := treat.ParseEvent(h.AtMS, h.Event, h.Value, start.Scale)
		if err != nil {
			return nil, err
		}
		e.Source = h.Source
		events = append(events, e)
	}
	c, err := treat.Replayer(start)
	if err != nil {
		return nil, err
	}
	var last treat.Line
	for _, e := range treat.SortLate(events) {
		l := c.Apply(e)
		if e.Kind != treat.KindPressure { // an instrument's word is no answer to show
			last = l
		}
	}
	at := int64(a[2].Int())
	line := c.At(at)
	// What the last event answered (an ignored one, say) stays visible.
	if last.Ignored {
		line.Ignored, line.Reason = true, last.Reason
	}
	out := map[string]any{"line": line, "summary": c.Summary()}
	if due, ok := c.Due(at); ok {
		out["due_ms"] = due
	}
	return out, nil
}

func same(a []js.Value) (any, error) {
	var earlier []visit.FoundPoint
	if err := json.Unmarshal([]byte(a[0].String()), &earlier); err != nil {
		return nil, err
	}
	var place atlas.FibrePlace
	if err := json.Unmarshal([]byte(a[3].String()), &place); err != nil {
		return nil, err
	}
	return visit.SameSpotAs(earlier, ids.Muscle(a[1].String()), ids.Side(a[2].String()), place, a[4].Float()), nil
}
