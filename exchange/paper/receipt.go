package paper

import (
	"fmt"

	"mokren/core/receipt"
)

// ReceiptPage is what was done at a visit in services, minutes and money; no finding stands on it.
type ReceiptPage struct {
	Heading
	Sums receipt.Sums
	Day  string // of the visit
	By   string // who issued it
	// Cancels is the receipt that this one takes back, CancelledBy the one that takes this back; 0
	// where none does.
	Cancels, CancelledBy int
}

// Receipt sets it.
func Receipt(p ReceiptPage) ([]byte, error) {
	s := newSheet(p.Heading)
	s.paragraph("For the appointment of " + p.Day + ".")
	switch {
	case p.Cancels > 0:
		s.caution(fmt.Sprintf("This receipt takes receipt %d back.", p.Cancels))
	case p.CancelledBy > 0:
		s.caution(fmt.Sprintf("Taken back by receipt %d.", p.CancelledBy))
	}
	s.Ln(2)
	wide := s.width()
	rows := make([][]string, 0, len(p.Sums.Lines))
	for _, l := range p.Sums.Lines {
		minutes := ""
		if l.Minutes > 0 {
			minutes = fmt.Sprintf("%d min", l.Minutes)
		}
		rows = append(rows, []string{l.Service, minutes, receipt.Percent(l.Tax), receipt.Money(l.Cents)})
	}
	if len(rows) > 0 {
		s.rows([]string{"Service", "Time", "Tax", "Price"}, []float64{wide - 84, 28, 26, 30}, rows)
		s.Ln(5)
	}
	rows = rows[:0]
	for _, r := range p.Sums.Rates {
		rows = append(rows, []string{
			receipt.Percent(r.Tax), receipt.Money(r.Net), receipt.Money(r.Of), receipt.Money(r.Gross),
		})
	}
	s.rows([]string{"Tax", "Net", "Tax of it", "Gross"}, []float64{wide - 90, 30, 30, 30}, rows)
	s.Ln(5)
	s.text("B", 12, ink)
	s.MultiCell(0, 7, "Total "+p.Sums.Currency+" "+receipt.Money(p.Sums.Cents), "", "R", false)
	s.text("", small, inkSoft)
	s.MultiCell(0, line, "Issued by "+p.By+".", "", "L", false)
	return s.bytes()
}
