package calc_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"mokren/core/calc"
)

// The limits of handbook 8's door: each below 100 ms (D8).
func BenchmarkChangeOf30000Readings(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 2))
	for name, value := range map[string]func() float64{
		"half steps": func() float64 { return float64(r.IntN(21)) / 2 },
		"all apart":  func() float64 { return 10 * r.Float64() },
	} {
		var s strings.Builder
		for i := range 30_000 {
			fmt.Fprintf(&s, `{"day":%.3f,"value":%v},`, float64(i)/3, value())
		}
		in := []byte(`{"measure":"nprs","series":[` + strings.TrimSuffix(s.String(), ",") + `]}`)
		b.Run(name, func(b *testing.B) { run(b, "change", in) })
	}
}

func BenchmarkCoachOf5000Lines(b *testing.B) {
	const start = `{"t":0,"event":"start","protocol":"graded-stages"}` + "\n" + `{"t":0,"event":"contact"}` + "\n"
	var scores, undos strings.Builder
	for i := range 2500 {
		fmt.Fprintf(&scores, `{"t":%d.%03d,"event":"score","value":6}`+"\n", i/1000, i%1000)
		undos.WriteString(`{"t":3,"event":"undo"}` + "\n")
	}
	b.Run("scores, then undos", func(b *testing.B) { run(b, "coach", []byte(start+scores.String()+undos.String())) })
	var alternating strings.Builder
	for i := range 2500 {
		at := fmt.Sprintf("%d.%03d", i/1000, i%1000)
		fmt.Fprintf(&alternating, `{"t":%s,"event":"score","value":6}`+"\n"+`{"t":%s,"event":"undo"}`+"\n", at, at)
	}
	b.Run("scores and undos in turn", func(b *testing.B) { run(b, "coach", []byte(start+alternating.String())) })
}

func run(b *testing.B, name string, in []byte) {
	for b.Loop() {
		_, err := calc.Run(name, in)
		require.NoError(b, err)
	}
}
