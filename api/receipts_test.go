package api_test

import (
	"encoding/csv"
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/receipt"
	"mokren/demo"
)

// A receipt is issued from the practice's own list, numbered without gaps whoever writes at the same
// time, taken back once by a counter-receipt, printed, and listed for the accountant.
func TestReceipts(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	csvOf := "given_name,family_name,date,measure,value\nAnna,Berg,2026-01-02,nprs,4\n"
	require.NotEmpty(t, other.takeIn("clients-csv", "a", []byte("given_name,family_name\nAnna,Berg\n"), true).Import)
	require.NotEmpty(t, other.takeIn("readings-csv", "a", []byte(csvOf), true).Import)
	var all clientList
	other.call("GET", "/api/clients", nil, &all)
	var course api.Course
	other.call("GET", "/api/clients/"+all.Items[0].ID+"?all=true", nil, &course)
	visit := "/api/visits/" + course.Visits[0].ID + "/receipts"

	var prices api.PriceList
	other.call("GET", "/api/practice/prices", nil, &prices)
	assert.Zero(t, prices.Revision)
	prices.Prices = receipt.Prices{Currency: "EUR", TaxIncluded: true, Services: []receipt.Service{
		{ID: "long", Name: "Massage, 60 min", Minutes: 60, Cents: 8500, Tax: 1000},
		{ID: "oil", Name: "Oil", Cents: 1200, Tax: 2000},
	}}
	require.Equal(t, 200, other.call("PUT", "/api/practice/prices", prices, &prices).StatusCode)
	stale := prices
	stale.Revision = 0
	assert.Equal(t, 409, other.call("PUT", "/api/practice/prices", stale, nil).StatusCode)
	bad := prices
	bad.Currency = "eur"
	assert.Equal(t, 422, other.call("PUT", "/api/practice/prices", bad, nil).StatusCode)

	in := api.ReceiptIn{ID: uuid.NewString(), Lines: []api.ReceiptLine{
		{Service: "long", Minutes: 55},
		{Service: "oil"},
	}}
	var first, again api.ReceiptOut
	require.Equal(t, 200, other.call("POST", visit, in, &first).StatusCode)
	require.Equal(t, 200, other.call("POST", visit, in, &again).StatusCode)
	assert.Equal(t, first, again, "sent twice, it is issued once")
	assert.Equal(t, 1, first.Number)
	assert.Equal(t, int64(9700), first.Cents)
	assert.Equal(t, "2026-01-02", first.Day)
	in.Lines[0].Service = "gold"
	assert.Equal(t, 422, other.call("POST", visit, in, nil).StatusCode)

	var wait sync.WaitGroup
	for range 8 {
		wait.Go(func() {
			other.call("POST", visit, api.ReceiptIn{
				ID:    uuid.NewString(),
				Lines: []api.ReceiptLine{{Service: "oil"}},
			}, nil)
		})
	}
	wait.Wait()
	var counter api.ReceiptOut
	require.Equal(t, 200, other.call("POST", "/api/receipts/1/cancel", nil, &counter).StatusCode)
	assert.Equal(t, 10, counter.Number)
	assert.Equal(t, int64(-9700), counter.Cents)
	assert.Equal(t, 409, other.call("POST", "/api/receipts/1/cancel", nil, nil).StatusCode)
	assert.Equal(t, 409, other.call("POST", "/api/receipts/10/cancel", nil, nil).StatusCode)
	assert.Equal(t, 404, other.call("POST", "/api/receipts/11/cancel", nil, nil).StatusCode)
	var list struct {
		Items []api.ReceiptOut `json:"items"`
	}
	other.call("GET", visit, nil, &list)
	require.Len(t, list.Items, 10)
	for i, r := range list.Items {
		assert.Equal(t, i+1, r.Number, "no number is missing")
	}
	assert.True(t, strings.HasPrefix(string(other.file("/api/receipts/10/pdf")), "%PDF"))
	assert.Equal(t, 404, c.call("GET", "/api/receipts/10/pdf", nil, nil).StatusCode, "another practice has its own")

	file := string(other.file("/api/receipts/csv?from=2000-01-01&to=2100-01-01"))
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(file, "\ufeff"))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"EUR", "10.00", "77.27", "7.73", "85.00"}, rows[1][3:8])
	assert.Equal(t, []string{"EUR", "20.00", "-10.00", "-2.00", "-12.00", "1"}, rows[len(rows)-1][3:9])
	assert.NotContains(t, file, "Berg")

	// Erased, the record leaves number, day and sums.
	erased := other.call("POST", "/api/clients/"+all.Items[0].ID+"/erase", map[string]string{
		"name": "Anna Berg", "reason": "asked for in writing",
	}, nil)
	require.Less(t, erased.StatusCode, 300)
	file = string(other.file("/api/receipts/csv?from=2000-01-01&to=2100-01-01"))
	assert.Contains(t, file, fmt.Sprintf("%d,", 10))
	assert.Contains(t, file, "77.27")
	assert.True(t, strings.HasPrefix(string(other.file("/api/receipts/1/pdf")), "%PDF"))
}
