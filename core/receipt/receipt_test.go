package receipt_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mokren/core/receipt"
)

// Tax is rounded half up, once for each rate: by hand.
func TestTaxIsRoundedOnceForEachRate(t *testing.T) {
	line := func(cents, tax int64) receipt.ServiceLine {
		return receipt.ServiceLine{Service: "x", Cents: cents, Tax: tax}
	}
	included := receipt.Prices{Currency: "EUR", TaxIncluded: true}
	for _, x := range []struct {
		p     receipt.Prices
		lines []receipt.ServiceLine
		want  []receipt.TaxSum
		total int64
	}{
		// 85.00 with 10 %: 7.7272… is 7.73.
		{included, []receipt.ServiceLine{line(8500, 1000)}, []receipt.TaxSum{{1000, 7727, 773, 8500}}, 8500},
		// Half a cent goes up: 0.05 of 0.50 at 10 % on top is 0.05; 0.45 at 10 % is 0.045, so 0.05.
		{receipt.Prices{Currency: "EUR"}, []receipt.ServiceLine{line(45, 1000)}, []receipt.TaxSum{{
			1000, 45, 5,
			50,
		}}, 50},
		// Two lines of 0.45 together are 0.09, not twice 0.05.
		{
			receipt.Prices{Currency: "EUR"},
			[]receipt.ServiceLine{line(45, 1000), line(45, 1000)},
			[]receipt.TaxSum{{1000, 90, 9, 99}},
			99,
		},
		{
			included,
			[]receipt.ServiceLine{line(6000, 2000), line(1000, 0), line(2500, 1000)},
			[]receipt.TaxSum{{0, 1000, 0, 1000}, {1000, 2273, 227, 2500}, {2000, 5000, 1000, 6000}},
			9500,
		},
	} {
		got := receipt.Of(x.p, x.lines)
		assert.Equal(t, x.want, got.Rates)
		assert.Equal(t, x.total, got.Cents)
	}
	assert.Equal(t, "−1234.05", receipt.Money(-123405))
	assert.Equal(t, "8.1 %", receipt.Percent(810))
	assert.Equal(t, "20 %", receipt.Percent(2000))
}

// Net and tax are gross, to the cent, and a receipt and its counter are nothing together.
func TestSumsAgree(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := receipt.Prices{Currency: "EUR", TaxIncluded: rapid.Bool().Draw(t, "included")}
		lines := rapid.SliceOf(rapid.Custom(func(t *rapid.T) receipt.ServiceLine {
			return receipt.ServiceLine{
				Cents: rapid.Int64Range(0, 1e8).Draw(t, "cents"), Tax: rapid.Int64Range(0, 10_000).Draw(t, "tax"),
			}
		})).Draw(t, "lines")
		s := receipt.Of(p, lines)
		var gross, given int64
		for _, r := range s.Rates {
			assert.Equal(t, r.Gross, r.Net+r.Of)
			assert.GreaterOrEqual(t, r.Of, int64(0))
			gross += r.Gross
		}
		for _, l := range lines {
			given += l.Cents
		}
		assert.Equal(t, s.Cents, gross)
		if p.TaxIncluded {
			assert.Equal(t, given, s.Cents)
		}
		assert.Zero(t, s.Cents+s.Counter().Cents)
		assert.Equal(t, s, s.Counter().Counter())
	})
}
