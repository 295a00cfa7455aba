package exchange

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A table of more columns than anyone has, or of a cell as long as a book, is refused
// before it is gone through.
func TestATableIsBounded(t *testing.T) {
	header := func(n int) string { return "given_name,family_name" + strings.Repeat(",x", n-2) }
	rows := func(text string) (r Report, n int) {
		read(t.Context(), []byte(text), Choices{}, []string{"given_name"}, []string{"given_name", "family_name"}, &r,
			func(int, func(string) string) { n++ })
		return r, n
	}
	r, n := rows(header(400_000) + "\nAda,Holt\n")
	require.Len(t, r.Problems, 1)
	assert.Equal(t, "header", r.Problems[0].Field)
	assert.Equal(t, "400000 columns", r.Problems[0].Given)
	assert.Zero(t, n)
	name := func(n int) string { return strings.Repeat("a", n) + ",Holt\n" }
	r, n = rows("given_name,family_name\n" + name(maxCell+1) + name(maxCell))
	require.Len(t, r.Problems, 1)
	assert.Equal(t, 2, r.Problems[0].Row)
	assert.Equal(t, 1, n, "the other row is read")
}

// A table is read no further once its caller has gone.
func TestReadingStopsWithItsCaller(t *testing.T) {
	table := "given_name,family_name\n" + strings.Repeat("Ana,Ilic\n", 5000)
	ctx, leave := context.WithCancel(t.Context())
	var r Report
	rows := 0
	read(ctx, []byte(table), Choices{}, []string{"given_name"}, clientColumns, &r, func(int, func(string) string) {
		if rows++; rows == 10 {
			leave()
		}
	})
	assert.Less(t, rows, 1000, "what was read ahead, and no more")
	assert.False(t, r.Fine())
}
