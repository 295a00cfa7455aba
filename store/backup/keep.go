package backup

import (
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// Keep is for how long backups are kept. The newest few stay however old they are.
type Keep struct {
	Days int
	Last int
}

// Prune throws away what is older, and gives the names of what went. An erased record
// is gone for good when the last backup that had it is.
func Prune(folder string, k Keep, now time.Time) ([]string, error) {
	entries, err := os.ReadDir(folder)
	if err != nil {
		return nil, err
	}
	type file struct {
		name string
		at   time.Time
	}
	var files []file
	for _, e := range entries {
		stem, ok := strings.CutSuffix(e.Name(), ending)
		if at, err := time.Parse("20060102T150405Z", stem); ok && err == nil && e.Type().IsRegular() {
			files = append(files, file{e.Name(), at})
		}
	}
	slices.SortFunc(files, func(a, b file) int { return b.at.Compare(a.at) })
	var gone []string
	for i, f := range files {
		if i < k.Last || now.Sub(f.at) <= time.Duration(k.Days)*24*time.Hour {
			continue
		}
		if err := os.Remove(filepath.Join(folder, f.name)); err != nil {
			return gone, err
		}
		gone = append(gone, f.name)
	}
	return gone, nil
}
