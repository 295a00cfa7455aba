// Command precompress writes a brotli twin beside every script, style and
// WebAssembly file of a folder, so that the server never compresses.
package main

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"slices"

	"github.com/andybalholm/brotli"
)

func main() {
	files, err := filepath.Glob(filepath.Join(os.Args[1], "*"))
	if err != nil {
		fail(err)
	}
	for _, f := range files {
		if !slices.Contains([]string{".js", ".css", ".wasm"}, filepath.Ext(f)) {
			continue
		}
		raw, err := os.ReadFile(f)
		if err != nil {
			fail(err)
		}
		var b bytes.Buffer
		w := brotli.NewWriterOptions(&b, brotli.WriterOptions{Quality: brotli.BestCompression, LGWin: 24})
		if _, err := w.Write(raw); err != nil {
			fail(err)
		}
		if err := w.Close(); err != nil {
			fail(err)
		}
		if err := os.WriteFile(f+".br", b.Bytes(), 0o644); err != nil {
			fail(err)
		}
		fmt.Printf("%8d → %8d  %s\n", len(raw), b.Len(), filepath.Base(f))
	}
}

func fail(err error) {
	fmt.Fprintln(os.Stderr, "precompress:", err)
	os.Exit(1)
}
