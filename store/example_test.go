package store_test

import (
	"context"
	"errors"
	"fmt"
	"log"

	"github.com/google/uuid"

	"mokren/core/rights"
	"mokren/store"
	"mokren/store/storetest"
)

// What is done as somebody happens within that person's practice: another
// practice's rows are not there.
func ExampleStore_As() {
	st, err := store.Open(storetest.URL())
	if err != nil {
		log.Fatal(err)
	}
	defer st.Close()
	ctx := context.Background()
	owner := func() store.Principal {
		return store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Owner}
	}
	here, elsewhere := owner(), owner()
	ada := store.Client{ID: uuid.New(), GivenName: "Ada", FamilyName: "Example"}

	err = st.As(ctx, here, store.Action{Verb: "write", Kind: "client"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(ctx, "Example room", "Europe/Vienna"); err != nil {
			return err
		}
		if err := tx.NewPerson(ctx, here.Person, "An Owner", "owner", "a@as.example", "secret-words"); err != nil {
			return err
		}
		return tx.PutClient(ctx, ada)
	})
	if err != nil {
		log.Fatal(err)
	}
	read := func(who store.Principal) error {
		return st.As(ctx, who, store.Action{Verb: "read", Kind: "client"}, func(tx *store.Tx) error {
			c, err := tx.Client(ctx, ada.ID)
			if err == nil {
				fmt.Println(c.GivenName, c.FamilyName)
			}
			return err
		})
	}
	if err := read(here); err != nil {
		log.Fatal(err)
	}
	fmt.Println("not found elsewhere:", errors.Is(read(elsewhere), store.ErrNotFound))

	// Output:
	// Ada Example
	// not found elsewhere: true
}
