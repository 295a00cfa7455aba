//go:build js && wasm

// Command wasm is the core for the browser: mokrenCore.ask(name, json) answers the questions of
// core/bridge, mokrenCore.rules is the version of the coach's rules.
package main

import (
	"mokren/core/bridge"
	"mokren/core/treat"
	"mokren/wasm/page"
)

func main() {
	page.Serve("mokrenCore", bridge.New().Answer, map[string]any{"rules": treat.RulesVersion})
}
