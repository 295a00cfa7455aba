package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"
	"strings"

	"mokren/core/calc"
	"mokren/core/decode"
	"mokren/core/ids"
)

type calcCmd struct {
	Name    string `arg:"" optional:"" help:"What to compute (see --list)."`
	List    bool   `help:"Print the names; with NAME the ids of what it ships, as JSON."`
	Example bool   `help:"Print a valid input for NAME."`
	IDs     bool   `name:"ids" help:"Print every id that the core knows, as JSON by kind."`
}

// Run answers one question. On bad input nothing goes to standard output, one
// line to standard error, and the exit code is 2.
func (c *calcCmd) Run() error {
	switch {
	case c.List && c.Name != "":
		list, ok := calc.Shipped(c.Name)
		if !ok {
			refuse(&decode.Error{
				Path: "$", Given: c.Name + " --list",
				Allowed: "--list, bench --list or sequence --list",
			})
		}
		return json.NewEncoder(os.Stdout).Encode(list)
	case c.List:
		for _, k := range calc.List() {
			fmt.Println(k.Name)
		}
		return nil
	case c.IDs:
		return printIDs()
	case c.Example:
		k, ok := calc.Find(c.Name)
		if !ok {
			_, err := calc.Run(c.Name, nil)
			refuse(err)
		}
		fmt.Println(k.Example)
		return nil
	}
	var in []byte
	if _, ok := calc.Find(c.Name); ok { // an unknown name waits for no input
		var err error
		if in, err = io.ReadAll(os.Stdin); err != nil {
			return fmt.Errorf("reading standard input: %w", err)
		}
	}
	out, err := calc.Run(c.Name, in)
	if err != nil {
		refuse(err)
	}
	_, err = os.Stdout.Write(out)
	return err
}

func refuse(err error) {
	fmt.Fprintln(os.Stderr, strings.ReplaceAll(err.Error(), "\n", " "))
	os.Exit(2)
}

// printIDs prints the core's ids by kind, with the cases of the bench.
func printIDs() error {
	b, err := ids.JSON()
	if err != nil {
		return err
	}
	var byKind map[string][]string
	if err := json.Unmarshal(b, &byKind); err != nil {
		return err
	}
	byKind["cases"], _ = calc.Shipped("bench")
	if b, err = json.MarshalIndent(byKind, "", "  "); err != nil {
		return err
	}
	fmt.Println(string(b))
	return nil
}
