package main

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The page that ships is of what ships.
func TestThePageIsFresh(t *testing.T) {
	var now bytes.Buffer
	require.NoError(t, run(&now, "../.."))
	kept, err := os.ReadFile("../../ui/public/licences.txt")
	require.NoError(t, err)
	assert.Equal(t, string(kept), now.String(), "make licences")
	for _, part := range []string{"Go\n", "react ", "@fontsource-variable/figtree ", "github.com/go-chi/chi/v5 "} {
		assert.Contains(t, now.String(), "\n"+part)
	}
}

func TestALicenceIsReadFromItsText(t *testing.T) {
	folder := t.TempDir()
	text := "MIT License\n\nCopyright (c) 2020 An Author\n\nPermission is hereby granted, free of charge, to any\n"
	require.NoError(t, os.WriteFile(filepath.Join(folder, "LICENSE.md"), []byte(text), 0o644))
	c := component{name: "a", folder: folder}
	require.NoError(t, c.read())
	assert.Equal(t, "MIT", c.licence)
	assert.Equal(t, []string{"Copyright (c) 2020 An Author"}, c.copyright)
	assert.NotContains(t, c.text, "An Author")
}

func TestWhatHasNoLicenceIsAnError(t *testing.T) {
	c := component{name: "a", version: "1.0", folder: t.TempDir()}
	assert.ErrorContains(t, c.read(), `a 1.0: licence ""`)
	c.licence = "Proprietary-1"
	assert.ErrorContains(t, c.read(), "Proprietary-1")
}
