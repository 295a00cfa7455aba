// Command licences writes the licences of everything that ships in the program or its pages:
// Go modules of the binary, npm packages of the pages, fonts among them.
//
//	go run ./cmd/licences > ui/public/licences.txt
//
// Each is named with its version, its licence and its copyright lines; texts that are alike
// but for those lines are printed once. What has no licence, or one that is not on the list
// below, is an error: somebody has to look at it.
package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"slices"
	"strings"
)

// component is one thing that ships.
type component struct {
	name, version string
	folder        string
	licence       string // SPDX id
	copyright     []string
	text          string
}

func main() {
	if err := run(os.Stdout, "."); err != nil {
		fmt.Fprintln(os.Stderr, "licences:", err)
		os.Exit(1)
	}
}

func run(w io.Writer, root string) error {
	list, err := modules(root)
	if err != nil {
		return err
	}
	pages, err := packages(root)
	if err != nil {
		return err
	}
	list = append(append(list, pages...), fonts(root)...)
	slices.SortFunc(list, func(a, b component) int {
		return strings.Compare(a.name+" "+a.version, b.name+" "+b.version)
	})
	var bad []error
	for i := range list {
		if err := list[i].read(); err != nil {
			bad = append(bad, err)
		}
	}
	if len(bad) > 0 {
		return errors.Join(bad...)
	}
	return write(w, list)
}

// modules are those that go into the binary, and Go itself.
func modules(root string) ([]component, error) {
	cmd := exec.Command("go", "list", "-deps", "-f",
		"{{with .Module}}{{if not .Main}}{{.Path}}\t{{.Version}}\t{{.Dir}}{{end}}{{end}}", "./cmd/mokren")
	cmd.Dir = root
	raw, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("listing the modules of ./cmd/mokren: %w", err)
	}
	lines := strings.Split(strings.TrimSpace(string(raw)), "\n")
	slices.Sort(lines)
	list := []component{{name: "Go", folder: filepath.Clean(runtime.GOROOT())}}
	for _, l := range slices.Compact(lines) {
		if f := strings.Split(l, "\t"); len(f) == 3 {
			list = append(list, component{name: f[0], version: f[1], folder: f[2]})
		}
	}
	return list, nil
}

// packages are what the pages are built from: the production tree of the lock file.
func packages(root string) ([]component, error) {
	raw, err := os.ReadFile(filepath.Join(root, "ui", "package-lock.json"))
	if err != nil {
		return nil, err
	}
	var lock struct {
		Packages map[string]struct {
			Version string
			Licence string `json:"license"`
			Dev     bool
			Peer    bool
			Link    bool
		}
	}
	if err := json.Unmarshal(raw, &lock); err != nil {
		return nil, fmt.Errorf("reading package-lock.json: %w", err)
	}
	var list []component
	for path, p := range lock.Packages {
		i := strings.LastIndex(path, "node_modules/")
		if i < 0 || p.Dev || p.Link {
			continue
		}
		folder := filepath.Join(root, "ui", path)
		if _, err := os.Stat(folder); err != nil {
			continue // an optional one that is not of this machine
		}
		list = append(list, component{
			name: path[i+len("node_modules/"):], version: p.Version, folder: folder, licence: p.Licence,
		})
	}
	return list, nil
}

// fonts are those of the printed pages; exchange/paper/fonts/README.md says where each is from.
func fonts(root string) []component {
	of := func(name, version, folder, licence string) component {
		return component{
			name: name, version: version, licence: licence,
			folder: filepath.Join(root, "exchange", "paper", "fonts", folder),
		}
	}
	return []component{
		of("font DejaVu Sans", "2.37", "dejavu", "Bitstream-Vera"),
		of("font Droid Sans Fallback", "6.0.1", "droid", "Apache-2.0"),
		of("font NanumGothicCoding", "20200506", "nanum", "OFL-1.1"),
		of("font Symbola", "2.60", "symbola", "LicenseRef-free-for-any-use"),
	}
}

// kinds are told by words of their texts; the first that fits.
var kinds = []struct{ words, spdx string }{
	{"Apache License", "Apache-2.0"},
	{"Mozilla Public License", "MPL-2.0"},
	{"SIL OPEN FONT LICENSE", "OFL-1.1"},
	{"Permission is hereby granted, free of charge", "MIT"},
	{"Permission to use, copy, modify, and/or distribute", "ISC"},
	{"Permission to use, copy, modify, and distribute", "ISC"},
	{"Neither the name", "BSD-3-Clause"},
	{"Redistribution and use in source and binary forms", "BSD-2-Clause"},
	{"This is free and unencumbered software", "Unlicense"},
	{"CC0", "CC0-1.0"},
}

// allowed are the licences under which a part may ship here.
var allowed = []string{
	"Apache-2.0", "MPL-2.0", "OFL-1.1", "MIT", "ISC", "BSD-3-Clause", "BSD-2-Clause", "Unlicense", "CC0-1.0", "0BSD",
	"Bitstream-Vera", "LicenseRef-free-for-any-use",
}

var (
	licenceName = regexp.MustCompile(`(?i)^(licen[cs]e|copying|unlicense|ofl)([-.].*)?$`)
	owner       = regexp.MustCompile(`(?i)^\W*(copyright( \(c\)| ©)?|©|\(c\)) .*\d{4}|^\W*copyright \(c\) \D`)
)

// read finds the text of a component, its kind and who holds the copyright.
func (c *component) read() error {
	entries, err := os.ReadDir(c.folder)
	if err != nil {
		return fmt.Errorf("%s: %w", c.name, err)
	}
	for _, e := range entries {
		if !e.IsDir() && licenceName.MatchString(e.Name()) {
			raw, err := os.ReadFile(filepath.Join(c.folder, e.Name()))
			if err != nil {
				return fmt.Errorf("%s: %w", c.name, err)
			}
			c.text = strings.TrimSpace(strings.ReplaceAll(string(raw), "\r", ""))
			break
		}
	}
	for _, k := range kinds {
		if c.licence == "" && strings.Contains(c.text, k.words) {
			c.licence = k.spdx
		}
	}
	var body []string
	for l := range strings.SplitSeq(c.text, "\n") {
		if owner.MatchString(l) {
			c.copyright = append(c.copyright, strings.TrimSpace(l))
			continue
		}
		body = append(body, strings.TrimRight(l, " \t"))
	}
	c.text = strings.TrimSpace(strings.Join(body, "\n"))
	if !slices.Contains(allowed, c.licence) {
		return fmt.Errorf("%s %s: licence %q; allowed: %s", c.name, c.version, c.licence, strings.Join(allowed, ", "))
	}
	return nil
}

const head = `Mokren is made from the parts below. Each is named with its licence and who
holds its copyright; the texts follow, each once.
`

func write(w io.Writer, list []component) error {
	var b bytes.Buffer
	b.WriteString(head)
	var texts []string
	number := map[string]int{}
	for _, c := range list {
		key := strings.Join(strings.Fields(c.text), " ")
		if c.text != "" && number[key] == 0 {
			texts = append(texts, c.text)
			number[key] = len(texts)
		}
		fmt.Fprintf(&b, "\n%s", strings.TrimSpace(c.name+" "+c.version))
		fmt.Fprintf(&b, "\n    %s", c.licence)
		if n := number[key]; n > 0 {
			fmt.Fprintf(&b, ", text %d", n)
		}
		for _, o := range c.copyright {
			fmt.Fprintf(&b, "\n    %s", o)
		}
		b.WriteString("\n")
	}
	for i, t := range texts {
		fmt.Fprintf(&b, "\n%s\nText %d\n\n%s\n", strings.Repeat("-", 72), i+1, t)
	}
	_, err := w.Write(b.Bytes())
	return err
}
