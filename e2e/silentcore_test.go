package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"

	"mokren/demo"
)

// mutable lets a test cut what the page says to the core's workers that it has begun so far.
const mutable = `(() => {
	const Real = Worker;
	globalThis.coresBegun = 0;
	globalThis.coresMute = 0;
	globalThis.Worker = class extends Real {
		constructor(url, options) {
			super(url, options);
			if (options?.name === "core") this.nth = ++globalThis.coresBegun;
		}
		postMessage(said) {
			if (!(this.nth <= globalThis.coresMute)) super.postMessage(said);
		}
	};
})()`

// A core that falls silent in a hold is replaced, and the new one knows the hold. Stop is in the log
// at once, whatever the core does.
func TestASilentCoreIsReplaced(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	p.MustEvalOnNewDocument(mutable)
	opened(p, "Silent", "Press", calf)
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	phase(p, "settle")
	assert.Equal(t, 1, p.MustEval(`() => coresBegun`).Int())
	p.MustEval(`() => { globalThis.coresMute = coresBegun; }`)
	p.press(input.Escape)
	assert.Eventually(t, func() bool {
		return strings.Contains(string(p.call("GET", "/api/visits/"+visitOf(p), nil)), `"client-stop"`)
	}, stepLimit, lookAgain, "it is in the record, whatever the core does")
	p.MustElement(`main[data-phase]:not([data-phase="settle"])`)
	assert.Equal(t, 2, p.MustEval(`() => coresBegun`).Int(), "another core has answered")
}
