package decode_test

import (
	"encoding/json"
	"testing"

	"mokren/core/decode"
)

// What is taken in strictly is what it was: written out and read again, nothing changes.
func FuzzDecode(f *testing.F) {
	for _, seed := range []string{
		`{"name":"a","score":3.5,"items":[{"side":"left"}],"pair":[1,2],"map":{"x":1},"raw":{"y":[null]}}`,
		`{"name":"a","Name":"b"}`, `{"name":null}`, `[]`, `{"name":"` + "\xff" + `"}`, `{"count":1e400}`,
	} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var s, again sample
		if decode.JSON(raw, &s) != nil {
			return
		}
		if !json.Valid(raw) {
			t.Fatalf("taken in, and not JSON: %q", raw)
		}
		out, err := json.Marshal(s)
		if err != nil {
			t.Fatal(err)
		}
		if err := decode.JSON(out, &again); err != nil {
			t.Fatalf("%q was taken in, %q is not: %v", raw, out, err)
		}
	})
}
