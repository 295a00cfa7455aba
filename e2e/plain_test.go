package e2e

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/ids"
)

// english are ids that are words of the trade as they are.
var english = []string{
	"no-show", "contract-relax", "toe-touch", "follow-up", "self-care", "trigger-point", "half-kneeling",
}

// programmers finds what only a programmer writes: an id of the vocabulary that is not a word,
// a path of a field, a number that was not rounded, a date that is not written the practice's way.
var programmers = func() []*regexp.Regexp {
	var out []*regexp.Regexp
	for _, bad := range []string{
		`\$\.[a-z_]+`, `\b\d+\.\d{3,}\b`, `\b[a-z]+_[a-z_]+\b`, `\b\d{4}-\d{2}-\d{2}\b`,
	} {
		out = append(out, regexp.MustCompile(bad))
	}
	var list []string
	for _, k := range ids.All() {
		for _, id := range k.IDs {
			if strings.ContainsAny(id, "-.:") && !slices.Contains(english, id) {
				list = append(list, regexp.QuoteMeta(id))
			}
		}
	}
	// The longest first, so that what is found is named whole.
	slices.SortFunc(list, func(a, b string) int { return len(b) - len(a) })
	return append(out, regexp.MustCompile(`(?:^|[\s(,;:])(`+strings.Join(list, "|")+`)(?:$|[\s),;.:!?])`))
}()

// readsPlainly looks for what is no language in the text of a page.
func readsPlainly(p *page, name string) {
	p.t.Helper()
	text := p.text()
	for _, r := range programmers {
		for _, found := range r.FindAllString(text, 3) {
			assert.Fail(p.t, "no word for a reader", "%s: %q", name, strings.TrimSpace(found))
		}
	}
}

func TestWhatIsNoLanguageIsFound(t *testing.T) {
	found := func(text string) bool {
		return slices.ContainsFunc(programmers, func(r *regexp.Regexp) bool { return r.MatchString(text) })
	}
	for _, bad := range []string{
		"Test: resisted:scapula.elevation, right positive.", "Emergency: bladder-bowel-change.",
		"$.cap_seconds: given 60",
		"65.602 s in the position of ease", "until cap_seconds", "c4 (levator-scapulae)", "until 2028-04-13",
	} {
		assert.True(t, found(bad), bad)
	}
	for _, good := range []string{
		"A no-show by contract-relax, 3.5 of 10; side-bend left, 12.5°.",
		"Levator scapulae: re-read the well-known follow-up.",
	} {
		assert.False(t, found(good), good)
	}
}
