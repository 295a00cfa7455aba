// Package store keeps Mokren's records in PostgreSQL. There is one door:
//
//	err := st.As(ctx, principal, store.Action{Verb: "read", Kind: "client", Subject: id}, func(tx *store.Tx) error {
//		client, err = tx.Client(ctx, id)
//		return err
//	})
//
// As opens the transaction, tells PostgreSQL whose practice, person and role
// it is (row-level security does the rest) and writes the audit row. No query
// runs outside it, but for signing in.
package store
