package api_test

import (
	"bytes"
	"fmt"
	"mime"
	"net/http"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/rights"
	"mokren/demo"
	"mokren/store/storetest"
)

// description is the published one, read by a library of JSON Schema that is not the server's.
type description struct {
	doc     map[string]any
	schemas *jsonschema.Compiler
	// paths are the described ones, those without variables first.
	paths []describedPath

	mu       sync.Mutex
	compiled map[string]*jsonschema.Schema
	// answered are the operations that have given a real answer in this run.
	answered map[string]bool
}

type describedPath struct {
	re  *regexp.Regexp
	ops map[string]any
	at  string // JSON pointer
}

const descriptionAt = "file:///openapi.json"

var described = sync.OnceValue(func() *description {
	raw, err := api.OpenAPI()
	if err != nil {
		panic(err)
	}
	whole, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	if err != nil {
		panic(err)
	}
	d := &description{
		doc: whole.(map[string]any), schemas: jsonschema.NewCompiler(), compiled: map[string]*jsonschema.Schema{},
		answered: map[string]bool{},
	}
	d.schemas.DefaultDraft(jsonschema.Draft2020)
	if err := d.schemas.AddResource(descriptionAt, whole); err != nil {
		panic(err)
	}
	variable := regexp.MustCompile(`\\\{[^}]*\\\}`)
	for path, ops := range d.doc["paths"].(map[string]any) {
		re := regexp.MustCompile("^" + variable.ReplaceAllString(regexp.QuoteMeta(path), "[^/]+") + "$")
		pointer := "/paths/" + strings.NewReplacer("~", "~0", "/", "~1").Replace(path)
		d.paths = append(d.paths, describedPath{re, ops.(map[string]any), pointer})
	}
	slices.SortFunc(d.paths, func(a, b describedPath) int {
		return strings.Count(a.at, "{") - strings.Count(b.at,
			"{")
	})
	return d
})

// check holds a real answer against the description: its status and media type are described, and a
// JSON document is of its shape.
func (d *description) check(t *testing.T, method, path string, res *http.Response, raw []byte) {
	t.Helper()
	path, _, _ = strings.Cut(path, "?")
	for _, p := range d.paths {
		op, ok := p.ops[strings.ToLower(method)].(map[string]any)
		if !ok || !p.re.MatchString(path) {
			continue
		}
		status := strconv.Itoa(res.StatusCode)
		id := op["operationId"].(string)
		answer, ok := op["responses"].(map[string]any)[status].(map[string]any)
		if !ok {
			t.Errorf("%s answers %s, which is not described: %s", id, status, raw[:min(len(raw), 300)])
			return
		}
		if res.StatusCode < 300 {
			d.mu.Lock()
			d.answered[id] = true
			d.mu.Unlock()
		}
		d.shape(t, id, status, p.at+"/"+strings.ToLower(method)+"/responses/"+status, answer, res, raw)
		return
	}
}

func (d *description) shape(
	t *testing.T, id, status, at string, answer map[string]any, res *http.Response, raw []byte,
) {
	t.Helper()
	if len(raw) == 0 {
		return
	}
	kind, _, err := mime.ParseMediaType(res.Header.Get("Content-Type"))
	require.NoError(t, err, "%s %s", id, status)
	content, _ := answer["content"].(map[string]any)
	media, ok := content[kind].(map[string]any)
	if !ok {
		t.Errorf("%s answers %s as %s, which is not described", id, status, kind)
		return
	}
	if schema, _ := media["schema"].(map[string]any); schema["format"] == "binary" || !strings.Contains(kind, "json") {
		return
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	pointer := at + "/content/" + strings.NewReplacer("~", "~0", "/", "~1").Replace(kind) + "/schema"
	compiled := d.compiled[pointer]
	if compiled == nil {
		if compiled, err = d.schemas.Compile(descriptionAt + "#" + strings.ReplaceAll(strings.ReplaceAll(pointer,
			"{", "%7B"), "}", "%7D")); err != nil {
			t.Errorf("%s: the description of %s cannot be read: %v", id, status, err)
			return
		}
		d.compiled[pointer] = compiled
	}
	var doc any = string(raw) // lines of JSON are described as one text
	if kind != "application/jsonl" {
		doc, err = jsonschema.UnmarshalJSON(bytes.NewReader(raw))
		require.NoError(t, err, "%s %s", id, status)
	}
	if err := compiled.Validate(doc); err != nil {
		t.Errorf("%s answers %s otherwise than described: %v", id, status, err)
	}
}

// unanswered are operations that no test of this package calls with success; each has its reason.
var unanswered = map[string]string{
	"calc":   "stands for every computation in the table of rights",
	"set-up": "of a server without a practice: cmd/mokren's own tests have one",
}

// TestMain holds, after all tests, that every operation has given a real answer of its described
// shape; a run of some tests alone cannot tell.
func TestMain(m *testing.M) {
	storetest.MainThen(m, func() error {
		if slices.ContainsFunc(os.Args, func(a string) bool { return strings.HasPrefix(a, "-test.run=") }) {
			return nil
		}
		var missing []string
		for _, id := range rights.Operations() {
			if !described().answered[id] && unanswered[id] == "" {
				missing = append(missing, id)
			}
		}
		if len(missing) > 0 {
			return fmt.Errorf("no real answer was held against the description of %v", missing)
		}
		return nil
	})
}

// An appointment is moved, and a client waits and waits no more.
func TestTheDiaryIsChanged(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	var d api.Diary
	c.call("GET", "/api/diary?days=42&from="+time.Now().AddDate(0, 0, -1).Format(time.DateOnly), nil, &d)
	i := slices.IndexFunc(d.Visits, func(v api.Visit) bool { return v.OpenedAt == nil && v.Status == "booked" })
	require.GreaterOrEqual(t, i, 0)
	v := d.Visits[i]
	var out api.BookingResult
	moved := map[string]any{
		"therapist": v.TherapistID, "starts_at": "2033-03-03T09:00:00Z", "minutes": 45, "status": "booked",
		"revision": v.Revision,
	}
	require.Equal(t, 200, c.call("PUT", "/api/visits/"+v.ID+"/booking", moved, &out).StatusCode)
	require.Len(t, out.Visits, 1)
	assert.Equal(t, 45, out.Visits[0].Minutes)
	id := uuid.NewString()
	for _, waits := range []bool{true, false} {
		body := map[string]any{"id": id, "client": v.Client, "minutes": 60, "note": "mornings", "done": !waits}
		require.Equal(t, 204, c.call("PUT", "/api/waiting/"+id, body, nil).StatusCode)
		c.call("GET", "/api/diary?from=2033-03-03&days=1", nil, &d)
		there := slices.ContainsFunc(d.Waiting, func(w api.WaitingItem) bool { return w.ID == id })
		assert.Equal(t, waits, there)
	}
}

// Every operation says how one is known to it, and files are of their media type.
func TestTheDescriptionIsWhole(t *testing.T) {
	d := described()
	assert.NotEmpty(t, d.doc["servers"])
	assert.Contains(t, d.doc["components"].(map[string]any)["securitySchemes"], "session")
	for _, p := range d.paths {
		for _, x := range p.ops {
			op := x.(map[string]any)
			id := op["operationId"].(string)
			_, said := op["security"].([]any)
			assert.True(t, said || rights.MayCall(rights.Client, id), "%s does not say how one is known", id)
			responses := op["responses"].(map[string]any)
			for _, status := range []string{"400", "422", "500", "503"} {
				assert.Contains(t, responses, status, id)
			}
			if strings.HasPrefix(id, "print-") {
				assert.Contains(t, responses["200"].(map[string]any)["content"], "application/pdf", id)
			}
		}
	}
}
