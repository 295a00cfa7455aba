// Package receipt makes out what was done at a visit in services, minutes and money: sums and taxes
// in whole cents, rounded half up once for each rate. It knows no finding and no payment.
//
//	r := receipt.Of(prices, []receipt.ServiceLine{{Service: "Massage", Minutes: 60, Cents: 8500, Tax: 1000}})
//	r.Cents // 8500, of which r.Taxes[0].Tax is 773 at 10 %
//
// # Invariants
//
//   - Gross is net and tax, for each rate and in all, to the cent.
//   - A counter-receipt has the same lines and sums with the other sign: both together are nothing.
package receipt

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/decode"
)

// Prices is a practice's own list.
type Prices struct {
	Currency string `json:"currency" maxLength:"3" doc:"ISO 4217, such as EUR"`
	// TaxIncluded: prices are what a client pays; else tax comes on top.
	TaxIncluded bool      `json:"tax_included"`
	Services    []Service `json:"services" maxItems:"200"`
}

// Service is one that is offered.
type Service struct {
	ID      string `json:"id" maxLength:"40" doc:"of the list, kept when the service is renamed"`
	Name    string `json:"name" maxLength:"120"`
	Minutes int    `json:"minutes" minimum:"0" maximum:"480" doc:"0 where it has none"`
	Cents   int64  `json:"price_cents" minimum:"0" maximum:"100000000" doc:"hundredths of the currency"`
	Tax     int64  `json:"tax_bp" minimum:"0" maximum:"10000" doc:"hundredths of a percent"`
}

// Check implements decode.Checker.
func (p Prices) Check() *decode.Error {
	if len(p.Currency) != 3 || p.Currency != upper(p.Currency) {
		return &decode.Error{
			Path: "$.currency", Given: fmt.Sprintf("%q", p.Currency), Allowed: "three capital letters, such as EUR",
		}
	}
	seen := map[string]bool{}
	for i, s := range p.Services {
		at := fmt.Sprintf("$.services[%d]", i)
		switch {
		case s.ID == "" || seen[s.ID]:
			return &decode.Error{Path: at + ".id", Given: fmt.Sprintf("%q", s.ID), Allowed: "an id that is there once"}
		case s.Name == "":
			return &decode.Error{Path: at + ".name", Given: `""`, Allowed: "a name"}
		}
		seen[s.ID] = true
	}
	return nil
}

func upper(s string) string {
	out := []byte(s)
	for i, c := range out {
		if c < 'A' || c > 'Z' {
			out[i] = '?'
		}
	}
	return string(out)
}

// ServiceLine is one service that was done.
type ServiceLine struct {
	Service string `json:"service"`
	Minutes int    `json:"minutes"`
	Cents   int64  `json:"price_cents"`
	Tax     int64  `json:"tax_bp"`
}

// TaxSum is what the lines of one rate of tax come to.
type TaxSum struct {
	Tax   int64 `json:"tax_bp" doc:"hundredths of a percent"`
	Net   int64 `json:"net_cents"`
	Of    int64 `json:"tax_cents"`
	Gross int64 `json:"gross_cents"`
}

// Sums are the money of a receipt.
type Sums struct {
	Currency string        `json:"currency"`
	Lines    []ServiceLine `json:"lines"`
	Rates    []TaxSum      `json:"rates" doc:"by rate, the lowest first"`
	Cents    int64         `json:"total_cents" doc:"what the client pays"`
}

// whole is 100 % in hundredths of a percent.
const whole = 10_000

// Of sums lines up; tax is rounded half up once for each rate.
func Of(p Prices, lines []ServiceLine) Sums {
	s := Sums{Currency: p.Currency, Lines: append([]ServiceLine{}, lines...), Rates: []TaxSum{}}
	by := map[int64]int64{}
	for _, l := range lines {
		by[l.Tax] += l.Cents
	}
	for tax, cents := range by {
		r := TaxSum{Tax: tax, Net: cents, Gross: cents}
		if p.TaxIncluded {
			r.Of = halfUp(cents*tax, whole+tax)
			r.Net -= r.Of
		} else {
			r.Of = halfUp(cents*tax, whole)
			r.Gross += r.Of
		}
		s.Rates = append(s.Rates, r)
		s.Cents += r.Gross
	}
	slices.SortFunc(s.Rates, func(a, b TaxSum) int { return cmp.Compare(a.Tax, b.Tax) })
	return s
}

// halfUp divides what is not below zero.
func halfUp(n, by int64) int64 { return (2*n + by) / (2 * by) }

// Counter is what takes a receipt back.
func (s Sums) Counter() Sums {
	out := Sums{Currency: s.Currency, Cents: -s.Cents, Lines: []ServiceLine{}, Rates: []TaxSum{}}
	for _, l := range s.Lines {
		l.Cents = -l.Cents
		out.Lines = append(out.Lines, l)
	}
	for _, r := range s.Rates {
		out.Rates = append(out.Rates, TaxSum{r.Tax, -r.Net, -r.Of, -r.Gross})
	}
	return out
}

// Bare is what stays of a receipt when the record of its client is erased: the sums.
func (s Sums) Bare() Sums {
	s.Lines = []ServiceLine{}
	return s
}

// Money writes hundredths of a currency.
func Money(cents int64) string {
	sign := ""
	if cents < 0 {
		sign, cents = "−", -cents
	}
	return fmt.Sprintf("%s%d.%02d", sign, cents/100, cents%100)
}

// Percent writes a rate of tax.
func Percent(bp int64) string {
	switch {
	case bp%100 == 0:
		return fmt.Sprintf("%d %%", bp/100)
	case bp%10 == 0:
		return fmt.Sprintf("%d.%d %%", bp/100, bp%100/10)
	}
	return fmt.Sprintf("%d.%02d %%", bp/100, bp%100)
}
