package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
)

func texts[T ~string](list []T) []string {
	out := make([]string, len(list))
	for i, s := range list {
		out[i] = string(s)
	}
	return out
}

// VisitContext is what a visit's log is read against: the answers of the
// client's earlier visits, aged to this one, what follows from the record, who
// is licensed, and the practice's own thresholds.
func (t *Tx) VisitContext(ctx context.Context, id uuid.UUID) (visit.Context, error) {
	out := visit.Context{Carried: []safety.Answer{}, Licensed: []string{}}
	if err := t.tx.SelectContext(ctx, &out.Licensed,
		`select id::text from person where role = 'therapist' order by id`); err != nil {
		return out, found("listing who is licensed", err)
	}
	var err error
	if out.Thresholds, err = t.Thresholds(ctx); err != nil {
		return out, err
	}
	v, err := t.Visit(ctx, id)
	if err != nil {
		return out, err
	}
	c, err := t.Client(ctx, v.ClientID)
	if err != nil {
		return out, err
	}
	var rows []struct {
		At       time.Time `db:"starts_at"`
		Question string    `db:"question"`
		Answer   string    `db:"answer"`
		Side     string    `db:"side"`
		Regions  textList  `db:"regions"`
	}
	err = t.tx.SelectContext(ctx, &rows, `select v.starts_at, s.question, s.answer, s.side,
		to_json(s.regions)::text as regions
		from screening s join visit v on v.practice_id = s.practice_id and v.id = s.visit_id
		where s.client_id = $1 and v.starts_at < $2 and v.id <> $3 order by v.starts_at, s.visit_id, s.place`,
		v.ClientID, v.StartsAt, id)
	if err != nil {
		return out, found("reading earlier screenings", err)
	}
	for _, r := range rows {
		q := ids.Question(r.Question)
		if r.Answer == "cleared" {
			for i := range out.Carried {
				if out.Carried[i].Question == q {
					out.Carried[i].Cleared = true
				}
			}
			continue
		}
		a := safety.Answer{
			Question: q, Answer: r.Answer, Side: ids.Side(r.Side),
			DaysAgo: v.StartsAt.Sub(r.At).Hours() / 24,
		}
		for _, g := range r.Regions {
			a.Regions = append(a.Regions, ids.Region(g))
		}
		out.Carried = safety.Merge(out.Carried, []safety.Answer{a})
	}
	var before int
	if err := t.tx.GetContext(ctx, &before,
		`select count(*) from visit where client_id = $1 and starts_at < $2 and id <> $3 and opened_at is not null`,
		v.ClientID, v.StartsAt, id); err != nil {
		return out, found("counting earlier visits", err)
	}
	known := []safety.Answer{{Question: "first-visit", Answer: yesNo(before == 0)}}
	if c.BornOn.Valid {
		known = append(known, safety.Answer{
			Question: "minor",
			Answer:   yesNo(c.BornOn.Time.AddDate(18, 0, 0).After(v.StartsAt)),
		})
	}
	out.Carried = safety.Merge(out.Carried, known)
	return out, nil
}

func yesNo(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}
