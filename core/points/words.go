package points

import (
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
)

// muscleName is a muscle in words, or its id where it is not known.
func muscleName(m ids.Muscle) string {
	if d, err := atlas.Get(m); err == nil {
		return d.Name
	}
	return string(m)
}

var spaced = strings.NewReplacer("-", " ", ".", " ")

func plain(id string) string { return spaced.Replace(id) }
