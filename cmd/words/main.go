// Command words keeps terms out that were replaced by plainer ones: it reads the declarations
// of all Go packages and names those that bring one back.
//
//	go run ./cmd/words
//
// It looks at what is declared (packages, types, functions, constants, variables), not at
// single English words: a comment may speak of a door. Names that files and programs rely on
// (JSON fields, values of events, released migrations) are not declarations and stay.
package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
)

// instead says what to write for a word of an identifier, wherever it stands in it.
var instead = map[string]string{
	"steering": "strategy",
	"school":   "protocol",
	"bracket":  "bounds",
	"jotted":   "write-ahead",
	"trouble":  "error",
	"door":     "sign-in, or what it leads to",
}

// names may not be declared as a whole.
var names = map[string]string{
	"Law": "Rules", "Judge": "Validator", "Aside": "Rejected", "Standing": "SyncStatus", "Gone": "Cancelled",
	"Written": "UnitPreferences", "tablesOf": "projectionVersion",
	"Told": "what it holds", "Led": "Guidance", "Sought": "what it holds", "Known": "what it holds",
	"Wanted": "what it holds", "Named": "what it holds", "Given": "what it holds",
	"Felt": "what it holds", "Done": "what it holds", "Taken": "what it holds", "Noted": "what it holds",
}

// packages may not be named so.
var packages = map[string]string{"strict": "decode", "order": "stable", "door": "bridge"}

func main() {
	found, err := check(".")
	if err != nil {
		fmt.Fprintln(os.Stderr, "words:", err)
		os.Exit(1)
	}
	for _, f := range found {
		fmt.Println(f)
	}
	if len(found) > 0 {
		os.Exit(1)
	}
}

func check(root string) ([]string, error) {
	var found []string
	fset := token.NewFileSet()
	err := filepath.WalkDir(root, func(path string, d os.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && slices.Contains([]string{"node_modules", "testdata", ".git", ".mokren"}, d.Name()) {
			return filepath.SkipDir
		}
		if filepath.Ext(path) != ".go" {
			return nil
		}
		file, err := parser.ParseFile(fset, path, nil, parser.SkipObjectResolution)
		if err != nil {
			return err
		}
		for _, f := range declared(file) {
			if say := wrong(f); say != "" {
				found = append(found, fmt.Sprintf("%s: %s", fset.Position(f.at), say))
			}
		}
		return nil
	})
	return found, err
}

// declaration is a name with what it names.
type declaration struct {
	name string
	kind string // package, type, func, value
	at   token.Pos
}

func declared(file *ast.File) []declaration {
	out := []declaration{{file.Name.Name, "package", file.Package}}
	for _, d := range file.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			out = append(out, declaration{d.Name.Name, "func", d.Name.Pos()})
		case *ast.GenDecl:
			for _, s := range d.Specs {
				switch s := s.(type) {
				case *ast.TypeSpec:
					out = append(out, declaration{s.Name.Name, "type", s.Name.Pos()})
				case *ast.ValueSpec:
					for _, n := range s.Names {
						out = append(out, declaration{n.Name, "value", n.Pos()})
					}
				}
			}
		}
	}
	return out
}

var word = regexp.MustCompile(`[A-Z]?[a-z0-9]+|[A-Z]+`)

// wrong says what is wrong with a name, or "".
func wrong(d declaration) string {
	if d.kind == "package" {
		if to := packages[strings.TrimSuffix(d.name, "_test")]; to != "" {
			return fmt.Sprintf("package %s is called %s", d.name, to)
		}
		return ""
	}
	if to := names[d.name]; to != "" && (d.kind == "type" || !ast.IsExported(d.name)) {
		return fmt.Sprintf("%s %s: write %s", d.kind, d.name, to)
	}
	for _, w := range word.FindAllString(d.name, -1) {
		w = strings.ToLower(w)
		if to := instead[strings.TrimSuffix(w, "s")]; to != "" {
			return fmt.Sprintf("%s %s: write %s", d.kind, d.name, to)
		}
	}
	return ""
}
