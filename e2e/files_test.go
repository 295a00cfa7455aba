package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/demo"
)

// A table of a spreadsheet comes in: its columns are said by hand, the way of its days is chosen, a
// bad row is left out, and the next file of the kind knows the columns.
func TestATableIsTakenInByItsColumns(t *testing.T) {
	t.Parallel()
	p := openPage(t, startServer(t).addr, "/")
	p.signIn(anotherPractice(t))
	p.MustNavigate(p.base + "/practice")
	p.see("h2", "Export and import")
	table := func(name string, rows ...string) {
		file := filepath.Join(t.TempDir(), name)
		raw := strings.Join(append([]string{"Vorname;Nachname;geboren;Telefon;Notiz"}, rows...), "\r\n")
		require.NoError(t, os.WriteFile(file, []byte(raw), 0o600))
		p.MustElement(`[data-records] input[type=file]`).MustSetFiles(file)
	}
	p.click("[role=radio]", `clients \(CSV\)`)
	table("a.csv", "Käthe;Groß;9.3.1971;+43 660 1;x", "Jörg;Öller;31.2.1980;;", "Zoë;Strand;1.12.1990;;")
	p.see("[data-preview]", "has something wrong")
	p.pick("“Vorname” is", "Given name")
	p.see("[data-preview]", "family_name")
	p.pick("“Nachname” is", "Family name")
	p.see("[data-preview]", "brings 3 clients")
	p.pick("“geboren” is", "Born on")
	p.see("[data-preview]", "choose how days are written")
	p.click("[role=radio]", `^31\.12\.2026$`)
	p.see("[data-preview]", "Row 3, born_on")
	p.lookAt("import-wrong")
	p.click("button", "Leave this entry out")
	p.see("[data-preview]", "brings 2 clients")
	p.see("[data-preview]", "entry that you left out: 3")
	p.MustElement("[data-preview] button").MustScrollIntoView()
	p.lookAt("import-left-out")
	p.click("button", "^Import$")
	p.see("[role=status]", "Imported: 2 clients")
	table("b.csv", "Ira;Moor;2.2.1980;;")
	p.see("[data-preview]", "brings 1 client")
}

// A receipt is issued for a closed visit from the price list in three touches, and taken back by a
// counter-receipt that stays.
func TestAReceiptIsIssuedAndTakenBack(t *testing.T) {
	t.Parallel()
	p := signedIn(t, startServer(t).addr, demo.Logins[0])
	p.MustNavigate(p.base + "/practice")
	p.see("[data-prices]", "Massage, one hour, 60 min")
	p.MustElement("[data-prices]").MustScrollIntoView()
	p.lookAt("prices")
	opened(p, "Paid", "Close", calf)
	p.click("button", "Close the visit")
	p.see("[data-receipts]", "What was done")
	p.click("[data-receipts] button", "^Massage, one hour, 84.00$")
	p.click("[data-receipts] button", "^Ball for use at home, 9.50$")
	p.click("button", "Issue a receipt")
	p.see("[data-receipts]", "Number 1, 93.50 EUR")
	p.lookAt("receipt")
	pdf := p.fetched("/api/receipts/1/pdf")
	assert.True(t, strings.HasPrefix(pdf, "%PDF-"))
	p.click("[data-receipts] button", "^Take it back$")
	p.click("[data-receipts] button", "for good")
	p.see("[data-receipts]", "takes number 1 back")
	p.see("[data-receipts]", "Number 2, −93.50 EUR")
}

// lookAt keeps a picture where somebody looks at them.
func (p *page) lookAt(name string) {
	p.t.Helper()
	if dir := os.Getenv("MOKREN_LOOK"); dir != "" {
		p.still()
		p.shot(filepath.Join(dir, name+".png"))
	}
}
