package main

import (
	"fmt"
	"maps"
	"os"
	"path"
	"path/filepath"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/safety"
	"mokren/core/sequence"
	"mokren/core/solid"
)

// laidOut are the values that the browser's core has as data of its own in place of files, by the
// folder of their package.
var laidOut = map[string]func() map[string]any{
	"core/atlas": atlas.StartData, "core/body": body.StartData, "core/safety": safety.StartData,
	"core/sequence": sequence.StartData, "core/solid": solid.StartData,
}

// layOut writes, for each package, what stands in the place of its laid.go.
func layOut(into string, replace map[string]string) error {
	for folder, values := range laidOut {
		name := filepath.Join(into, "laid_"+path.Base(folder)+".go")
		if err := os.WriteFile(name, source(folder, values()), 0o644); err != nil {
			return err
		}
		replace[filepath.Join(folder, "laid.go")] = name
	}
	return nil
}

// literals writes values as the compiler can lay them out: no map, and nothing made at run time.
type literals struct {
	// home is the package that they are written for; imports are the others.
	home    string
	imports map[string]bool
	// apart are numbers and texts that are pointed to.
	apart strings.Builder
	count int
}

// source is a Go file with a function for each value.
func source(folder string, values map[string]any) []byte {
	l := &literals{home: "mokren/" + folder, imports: map[string]bool{}}
	var functions strings.Builder
	for _, name := range slices.Sorted(maps.Keys(values)) {
		v := reflect.ValueOf(values[name])
		of := l.name(v.Type())
		fmt.Fprintf(&functions, "var %[1]sLaid = %[2]s\n\nfunc %[1]s() %[3]s { return %[1]sLaid }\n\n", name,
			l.literal(v), of)
	}
	out := "package " + path.Base(folder) + "\n\n"
	for _, p := range slices.Sorted(maps.Keys(l.imports)) {
		out += "import " + strconv.Quote(p) + "\n"
	}
	return []byte(out + "\n" + l.apart.String() + functions.String())
}

// name is a type as the package at home writes it.
func (l *literals) name(t reflect.Type) string {
	switch {
	case t.Name() == "" && t.Kind() == reflect.Slice:
		return "[]" + l.name(t.Elem())
	case t.Name() == "" && t.Kind() == reflect.Array:
		return fmt.Sprintf("[%d]%s", t.Len(), l.name(t.Elem()))
	case t.Name() == "" && t.Kind() == reflect.Pointer:
		return "*" + l.name(t.Elem())
	case t.Name() == "":
		panic("a type without a name cannot be laid out: " + t.String())
	case t.PkgPath() == "" || t.PkgPath() == l.home:
		return strings.ReplaceAll(t.Name(), l.home+".", "")
	}
	l.imports[t.PkgPath()] = true
	return path.Base(t.PkgPath()) + "." + t.Name()
}

func (l *literals) literal(v reflect.Value) string {
	switch v.Kind() {
	case reflect.String:
		return strconv.Quote(v.String())
	case reflect.Bool:
		return strconv.FormatBool(v.Bool())
	case reflect.Int:
		return strconv.FormatInt(v.Int(), 10)
	case reflect.Float64:
		return strconv.FormatFloat(v.Float(), 'g', -1, 64)
	case reflect.Pointer:
		return l.pointer(v)
	case reflect.Slice, reflect.Array:
		if v.Kind() == reflect.Slice && v.IsNil() {
			return "nil"
		}
		items := make([]string, v.Len())
		for i := range items {
			items[i] = l.literal(v.Index(i))
		}
		return l.name(v.Type()) + "{" + strings.Join(items, ", ") + "}"
	case reflect.Struct:
		var fields []string
		for i := range v.NumField() {
			if f := v.Field(i); !f.IsZero() {
				fields = append(fields, v.Type().Field(i).Name+": "+l.literal(f))
			}
		}
		return l.name(v.Type()) + "{" + strings.Join(fields, ", ") + "}"
	}
	panic("cannot be laid out: " + v.Type().String())
}

// pointer points to a structure as it stands, and to any other value beside it.
func (l *literals) pointer(v reflect.Value) string {
	switch {
	case v.IsNil():
		return "nil"
	case v.Elem().Kind() == reflect.Struct:
		return "&" + l.literal(v.Elem())
	}
	l.count++
	fmt.Fprintf(&l.apart, "var laid%d %s = %s\n", l.count, l.name(v.Elem().Type()), l.literal(v.Elem()))
	return fmt.Sprintf("&laid%d", l.count)
}
