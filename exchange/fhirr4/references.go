package fhirr4

import (
	"encoding/json"
	"strings"

	"github.com/samply/golang-fhir-models/fhir-models/fhir"
)

// resource is one of a file, with what it may be called by.
type resource struct {
	n    int // from 1
	kind string
	raw  json.RawMessage
	// key is what it is called here: its full URL, else type and id.
	key string
	// gone tells that it was entered in error.
	gone bool
}

// index finds resources by any style of reference: full URL, an absolute or relative one of type
// and id, with or without a version, a UUID, or a business identifier.
type index map[string]string

// add notes all that a resource is called.
func (x index) add(r *resource, fullURL string) {
	var head struct {
		ID         string            `json:"id"`
		Identifier []fhir.Identifier `json:"identifier"`
	}
	if json.Unmarshal(r.raw, &head) != nil {
		head.ID = "" // its own reader will say what is wrong
	}
	r.key = fullURL
	if r.key == "" {
		r.key = r.kind + "/" + head.ID
	}
	x[r.key] = r.key
	if head.ID != "" {
		x[r.kind+"/"+head.ID] = r.key
		x["urn:uuid:"+head.ID] = r.key
	}
	if tail := typeAndID(fullURL); tail != "" {
		x[tail] = r.key
	}
	for _, i := range head.Identifier {
		if i.System != nil && i.Value != nil {
			x[r.kind+"|"+*i.System+"|"+*i.Value] = r.key
		}
	}
}

// typeAndID is the relative form of a reference: its last two parts, without a version.
func typeAndID(ref string) string {
	ref, _, _ = strings.Cut(ref, "/_history/")
	ref, _, _ = strings.Cut(ref, "?")
	parts := strings.Split(ref, "/")
	if len(parts) < 2 || strings.HasPrefix(ref, "urn:") {
		return ""
	}
	return strings.Join(parts[len(parts)-2:], "/")
}

// find gives the key of what a reference of some type names.
func (x index) find(ref *fhir.Reference, kind string) (string, bool) {
	if ref == nil {
		return "", false
	}
	if ref.Reference != nil {
		whole, _, _ := strings.Cut(*ref.Reference, "/_history/")
		for _, name := range []string{whole, typeAndID(whole)} {
			if key, ok := x[name]; ok && name != "" {
				return key, true
			}
		}
	}
	if i := ref.Identifier; i != nil && i.System != nil && i.Value != nil {
		key, ok := x[kind+"|"+*i.System+"|"+*i.Value]
		return key, ok
	}
	return "", false
}
