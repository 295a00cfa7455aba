package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/receipt"
)

// Prices gives the practice's price list and its revision: 0 while it has none.
func (t *Tx) Prices(ctx context.Context) (receipt.Prices, int64, error) {
	var row struct {
		Body     json.RawMessage `db:"body"`
		Revision int64           `db:"revision"`
	}
	p := receipt.Prices{Services: []receipt.Service{}}
	err := t.tx.GetContext(ctx, &row, `select body, revision from price_list`)
	if errors.Is(err, sql.ErrNoRows) {
		return p, 0, nil
	}
	if err != nil {
		return p, 0, found("reading the price list", err)
	}
	return p, row.Revision, json.Unmarshal(row.Body, &p)
}

// PutPrices keeps the price list; one of another revision is a conflict.
func (t *Tx) PutPrices(ctx context.Context, p receipt.Prices, seen int64) error {
	body, err := json.Marshal(p)
	if err != nil {
		return err
	}
	r, err := t.tx.ExecContext(ctx, `insert into price_list (practice_id, body, revision) values ($1, $2, $3 + 1)
		on conflict (practice_id) do update set body = excluded.body, revision = excluded.revision
		where price_list.revision = $3`, t.who.Practice, body, seen)
	if err != nil {
		return found("keeping the price list", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrStale)
	}
	return nil
}

// IssuedReceipt is one as it was issued.
type IssuedReceipt struct {
	Number   int             `db:"number"`
	ID       uuid.UUID       `db:"id"`
	IssuedAt time.Time       `db:"issued_at"`
	By       string          `db:"by"`
	Client   uuid.NullUUID   `db:"of_client"`
	Visit    uuid.NullUUID   `db:"of_visit"`
	Name     string          `db:"name"` // empty when the client's record was erased
	Day      time.Time       `db:"day"`  // of the visit, by the practice's clock
	Raw      json.RawMessage `db:"sums"`
	Cancels  sql.NullInt64   `db:"cancels"`
	// CancelledBy is the number of the counter-receipt.
	CancelledBy sql.NullInt64 `db:"cancelled_by"`
	Sums        receipt.Sums  `db:"-"`
}

const receiptColumns = `select r.number, r.id, r.issued_at, p.name as by, r.of_client, r.of_visit, r.name, r.day, r.sums,
	r.cancels, c.number as cancelled_by
	from receipt r join person p on p.practice_id = r.practice_id and p.id = r.person_id
	left join receipt c on c.practice_id = r.practice_id and c.cancels = r.number `

func (t *Tx) receipts(ctx context.Context, where string, args ...any) ([]IssuedReceipt, error) {
	out := []IssuedReceipt{}
	if err := t.tx.SelectContext(ctx, &out, receiptColumns+where+` order by r.number`, args...); err != nil {
		return nil, found("reading receipts", err)
	}
	for i := range out {
		if err := json.Unmarshal(out[i].Raw, &out[i].Sums); err != nil {
			return nil, fmt.Errorf("reading receipt %d: %w", out[i].Number, err)
		}
	}
	return out, nil
}

// Receipts are those of a visit.
func (t *Tx) Receipts(ctx context.Context, visit uuid.UUID) ([]IssuedReceipt, error) {
	return t.receipts(ctx, `where r.of_visit = $1`, visit)
}

// ReceiptsBetween are those that were issued in a time, for the accountant.
func (t *Tx) ReceiptsBetween(ctx context.Context, from, to time.Time) ([]IssuedReceipt, error) {
	return t.receipts(ctx, `where r.issued_at >= $1 and r.issued_at < $2`, from, to)
}

// Receipt is one by its number.
func (t *Tx) Receipt(ctx context.Context, number int) (IssuedReceipt, error) {
	list, err := t.receipts(ctx, `where r.number = $1`, number)
	if err == nil && len(list) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return IssuedReceipt{}, err
	}
	return list[0], nil
}

// AddReceipt issues one; its number is the next of the practice. The same id gives the one that was
// issued by it before.
func (t *Tx) AddReceipt(ctx context.Context, r IssuedReceipt) (IssuedReceipt, error) {
	if r.Client.Valid {
		t.touch(r.Client.UUID)
	}
	raw, err := json.Marshal(r.Sums)
	if err != nil {
		return r, err
	}
	if before, err := t.receipts(ctx, `where r.id = $1`, r.ID); err != nil || len(before) > 0 {
		return append(before, r)[0], err
	}
	var number int
	err = t.tx.GetContext(ctx, &number, `insert into receipt (practice_id, number, id, issued_at, person_id, of_client,
		of_visit, name, day, sums, cancels) values ($1, 1, $2, $3, $4, $5, $6, $7, $8, $9, $10) returning number`,
		t.who.Practice, r.ID, r.IssuedAt, t.who.Person, r.Client, r.Visit, r.Name, r.Day, raw, r.Cancels)
	if err != nil {
		return r, found("issuing a receipt", err)
	}
	return t.Receipt(ctx, number)
}
