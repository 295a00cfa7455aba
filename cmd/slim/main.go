// Command slim writes the core's files without what only readers need, and an overlay by
// which the compiler takes them for the browser's core: the data without white space, and
// fields without the words of the API's description. Of the module that is built it joins the
// segments of data, of which the linker makes a hundred thousand.
//
//	go run ./cmd/slim .mokren/slim && go build -overlay .mokren/slim/overlay.json -o core.wasm ./wasm
//	go run ./cmd/slim -join core.wasm
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
)

// described is the description in the tag of a field.
var described = regexp.MustCompile("(`[^`\n]*?) doc:\"[^\"\n]*\"([^`\n]*`)")

func main() {
	run, name := slim, os.Args[1]
	if name == "-join" {
		run, name = joinFile, os.Args[2]
	}
	if err := run(name); err != nil {
		fmt.Fprintln(os.Stderr, "slim:", err)
		os.Exit(1)
	}
}

// joinFile joins the data segments of a module in its place.
func joinFile(name string) error {
	module, err := os.ReadFile(name)
	if err != nil {
		return err
	}
	small, err := join(module)
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	return os.WriteFile(name, small, 0o755)
}

// slim writes the files and the overlay into a folder.
func slim(into string) error {
	if err := os.MkdirAll(into, 0o755); err != nil {
		return err
	}
	replace := map[string]string{}
	err := filepath.WalkDir("core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			if err == nil && d.Name() == "testdata" {
				return fs.SkipDir
			}
			return err
		}
		raw, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		small, err := smaller(path, raw)
		if err != nil || bytes.Equal(small, raw) {
			return err
		}
		replace[path] = filepath.Join(into, strings.ReplaceAll(path, string(filepath.Separator), "_"))
		return os.WriteFile(replace[path], small, 0o644)
	})
	if err != nil {
		return err
	}
	if err := layOut(into, replace); err != nil {
		return err
	}
	overlay, err := json.Marshal(map[string]any{"Replace": replace})
	if err != nil {
		return err
	}
	return os.WriteFile(filepath.Join(into, "overlay.json"), overlay, 0o644)
}

// smaller is a file without what only readers need; any other file as it is.
func smaller(path string, raw []byte) ([]byte, error) {
	switch {
	case strings.HasSuffix(path, ".json"):
		var out bytes.Buffer
		err := json.Compact(&out, raw)
		return out.Bytes(), err
	case strings.HasSuffix(path, ".go") && !strings.HasSuffix(path, "_test.go"):
		return described.ReplaceAll(raw, []byte("$1$2")), nil
	}
	return raw, nil
}
