package api

import (
	"context"
	"database/sql"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/receipt"
	"mokren/exchange"
	"mokren/exchange/paper"
	"mokren/store"
)

// PriceList is the practice's, with the revision that a change of it names.
type PriceList struct {
	receipt.Prices
	Revision int64 `json:"revision" minimum:"0"`
}

// ReceiptOut is one as it was issued; it says services, minutes and money, no finding.
type ReceiptOut struct {
	Number   int    `json:"number"`
	IssuedAt string `json:"issued_at" format:"date-time"`
	By       string `json:"by"`
	Day      string `json:"day" format:"date"`
	receipt.Sums
	// Cancels is the receipt that this one takes back; CancelledBy the one that takes this back.
	Cancels     int `json:"cancels,omitempty"`
	CancelledBy int `json:"cancelled_by,omitempty"`
}

// ReceiptIn is what is to stand on a receipt: services of the practice's own list.
type ReceiptIn struct {
	ID    string        `json:"id" format:"uuid" doc:"sent twice, the receipt is issued once"`
	Lines []ReceiptLine `json:"lines" minItems:"1" maxItems:"50"`
}

// ReceiptLine is a service of the list, with how long it was.
type ReceiptLine struct {
	Service string `json:"service" maxLength:"40"`
	Minutes int    `json:"minutes" minimum:"0" maximum:"480"`
}

func (s *server) registerReceipts(a huma.API) {
	huma.Register(a, op("prices", http.MethodGet, "/api/practice/prices", "The practice's price list", 401), s.prices)
	huma.Register(a, op("put-prices", http.MethodPut, "/api/practice/prices", "Keep the practice's price list",
		401, 403, 409, 422), s.putPrices)
	huma.Register(a, op("receipts", http.MethodGet, "/api/visits/{id}/receipts", "A visit's receipts", 401, 404),
		s.receipts)
	huma.Register(a, op("issue-receipt", http.MethodPost, "/api/visits/{id}/receipts",
		"Issue a receipt for a visit, under the next number", 401, 404, 422), s.issueReceipt)
	huma.Register(a, op("cancel-receipt", http.MethodPost, "/api/receipts/{number}/cancel",
		"Take a receipt back by a counter-receipt", 401, 404, 409), s.cancelReceipt)
	huma.Register(a, s.paged(a, "print-receipt", http.MethodGet, "/api/receipts/{number}/pdf", "A receipt as PDF",
		401, 404), s.printReceipt)
	huma.Register(a, op("receipts-file", http.MethodGet, "/api/receipts/csv",
		"Receipts of some days as CSV, a row for each rate of tax", 401, 422), s.receiptsFile)
}

func receiptOut(r store.IssuedReceipt) ReceiptOut {
	return ReceiptOut{
		Number: r.Number, IssuedAt: r.IssuedAt.UTC().Format(time.RFC3339), By: r.By, Day: r.Day.Format(time.DateOnly),
		Sums: r.Sums, Cancels: int(r.Cancels.Int64), CancelledBy: int(r.CancelledBy.Int64),
	}
}

func (s *server) prices(ctx context.Context, _ *struct{}) (*oneOut[PriceList], error) {
	return one(ctx, s, action("read", "prices", ""), readPrices(ctx))
}

func readPrices(ctx context.Context) func(*store.Tx) (PriceList, error) {
	return func(tx *store.Tx) (PriceList, error) {
		p, revision, err := tx.Prices(ctx)
		return PriceList{p, revision}, err
	}
}

func (s *server) putPrices(ctx context.Context, in *struct{ Body PriceList }) (*oneOut[PriceList], error) {
	if e := in.Body.Check(); e != nil {
		return nil, invalid("body"+e.Path[1:], e.Given, e.Allowed)
	}
	return one(ctx, s, action("write", "prices", ""), func(tx *store.Tx) (PriceList, error) {
		if err := tx.PutPrices(ctx, in.Body.Prices, in.Body.Revision); err != nil {
			return PriceList{}, err
		}
		return readPrices(ctx)(tx)
	})
}

func (s *server) receipts(ctx context.Context, in *ByID) (*listOut[ReceiptOut], error) {
	return list(ctx, s, action("list", "receipt", in.ID), receiptOut, func(tx *store.Tx) ([]store.IssuedReceipt,
		error,
	) {
		if _, err := tx.Visit(ctx, in.uuid()); err != nil {
			return nil, err
		}
		return tx.Receipts(ctx, in.uuid())
	})
}

func (s *server) issueReceipt(ctx context.Context, in *struct {
	ByID
	Body ReceiptIn
},
) (*oneOut[ReceiptOut], error) {
	id, err := uuid.Parse(in.Body.ID)
	if err != nil {
		return nil, invalid("body.id", in.Body.ID, "a UUID")
	}
	return one(ctx, s, action("issue", "receipt", in.ID), func(tx *store.Tx) (ReceiptOut, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return ReceiptOut{}, err
		}
		zone, err := zoneOf(ctx, tx)
		if err != nil {
			return ReceiptOut{}, err
		}
		prices, _, err := tx.Prices(ctx)
		if err != nil {
			return ReceiptOut{}, err
		}
		lines, err := linesOf(prices, in.Body.Lines)
		if err != nil {
			return ReceiptOut{}, err
		}
		day := v.StartsAt.In(zone)
		issued, err := tx.AddReceipt(ctx, store.IssuedReceipt{
			ID: id, IssuedAt: s.now(), Client: uuid.NullUUID{UUID: v.ClientID, Valid: true},
			Visit: uuid.NullUUID{UUID: v.ID, Valid: true}, Name: v.GivenName + " " + v.FamilyName,
			Day:  time.Date(day.Year(), day.Month(), day.Day(), 0, 0, 0, 0, time.UTC),
			Sums: receipt.Of(prices, lines),
		})
		return receiptOut(issued), err
	})
}

// linesOf takes names and prices from the practice's own list.
func linesOf(p receipt.Prices, in []ReceiptLine) ([]receipt.ServiceLine, error) {
	var out []receipt.ServiceLine
	for i, l := range in {
		there := false
		for _, of := range p.Services {
			if of.ID == l.Service {
				out = append(out, receipt.ServiceLine{
					Service: of.Name, Minutes: l.Minutes, Cents: of.Cents,
					Tax: of.Tax,
				})
				there = true
			}
		}
		if !there {
			return nil, invalid(fmt.Sprintf("body.lines[%d].service", i), l.Service, "a service of the practice's list")
		}
	}
	return out, nil
}

// ByNumber is a receipt's number in the address.
type ByNumber struct {
	Number int `path:"number" minimum:"1" maximum:"2147483647"`
}

func (s *server) cancelReceipt(ctx context.Context, in *ByNumber) (*oneOut[ReceiptOut], error) {
	what := action("cancel", "receipt", strconv.Itoa(in.Number))
	return one(ctx, s, what, func(tx *store.Tx) (ReceiptOut, error) {
		r, err := tx.Receipt(ctx, in.Number)
		switch {
		case err != nil:
			return ReceiptOut{}, err
		case r.Cancels.Valid:
			return ReceiptOut{}, huma.Error409Conflict("This receipt takes another one back; issue a new one instead.")
		case r.CancelledBy.Valid:
			return ReceiptOut{}, huma.Error409Conflict(
				fmt.Sprintf("This receipt was taken back already, by number %d.", r.CancelledBy.Int64),
			)
		}
		counter := r
		counter.ID, counter.IssuedAt, counter.Sums = uuid.Must(uuid.NewV7()), s.now(), r.Sums.Counter()
		counter.Cancels = sql.NullInt64{Int64: int64(r.Number), Valid: true}
		counter, err = tx.AddReceipt(ctx, counter)
		return receiptOut(counter), err
	})
}

func (s *server) printReceipt(ctx context.Context, in *ByNumber) (*fileOut, error) {
	return signed(ctx, s, action("print", "receipt", strconv.Itoa(in.Number)), func(tx *store.Tx) (*fileOut, error) {
		r, err := tx.Receipt(ctx, in.Number)
		if err != nil {
			return nil, err
		}
		h, zone, err := s.heading(ctx, tx, fmt.Sprintf("Receipt %d", r.Number))
		if err != nil {
			return nil, err
		}
		h.Client, h.About = r.Name, "of "+r.IssuedAt.In(zone).Format("2 January 2006")
		raw, err := paper.Receipt(paper.ReceiptPage{
			Heading: h, Sums: r.Sums, Day: r.Day.Format("2 January 2006"), By: r.By, Cancels: int(r.Cancels.Int64),
			CancelledBy: int(r.CancelledBy.Int64),
		})
		return fileOf(fmt.Sprintf("receipt-%d.pdf", r.Number), pdfKind, raw), err
	})
}

func (s *server) receiptsFile(ctx context.Context, in *struct {
	From string `query:"from" required:"true" format:"date"`
	To   string `query:"to" required:"true" format:"date" doc:"this day too"`
},
) (*fileOut, error) {
	return signed(ctx, s, action("export", "receipt", ""), func(tx *store.Tx) (*fileOut, error) {
		zone, err := zoneOf(ctx, tx)
		if err != nil {
			return nil, err
		}
		from, err := time.ParseInLocation(time.DateOnly, in.From, zone)
		if err != nil {
			return nil, invalid("query.from", in.From, "a day of the calendar, YYYY-MM-DD")
		}
		to, err := time.ParseInLocation(time.DateOnly, in.To, zone)
		if err != nil {
			return nil, invalid("query.to", in.To, "a day of the calendar, YYYY-MM-DD")
		}
		all, err := tx.ReceiptsBetween(ctx, from, to.AddDate(0, 0, 1))
		if err != nil {
			return nil, err
		}
		raw, err := exchange.Table([]string{
			"number", "issued_on [YYYY-MM-DD]", "visit_on [YYYY-MM-DD]", "currency [ISO 4217]", "tax [%]", "net", "tax",
			"gross", "cancels", "issued_by",
		}, receiptRows(all, zone))
		return fileOf("receipts.csv", csvKind, raw), err
	})
}

// receiptRows are one for each rate of each receipt; they name no client.
func receiptRows(all []store.IssuedReceipt, zone *time.Location) [][]string {
	var out [][]string
	money := func(cents int64) string { return strconv.FormatFloat(float64(cents)/100, 'f', 2, 64) }
	for _, r := range all {
		cancels := ""
		if r.Cancels.Valid {
			cancels = strconv.FormatInt(r.Cancels.Int64, 10)
		}
		for _, x := range r.Sums.Rates {
			out = append(out, []string{
				strconv.Itoa(r.Number), r.IssuedAt.In(zone).Format(time.DateOnly), r.Day.Format(time.DateOnly),
				r.Sums.Currency,
				money(x.Tax), money(x.Net), money(x.Of), money(x.Gross), cancels, r.By,
			})
		}
	}
	return out
}
