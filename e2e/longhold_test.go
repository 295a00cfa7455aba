package e2e

import (
	"os"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// TestBenchLongHold prints what a hold screen costs on which nothing happens: half a minute of it in
// make bench, ten minutes in make bench-large (MOKREN_LONG).
func TestBenchLongHold(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("run by make bench")
	}
	lasts := 30 * time.Second
	if os.Getenv("MOKREN_LONG") != "" {
		lasts = 10 * time.Minute
	}
	p := pressing(t, startServer(t), "Long hold")
	p.Page = p.Timeout(lasts + 2*time.Minute)
	beginHold(p)
	phase(p, "ready")
	p.press(input.Space)
	phase(p, "settle")
	time.Sleep(5 * time.Second)
	before, nodes := heap(t, p.Page)
	began := used(t, browserPID)
	time.Sleep(lasts)
	share := (used(t, browserPID) - began).Seconds() / lasts.Seconds()
	after, nodesAfter := heap(t, p.Page)
	t.Logf("a hold screen for %s, all processes of the browser: %.1f %% of a core (limit 5); "+
		"heap %.1f MB, then %.1f MB; %d nodes, then %d", lasts, share*100, before, after, nodes, nodesAfter)
}

// heap is what lives on a page after a collection, in MB, and the nodes of its document.
func heap(t *testing.T, p *rod.Page) (mb float64, nodes int) {
	t.Helper()
	require.NoError(t, proto.HeapProfilerCollectGarbage{}.Call(p))
	use, err := proto.RuntimeGetHeapUsage{}.Call(p)
	require.NoError(t, err)
	count, err := proto.MemoryGetDOMCounters{}.Call(p)
	require.NoError(t, err)
	return use.UsedSize / 1e6, count.Nodes
}
