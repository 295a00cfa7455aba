package api

import (
	"net/http"
	"slices"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/rights"
)

// The scheme by which everybody but a client's own device is known.
const sessionScheme = "session"

// describe completes the description of the operations with what no single one of them says: where
// they are, how one is known to them, the errors that any of them may give, and of which media type
// a file is.
func describe(o *huma.OpenAPI, cookie string) {
	o.Servers = []*huma.Server{{URL: "/", Description: "The server that this description comes from"}}
	if o.Components.SecuritySchemes == nil {
		o.Components.SecuritySchemes = map[string]*huma.SecurityScheme{}
	}
	o.Components.SecuritySchemes[sessionScheme] = &huma.SecurityScheme{
		Type: "apiKey", In: "cookie", Name: cookie,
		Description: "Set by POST /api/session. A client's own device has a code in the address instead.",
	}
	for _, path := range o.Paths {
		for _, op := range operationsOf(path) {
			describeOne(o, op)
		}
	}
}

func operationsOf(p *huma.PathItem) []*huma.Operation {
	return slices.DeleteFunc([]*huma.Operation{p.Get, p.Put, p.Post, p.Delete, p.Patch},
		func(o *huma.Operation) bool { return o == nil })
}

func describeOne(o *huma.OpenAPI, op *huma.Operation) {
	op.Security = []map[string][]string{{sessionScheme: {}}}
	errors := []int{
		http.StatusBadRequest, http.StatusForbidden, http.StatusUnprocessableEntity, http.StatusTooManyRequests,
		http.StatusInternalServerError, http.StatusServiceUnavailable,
	}
	if rights.MayCall(rights.Client, op.OperationID) {
		op.Security = []map[string][]string{}
	} else {
		errors = append(errors, http.StatusUnauthorized)
	}
	for _, p := range op.Parameters {
		if p.In == "path" {
			errors = append(errors, http.StatusNotFound)
		}
	}
	if op.RequestBody != nil {
		errors = append(errors, http.StatusRequestTimeout, http.StatusRequestEntityTooLarge)
	}
	model := o.Components.Schemas.Map()["ErrorModel"]
	for _, status := range errors {
		code := strconv.Itoa(status)
		if model == nil || op.Responses[code] != nil {
			continue
		}
		op.Responses[code] = &huma.Response{
			Description: http.StatusText(status),
			Content: map[string]*huma.MediaType{
				"application/problem+json": {Schema: &huma.Schema{Ref: schemasAt + "ErrorModel"}},
			},
		}
	}
	if kinds := filesOf[op.OperationID]; kinds != nil {
		ok := op.Responses["200"]
		ok.Content = map[string]*huma.MediaType{}
		for _, kind := range kinds {
			ok.Content[kind] = &huma.MediaType{Schema: &huma.Schema{Type: "string", Format: "binary"}}
		}
	}
}

// Media types of files, without parameters.
const (
	csvMedia = "text/csv"
	pdfMedia = "application/pdf"
	icsMedia = "text/calendar"
	svgMedia = "image/svg+xml"
)

// filesOf are the media types that an operation answers with, where that is no JSON document of its
// own shape.
var filesOf = map[string][]string{
	"export-client":   {jsonKind, fhirKind, "application/fhir+ndjson", "text/vcard", csvMedia, svgMedia, zipKind},
	"export-practice": {jsonKind, fhirKind, "application/fhir+ndjson", "text/vcard", csvMedia},
	"audit-file":      {csvMedia},
	"receipts-file":   {csvMedia},
	"bench-file":      {csvMedia},
	"print-receipt":   {pdfMedia},
	"print-visit":     {pdfMedia},
	"print-client":    {pdfMedia},
	"print-blank":     {pdfMedia},
	"visit-date":      {icsMedia},
	"figure-svg":      {svgMedia},
	"photo-image":     {"image/jpeg"},
	"photo-thumb":     {"image/jpeg"},
}
