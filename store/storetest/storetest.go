// Package storetest gives each test package a fresh copy of a migrated
// database on real PostgreSQL. `make test` starts one cluster for the whole
// run; without it a package starts its own.
package storetest

import (
	"context"
	"fmt"
	"log"
	"os"
	"testing"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"

	"mokren/store"
	"mokren/store/cluster"
	"mokren/store/internal/cost"
)

// CheapPasswords lets a test program hash its passwords and passphrases at little cost.
// A hash says its own cost, so the programs under test check them as cheaply.
func CheapPasswords() {
	cost.Hashing = &argon2id.Params{Memory: 1024, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}
	cost.ScryptLogN = 10
}

// Template is the migrated database that copies are made from.
const Template = "mokren_template"

// Prepare migrates the template.
func Prepare(ctx context.Context, c *cluster.Cluster) error {
	if err := c.CreateDatabase(ctx, Template, ""); err != nil {
		return err
	}
	return store.Migrate(ctx, c.OwnerURL(Template))
}

var current struct {
	c    *cluster.Cluster
	name string
}

// Main runs a package's tests with a database of their own:
//
//	func TestMain(m *testing.M) { storetest.Main(m) }
func Main(m *testing.M) { os.Exit(run(m)) }

// MainThen runs the tests and, when all have passed, looks at what they left behind.
func MainThen(m *testing.M, look func() error) {
	code := run(m)
	if code == 0 {
		if err := look(); err != nil {
			log.Print(err)
			code = 1
		}
	}
	os.Exit(code)
}

// run takes the cluster that the tests were started beside, or makes one for a single package.
func run(m *testing.M) int {
	CheapPasswords()
	ctx := context.Background()
	var err error
	if env := os.Getenv("MOKREN_TEST_CLUSTER"); env != "" {
		if current.c, err = cluster.Reach(env); err != nil {
			log.Fatal(err)
		}
	} else {
		dir, err := os.MkdirTemp("", "mokren-test-")
		if err != nil {
			log.Fatal(err)
		}
		defer os.RemoveAll(dir)
		if current.c, err = cluster.Open(ctx, dir); err != nil {
			log.Fatal(err)
		}
		defer current.c.Stop() //nolint:errcheck // the folder goes anyway
		if err := Prepare(ctx, current.c); err != nil {
			log.Fatal(err)
		}
	}
	current.name = fmt.Sprintf("test_%x", uuid.New())[:29]
	if err := current.c.CreateDatabase(ctx, current.name, Template); err != nil {
		log.Fatal(err)
	}
	defer current.c.DropDatabase(ctx, current.name) //nolint:errcheck // the cluster goes anyway
	return m.Run()
}

// Open connects to the package's database as the app role.
func Open(t testing.TB) *store.Store {
	t.Helper()
	st, err := store.Open(URL())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	return st
}

// Bin is the folder of PostgreSQL's programs.
func Bin() string { return cluster.Programs() }

// URL of the package's database as the app role, OwnerURL as the owner.
func URL() string      { return current.c.AppURL(current.name) }
func OwnerURL() string { return current.c.OwnerURL(current.name) }
func AdminURL() string { return current.c.AdminURL(current.name) }

// Own is a database for one test, migrated, as the app and as who sees every row.
func Own(t testing.TB) (app, admin string) {
	t.Helper()
	return own(t, Template)
}

// Empty is a database with nothing in it, as who sees every row.
func Empty(t testing.TB) (admin string) {
	t.Helper()
	_, admin = own(t, "")
	return admin
}

func own(t testing.TB, template string) (app, admin string) {
	t.Helper()
	ctx := context.WithoutCancel(t.Context())
	name := "own_" + uuid.NewString()[:8]
	if err := current.c.CreateDatabase(ctx, name, template); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := current.c.DropDatabase(ctx, name); err != nil {
			t.Error(err)
		}
	})
	return current.c.AppURL(name), current.c.AdminURL(name)
}
