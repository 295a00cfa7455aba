package visit

import "mokren/core/rights"

var reactionNoted = kind{
	name: "reaction-noted",
	body: func() Body { return new(ReactionNoted) },
	by:   rights.Role.Clinical,
}

// ReactionNoted is how the client was after the last visit.
type ReactionNoted struct {
	Since string `json:"since" enum:"better,same,worse"`
	Note  string `json:"note,omitempty" maxLength:"1000"`
}

func (b *ReactionNoted) protects() bool { return true }

func (b *ReactionNoted) sets(Event) []thing { return []thing{{"reaction", "reaction"}} }

// apply replaces it: how the client was after the last visit is asked once.
func (b *ReactionNoted) apply(r *reducer, _ Event) error {
	r.state.Reaction = b
	return nil
}

func (b *ReactionNoted) timeline() string { return "Since the last visit: " + b.Since }
