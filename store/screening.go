package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"mokren/core/ids"
	"mokren/core/rights"
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
// is who, the signs of the day's other visits, and the practice's own
// thresholds.
func (t *Tx) VisitContext(ctx context.Context, v Visit, now time.Time) (visit.Context, error) {
	out := visit.Context{Carried: []safety.Answer{}, Facts: []safety.Answer{}}
	c, err := t.Client(ctx, v.ClientID)
	if err != nil {
		return out, err
	}
	if out.Roles, err = t.roles(ctx); err != nil {
		return out, err
	}
	if out.Thresholds, err = t.Thresholds(ctx); err != nil {
		return out, err
	}
	if out.Carried, err = t.carried(ctx, v); err != nil {
		return out, err
	}
	if out.Signs, err = t.signsOfTheDay(ctx, v, now); err != nil {
		return out, err
	}
	own, err := t.Settings(ctx)
	if err != nil {
		return out, err
	}
	out.Protocol = own.Protocol
	out.HeightCM = c.HeightCM.Float64
	if c.BornOn.Valid {
		out.Age = ageOn(c.BornOn.Time, v.StartsAt)
		out.Facts = append(out.Facts, safety.Answer{Question: "minor", Answer: yesNo(out.Age < 18)})
	}
	return out, nil
}

// ageOn counts whole years.
func ageOn(born, day time.Time) int {
	age := day.Year() - born.Year()
	if born.AddDate(age, 0, 0).After(day) {
		age--
	}
	return age
}

func (t *Tx) roles(ctx context.Context) (map[string]rights.Role, error) {
	var people []struct {
		ID   string      `db:"id"`
		Role rights.Role `db:"role"`
	}
	if err := t.tx.SelectContext(ctx, &people, `select id::text, role from person`); err != nil {
		return nil, found("listing who is who", err)
	}
	out := map[string]rights.Role{}
	for _, p := range people {
		out[p.ID] = p.Role
	}
	return out, nil
}

// carried are the answers of earlier visits. Whether it is the first is the
// record's to say, and a therapist's to correct.
func (t *Tx) carried(ctx context.Context, v Visit) ([]safety.Answer, error) {
	rows, err := t.earlierAnswers(ctx, v)
	if err != nil {
		return nil, err
	}
	out := []safety.Answer{}
	for _, r := range rows {
		if r.Answer == "cleared" {
			for i := range out {
				out[i].Cleared = out[i].Cleared || out[i].Question == r.Question
			}
			continue
		}
		out = safety.Merge(out, []safety.Answer{r.at(v)})
	}
	var seen bool
	err = t.tx.GetContext(ctx, &seen, `select exists (select from visit v where `+before+`)`,
		v.ClientID, v.StartsAt, v.ID)
	if err != nil {
		return nil, found("looking for earlier visits", err)
	}
	return safety.Merge(out, []safety.Answer{{Question: "first-visit", Answer: yesNo(!seen)}}), nil
}

type answerRow struct {
	At       time.Time    `db:"starts_at"`
	Question ids.Question `db:"question"`
	Answer   string       `db:"answer"`
	Side     ids.Side     `db:"side"`
	By       string       `db:"answered_by"`
	Cleared  bool         `db:"cleared"`
	Regions  textList     `db:"regions"`
}

// at is an earlier answer, aged to a visit.
func (r answerRow) at(v Visit) safety.Answer {
	a := safety.Answer{
		Question: r.Question, Answer: r.Answer, Side: r.Side, DaysAgo: v.StartsAt.Sub(r.At).Hours() / 24,
		By: r.By, Cleared: r.Cleared,
	}
	for _, g := range r.Regions {
		a.Regions = append(a.Regions, ids.Region(g))
	}
	return a
}

// earlierAnswers are those that still say something, in the order in which they
// were given: for each question the therapist's latest and what came after it,
// and, of questions that only a clinician clears, every yes and clearance. The
// therapist's latest replaces all others (safety.Merge).
func (t *Tx) earlierAnswers(ctx context.Context, v Visit) ([]answerRow, error) {
	var all, lasting []ids.Question
	for _, q := range safety.Questions() {
		all = append(all, q.ID)
		if q.UntilCleared() {
			lasting = append(lasting, q.ID)
		}
	}
	var rows []answerRow
	err := t.tx.SelectContext(ctx, &rows, `with last as (
			select q.question, l.starts_at, l.visit_id, l.place from unnest($4::text[]) q (question)
			left join lateral (select starts_at, visit_id, place from screening s
				where s.client_id = $1 and s.question = q.question and s.starts_at < $2 and s.visit_id <> $3
					and s.answered_by = 'therapist' and s.answer <> 'cleared'
				order by s.starts_at desc, s.visit_id desc, s.place desc limit 1) l on true),
		said as (
			select s.* from last l join screening s on s.client_id = $1 and s.question = l.question
				and (s.starts_at, s.visit_id, s.place) >= (l.starts_at, l.visit_id, l.place)
			union all
			select s.* from last l join screening s on s.client_id = $1 and s.question = l.question
				and l.starts_at is null
			union all
			select s.* from last l join screening s on s.client_id = $1 and s.question = l.question
				and (s.starts_at, s.visit_id, s.place) < (l.starts_at, l.visit_id, l.place)
				and s.answer in ('yes', 'cleared')
			where l.question = any ($5::text[]))
		select starts_at, question, answer, side, answered_by, cleared, to_json(regions)::text as regions
		from said where starts_at < $2 and visit_id <> $3 order by starts_at, visit_id, place`,
		v.ClientID, v.StartsAt, v.ID, texts(all), texts(lasting))
	return rows, found("reading earlier screenings", err)
}

// signsOfTheDay are those of the client's other visits, today by the practice's
// clock or on the day of this visit.
func (t *Tx) signsOfTheDay(ctx context.Context, v Visit, now time.Time) ([]visit.Pressed, error) {
	var rows []struct {
		Sign string    `db:"sign"`
		At   time.Time `db:"at"`
		Hold string    `db:"hold_id"`
		Spot []byte    `db:"spot"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select s.sign, s.at, s.hold_id::text, s.spot
		from hold_sign s join practice p on p.id = s.practice_id
		where s.client_id = $1 and s.visit_id <> $2
			and (s.at at time zone p.time_zone)::date
				in (($3::timestamptz at time zone p.time_zone)::date, ($4::timestamptz at time zone p.time_zone)::date)
		order by s.at, s.visit_id, s.place`, v.ClientID, v.ID, now, v.StartsAt)
	if err != nil {
		return nil, found("reading the day's signs", err)
	}
	out := []visit.Pressed{}
	for _, r := range rows {
		p := visit.Pressed{Sign: r.Sign, AtMS: r.At.UnixMilli(), Hold: visit.UUID(r.Hold)}
		if err := json.Unmarshal(r.Spot, &p.Spot); err != nil {
			return nil, fmt.Errorf("reading where a sign was: %w", err)
		}
		out = append(out, p)
	}
	return out, nil
}

func yesNo(b bool) string {
	if b {
		return "yes"
	}
	return "no"
}
