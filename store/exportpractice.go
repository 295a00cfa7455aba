package store

import (
	"context"

	"github.com/google/uuid"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/visit"
	"mokren/exchange"
)

// exportPractice adds what the practice has set itself, where all of it goes out.
func (t *Tx) exportPractice(ctx context.Context, of []uuid.UUID, a *exchange.Archive) error {
	if len(of) > 0 {
		return nil
	}
	var p exchange.ArchivePractice
	weights, err := t.Weights(ctx)
	if err != nil {
		return err
	}
	for id, r := range weights {
		p.Weights = append(p.Weights, exchange.ArchiveWeight{Evidence: id, Ratio: r})
	}
	thresholds, err := t.Thresholds(ctx)
	if err != nil {
		return err
	}
	for id, v := range thresholds {
		p.Thresholds = append(p.Thresholds, exchange.ArchiveThreshold{Threshold: id, Value: v})
	}
	protocols, err := t.OwnProtocols(ctx)
	if err != nil {
		return err
	}
	for id, own := range protocols {
		p.Protocols = append(p.Protocols, exchange.ArchiveProtocol{ID: visit.UUID(id), Own: own})
	}
	sequences, err := t.OwnSequences(ctx)
	if err != nil {
		return err
	}
	for id, own := range sequences {
		p.Sequences = append(p.Sequences, exchange.ArchiveSequence{ID: visit.UUID(id), Own: own})
	}
	notes, err := t.AtlasNotes(ctx)
	if err != nil {
		return err
	}
	for _, n := range notes {
		p.Notes = append(p.Notes, exchange.ArchiveNote{Muscle: ids.Muscle(n.Muscle), Text: n.Text})
	}
	sites, err := t.AtlasSites(ctx)
	if err != nil {
		return err
	}
	for _, s := range sites {
		p.Sites = append(p.Sites, exchange.ArchiveSite{
			ID: visit.UUID(s.ID.String()), Muscle: ids.Muscle(s.Muscle), Name: s.Name, Figure: s.Figure, Note: s.Note,
			Place: atlas.FibrePlace{Fibre: s.Fibre, AlongPct: s.AlongPct, AcrossMM: s.AcrossMM},
		})
	}
	if !p.Empty() {
		a.Practice = &p
	}
	return nil
}
