package store

import (
	"context"

	"mokren/core/assess"
	"mokren/core/visit"
)

// suspicionRows are what the list said of each muscle that was searched in a
// closed visit, and what was found. Of an open one nothing is said: the search
// goes on.
func (t *Tx) suspicionRows(ctx context.Context, v Visit, s visit.State, vc visit.Context) ([]row, error) {
	if s.ClosedMS == 0 || len(s.Points)+len(s.Searched) == 0 {
		return []row{}, nil
	}
	weights, err := t.Weights(ctx)
	if err != nil {
		return nil, err
	}
	var earlier Earlier
	if err := t.earlierPoints(ctx, v, &earlier); err != nil {
		return nil, err
	}
	ranking := assess.Rank(s.Findings(vc, earlier.Points, v.StartsAt.UnixMilli()), weights)
	rows := []row{}
	for _, f := range s.KeptWord(vc, earlier.Points, ranking.Suspects) {
		rows = append(rows, row{
			"muscle": f.Muscle, "side": f.Side, "region": f.Region, "confidence": f.Confidence, "found": f.Found,
			"findings": f.Findings,
		})
	}
	return rows, nil
}
