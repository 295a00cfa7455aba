package backup

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"
)

// format is the first line within a file.
const format = "mokren-backup 1"

// Manifest is what a backup holds.
type Manifest struct {
	At     time.Time `json:"at"`
	Tables []Table   `json:"tables"`
}

// Table is how many rows one has, with a checksum that no order of rows changes.
type Table struct {
	Name string `json:"name"`
	Rows int64  `json:"rows"`
	Sum  string `json:"sum"`
}

// passing are tables whose content is worth nothing after a restore.
var passing = []string{"rate", "session"}

// look counts what a database holds.
func look(ctx context.Context, db sqlx.QueryerContext, at time.Time) (Manifest, error) {
	m := Manifest{At: at.UTC()}
	var names []string
	err := sqlx.SelectContext(ctx, db, &names, `select table_name::text from information_schema.tables
		where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`)
	if err != nil {
		return m, fmt.Errorf("listing tables: %w", err)
	}
	for _, name := range names {
		if slices.Contains(passing, name) {
			continue
		}
		t := Table{Name: name}
		// Two halves of a hash, each summed: a row that changes place changes nothing.
		err := db.QueryRowxContext(ctx, fmt.Sprintf(`select count(*),
				coalesce(sum(hashtextextended(r::text, 0)::numeric), 0)::text || ' '
					|| coalesce(sum(hashtextextended(r::text, 1)::numeric), 0)::text from %q r`, name)).Scan(&t.Rows, &t.Sum)
		if err != nil {
			return m, fmt.Errorf("counting %s: %w", name, err)
		}
		m.Tables = append(m.Tables, t)
	}
	return m, nil
}

// differs names the first table that is not as it was.
func (m Manifest) differs(now Manifest) error {
	have := map[string]Table{}
	for _, t := range now.Tables {
		have[t.Name] = t
	}
	for _, t := range m.Tables {
		if have[t.Name] != t {
			return fmt.Errorf("table %s has %d rows as restored, %d as backed up, or other content", t.Name,
				have[t.Name].Rows, t.Rows)
		}
	}
	if len(now.Tables) != len(m.Tables) {
		return fmt.Errorf("%d tables as restored, %d as backed up", len(now.Tables), len(m.Tables))
	}
	return nil
}

// write puts the manifest before the sealed part, with the format on a line of its own.
func (m Manifest) write(w io.Writer) error {
	raw, err := json.Marshal(m)
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(w, "%s\n%s\n", format, raw)
	return err
}

// readManifest reads the two lines; what follows is the dump.
func readManifest(r *bufio.Reader) (m Manifest, err error) {
	first, err := r.ReadString('\n')
	if err != nil {
		return m, fmt.Errorf("reading the backup: %w", err)
	}
	if strings.TrimSpace(first) != format {
		return m, errors.New("this file is not a backup that this program knows")
	}
	second, err := r.ReadBytes('\n')
	if err != nil {
		return m, fmt.Errorf("reading the backup: %w", err)
	}
	return m, json.Unmarshal(second, &m)
}

// Words say in short what is in it.
func (m Manifest) Words() string {
	rows := map[string]int64{}
	for _, t := range m.Tables {
		rows[t.Name] = t.Rows
	}
	return fmt.Sprintf("%d clients, %d visits, %d events, as of %s", rows["client"], rows["visit"], rows["visit_event"],
		m.At.Format(time.RFC3339))
}
