//go:build js && wasm

// Command bench is the practice bench for the browser, a module of its own that is loaded when the
// bench is opened: mokrenBench.ask(name, json) answers the questions of a desk of core/bench.
package main

import (
	"mokren/core/bench"
	"mokren/wasm/page"
)

func main() {
	var desk bench.Desk
	page.Serve("mokrenBench", desk.Answer, nil)
}
