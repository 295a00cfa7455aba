// Command eventdocs writes docs/events.md from the kinds of events of core/visit: what an
// event is, as its body's comment says, who may write it, whether it can be undone, and the
// fields of its body.
//
//	go run ./cmd/eventdocs > docs/events.md
package main

import (
	"bytes"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"reflect"
	"strings"

	"mokren/core/visit"
)

func main() {
	page, err := generate("core/visit")
	if err != nil {
		fmt.Fprintln(os.Stderr, "eventdocs:", err)
		os.Exit(1)
	}
	os.Stdout.Write(page)
}

const head = `# Events of a visit

Generated from ` + "`core/visit`" + ` by ` + "`make types`" + `; each kind of event is one file,
` + "`event_<type>.go`" + `. The envelope is described in [data-model.md](data-model.md).

| type | what it is | written by | undone by | taken by a closed visit | fields of the body |
|---|---|---|---|---|---|
`

// generate writes the page from the comments in a folder.
func generate(folder string) ([]byte, error) {
	comments, err := commentsIn(folder)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	b.WriteString(head)
	for _, k := range visit.KindsInWords() {
		t := reflect.TypeOf(k.Body).Elem()
		roles := make([]string, len(k.Roles))
		for i, r := range k.Roles {
			roles[i] = string(r)
		}
		fmt.Fprintf(&b, "| `%s` | %s | %s | %s | %s | %s |\n", k.Type, comments[t.Name()], strings.Join(roles, ", "),
			k.Undo, k.Closed, strings.Join(fields(t), ", "))
	}
	return b.Bytes(), nil
}

// commentsIn gives the comment of each type of a folder, on one line.
func commentsIn(folder string) (map[string]string, error) {
	files, err := filepath.Glob(filepath.Join(folder, "event_*.go"))
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, name := range files {
		f, err := parser.ParseFile(token.NewFileSet(), name, nil, parser.ParseComments)
		if err != nil {
			return nil, err
		}
		for _, d := range f.Decls {
			g, ok := d.(*ast.GenDecl)
			if !ok || g.Tok != token.TYPE {
				continue
			}
			for _, s := range g.Specs {
				out[s.(*ast.TypeSpec).Name.Name] = strings.Join(strings.Fields(g.Doc.Text()), " ")
			}
		}
	}
	return out, nil
}

// fields are the names of a body's fields, those of embedded structs among them.
func fields(t reflect.Type) []string {
	var out []string
	for _, f := range reflect.VisibleFields(t) {
		if f.Anonymous || !f.IsExported() {
			continue
		}
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		out = append(out, "`"+name+"`")
	}
	return out
}
