package ids

import "encoding/json"

// JSON prints every id by kind, as the command line's --ids shows it.
func JSON() ([]byte, error) {
	m := map[string][]string{}
	for _, k := range All() {
		m[k.Name] = k.IDs
	}
	return json.MarshalIndent(m, "", "  ")
}
