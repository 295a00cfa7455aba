package exchange_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/exchange"
)

// A column that is not known is named, with the one that it perhaps is.
func TestAnUnknownColumnNamesWhatItPerhapsIs(t *testing.T) {
	table := "given_name,family_name,born,shoe size\nAda,Ro,1990-02-03,39\n"
	_, r := exchange.ReadClientsCSV(t.Context(), []byte(table), exchange.Choices{})
	assert.True(t, r.Fine())
	assert.Equal(t, []exchange.OmittedCount{
		{What: "column born, perhaps born_on", N: 1}, {What: "column shoe size", N: 1},
	}, r.Left)
}
