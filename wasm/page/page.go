//go:build js && wasm

// Package page puts a module's door on the page: one function, text in and text out.
//
// Everything goes in and out as JSON text: one crossing, no shared memory. An answer is {"ok": …}, a
// refusal {"error": {"Path", "Given", "Allowed"}}.
package page

import (
	"encoding/json"
	"errors"
	"runtime/debug"
	"syscall/js"

	"mokren/core/decode"
)

// gcPercent: some 5 MB of a module stay, and an answer allocates little that lives on;
// at four times that a collection seldom falls into a frame.
const gcPercent = 400

// Serve puts {ask, …} under a name on the page, says that it is ready, and stays.
func Serve(name string, answer func(question string, raw []byte) (any, error), more map[string]any) {
	debug.SetGCPercent(gcPercent)
	door := map[string]any{
		"ask": js.FuncOf(func(_ js.Value, args []js.Value) any {
			return written(answer(args[0].String(), []byte(args[1].String())))
		}),
	}
	for k, v := range more {
		door[k] = v
	}
	js.Global().Set(name, door)
	if ready := js.Global().Get(name + "Ready"); ready.Type() == js.TypeFunction {
		ready.Invoke()
	}
	select {}
}

// written is an answer, or its refusal, as JSON.
func written(v any, err error) string {
	out := struct {
		OK    any           `json:"ok,omitempty"`
		Error *decode.Error `json:"error,omitempty"`
	}{OK: v}
	if err != nil {
		var e *decode.Error
		if !errors.As(err, &e) {
			e = &decode.Error{Path: "$", Given: "", Allowed: err.Error()}
		}
		out.OK, out.Error = nil, e
	}
	b, err := json.Marshal(out)
	if err != nil {
		return `{"error":{"Path":"$","Given":"","Allowed":"a result that can be written"}}`
	}
	return string(b)
}
