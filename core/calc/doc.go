// Package calc is the door to the core: a name, a JSON document in, a JSON
// document out. The command line, the HTTP API and the browser all come
// through here, so they cannot differ.
//
//	out, err := calc.Run("change", []byte(`{"measure":"nprs","before":7,"after":4}`))
//
// Errors are *strict.Error and name the field by its JSON path.
package calc
