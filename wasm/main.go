//go:build js && wasm

// Command wasm is the core for the browser. It puts one object on the page:
//
//	mokrenCore.ask(name, json) -> the answer to a question of core/bridge
//	mokrenCore.rules           -> version of the coach's rules
//
// Everything goes in and out as JSON text: one crossing, no shared memory. An
// answer is {"ok": …}, a refusal {"error": {"Path", "Given", "Allowed"}}.
package main

import (
	"encoding/json"
	"errors"
	"runtime/debug"
	"syscall/js"

	"mokren/core/bridge"
	"mokren/core/decode"
	"mokren/core/treat"
)

// gcPercent: some 5 MB of the core stay, and an answer allocates little that lives on;
// at four times that a collection seldom falls into a frame.
const gcPercent = 400

func main() {
	debug.SetGCPercent(gcPercent)
	d := bridge.New()
	js.Global().Set("mokrenCore", map[string]any{
		"ask": js.FuncOf(func(_ js.Value, args []js.Value) any {
			return answer(d.Answer(args[0].String(), []byte(args[1].String())))
		}),
		"rules": treat.RulesVersion,
	})
	if ready := js.Global().Get("mokrenCoreReady"); ready.Type() == js.TypeFunction {
		ready.Invoke()
	}
	select {}
}

// answer writes an answer, or its refusal, as JSON.
func answer(v any, err error) string {
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
