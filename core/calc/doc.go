// Package calc answers the computations of the command-line contract: a name and a JSON
// document in, a JSON document out. The command line and the HTTP API come through here, and
// so do the pages for a few of them, so that they cannot differ.
//
//	out, err := calc.Run("change", []byte(`{"measure":"nprs","before":7,"after":4}`))
//
// Errors are validation errors and name the field by its JSON path, with what was given and
// what is allowed.
//
// # Vocabulary
//
//   - Calc: one named computation, with a summary, a valid example, and the types that go in
//     and come out. The API's description is made from them.
//   - Document: JSON in, JSON out, ending with a newline.
//   - Lines: JSON lines instead: the coach reads one event a line and answers with one.
//
// # Data flow
//
//	name, raw JSON ─▶ Find ─▶ validating decoder into In ─▶ the core's function ─▶ Out ─▶ JSON
//
// Each computation is a function from a struct to a struct, registered in list.go with one
// call. The decoder refuses unknown fields, wrong types and values out of bounds by the tags
// of the struct, before the function runs; so a function checks only what no tag can say.
//
// The functions here translate and no more: they name fields as the contract does, and call
// the package that knows. A rule that stands here stands in the wrong place.
//
// # Adding one
//
// A pair of structs and a function in the file of its subject, and a row in list.go with an
// example. The row appears in mokren calc, in the API with its description, and in the test
// that runs every example and every example with one field broken.
//
// # Invariants
//
//   - The same input gives the same bytes, natively, over HTTP and in the browser.
//   - Every field of the contract is answered, also when it is empty.
//   - A caller who leaves ends a long computation (Cancelled, RunFor); nothing goes on without
//     somebody who waits for it.
//   - Names and fields are a contract that other programs rely on: they are added to and never
//     renamed.
package calc
