package exchange

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// What a spreadsheet would take for a formula is text, whatever stands before it.
func TestFormulasAreTextBehindSpacesAndInWideSignsToo(t *testing.T) {
	for _, s := range []string{"=1+1", " =1+1", "   @SUM(A1)", "＝1+1", "＋cmd", "－2+3", "＠x"} {
		assert.Equal(t, "'"+s, cell(s))
		assert.Equal(t, s, uncell(cell(s)))
	}
	for _, s := range []string{"", "  ", "-3.5", " plain", "Ａ"} {
		assert.Equal(t, s, cell(s))
	}
}

// Lines of a calendar end as RFC 5545 has them.
func TestCalendarLinesEndInCRLF(t *testing.T) {
	at := time.Unix(0, 0)
	text := string(WriteCalendar("Room", []Appointment{{ID: "a", Start: at, Changed: at, Minutes: 30}}))
	assert.Equal(t, strings.Count(text, "\n"), strings.Count(text, "\r\n"))
}
