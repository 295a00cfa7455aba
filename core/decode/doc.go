// Package decode decodes JSON the way Mokren's contracts ask for: names are
// case-sensitive, unknown, repeated and misspelt fields are refused, null is
// not a value, absent and zero are told apart, and every refusal names the
// field by its JSON path, what was given and what is allowed.
//
//	var in Input
//	if err := decode.Decode(raw, &in); err != nil { … } // err is *decode.Error
//
// A field is required unless its json tag says omitempty. The tags minimum,
// maximum, multipleOf, enum (comma separated), minItems, maxItems and
// maxLength mean what they mean in JSON Schema; the HTTP layer reads the same
// tags, so a limit is written once. A type that implements Checker is asked
// for the rest.
package decode
