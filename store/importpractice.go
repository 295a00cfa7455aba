package store

import (
	"context"
	"maps"
	"reflect"

	"github.com/google/uuid"

	"mokren/exchange"
)

// practice adds what the other practice has set and this one has not; what is set
// otherwise here stays.
func (i *importer) practice(ctx context.Context) error {
	in := i.in.Archive.Practice
	if in == nil {
		return nil
	}
	for _, add := range []func(context.Context, exchange.ArchivePractice) error{
		i.weights, i.thresholds, i.protocols, i.sequences, i.notes, i.sites,
	} {
		if err := add(ctx, *in); err != nil {
			return err
		}
	}
	return nil
}

// set puts a value where there is none yet.
func (i *importer) set(ctx context.Context, kind, key string, there, same bool, put func() error) error {
	if there {
		if !same {
			i.counts.Stayed++
		}
		return nil
	}
	if err := put(); err != nil {
		return err
	}
	i.counts.Set++
	var version int64
	if err := i.tx.GetContext(ctx, &version, `select set_version($1, $2)`, kind, key); err != nil {
		return found("noting what was set", err)
	}
	i.marks = append(i.marks, row{
		"practice_id": i.who.Practice, "import_id": i.id, "kind": kind, "id": uuid.Nil, "key": key, "version": version,
	})
	return nil
}

// weights takes the practice's own weights, and counts those that differ from what is here.
func (i *importer) weights(ctx context.Context, in exchange.ArchivePractice) error {
	here, err := i.Weights(ctx)
	if err != nil {
		return err
	}
	for _, w := range in.Weights {
		was, there := here[w.Evidence]
		put := func() error { return i.PutWeight(ctx, w.Evidence, &w.Ratio) }
		if err := i.set(ctx, "weight", w.Evidence, there, was == w.Ratio, put); err != nil {
			return err
		}
	}
	return nil
}

// thresholds takes the practice's own thresholds in the same way.
func (i *importer) thresholds(ctx context.Context, in exchange.ArchivePractice) error {
	here, err := i.Thresholds(ctx)
	if err != nil {
		return err
	}
	for _, t := range in.Thresholds {
		was, there := here[t.Threshold]
		put := func() error { return i.PutThreshold(ctx, t.Threshold, &t.Value) }
		if err := i.set(ctx, "threshold", t.Threshold, there, was == t.Value, put); err != nil {
			return err
		}
	}
	return nil
}

// protocols are told apart by their names too: two of one name would be one to whoever
// chooses.
func (i *importer) protocols(ctx context.Context, in exchange.ArchivePractice) error {
	here, err := i.OwnProtocols(ctx)
	if err != nil {
		return err
	}
	named := map[string]bool{}
	for _, own := range here {
		named[own.Name] = true
	}
	for _, p := range in.Protocols {
		was, there := here[string(p.ID)]
		same := was.Protocol == p.Own.Protocol && was.Name == p.Own.Name && maps.Equal(was.Numbers, p.Own.Numbers)
		put := func() error { return i.PutProtocol(ctx, string(p.ID), &p.Own) }
		if err := i.set(ctx, "protocol", string(p.ID), there || named[p.Own.Name], same, put); err != nil {
			return err
		}
	}
	return nil
}

// sequences are told apart by their names too, like protocols.
func (i *importer) sequences(ctx context.Context, in exchange.ArchivePractice) error {
	here, err := i.OwnSequences(ctx)
	if err != nil {
		return err
	}
	named := map[string]bool{}
	for _, own := range here {
		named[own.Name] = true
	}
	for _, s := range in.Sequences {
		was, there := here[string(s.ID)]
		put := func() error { return i.PutSequence(ctx, string(s.ID), &s.Own) }
		same := reflect.DeepEqual(was, s.Own)
		if err := i.set(ctx, "sequence", string(s.ID), there || named[s.Own.Name], same, put); err != nil {
			return err
		}
	}
	return nil
}

// notes takes the practice's words beside the atlas; a text that is here already stays.
func (i *importer) notes(ctx context.Context, in exchange.ArchivePractice) error {
	list, err := i.AtlasNotes(ctx)
	if err != nil {
		return err
	}
	here := map[string]string{}
	for _, n := range list {
		here[n.Muscle] = n.Text
	}
	for _, n := range in.Notes {
		muscle := string(n.Muscle)
		was, there := here[muscle]
		put := func() error { return i.PutAtlasNote(ctx, AtlasNote{Muscle: muscle, Text: n.Text}) }
		if err := i.set(ctx, "note", muscle, there, was == n.Text, put); err != nil {
			return err
		}
	}
	return nil
}

// sites that were removed here stay removed.
func (i *importer) sites(ctx context.Context, in exchange.ArchivePractice) error {
	var list []AtlasSite
	if err := i.tx.SelectContext(ctx, &list, `select id, muscle, name, figure, fibre, along_pct, across_mm, note
		from atlas_site`); err != nil {
		return found("listing the practice's sites", err)
	}
	here := map[uuid.UUID]AtlasSite{}
	for _, s := range list {
		here[s.ID] = s
	}
	for _, s := range in.Sites {
		site := AtlasSite{
			ID: uuid.MustParse(string(s.ID)), Muscle: string(s.Muscle), Name: s.Name, Figure: s.Figure,
			Fibre: s.Place.Fibre, AlongPct: s.Place.AlongPct, AcrossMM: s.Place.AcrossMM, Note: s.Note,
		}
		was, there := here[site.ID]
		put := func() error { return i.PutAtlasSite(ctx, site) }
		if err := i.set(ctx, "site", string(s.ID), there, was == site, put); err != nil {
			return err
		}
	}
	return nil
}
