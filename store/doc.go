// Package store keeps Mokren's records in PostgreSQL. There is one way in:
//
//	err := st.As(ctx, principal, store.Action{Verb: "read", Kind: "client", Subject: id}, func(tx *store.Tx) error {
//		client, err = tx.Client(ctx, id)
//		return err
//	})
//
// As opens the transaction, tells PostgreSQL whose practice, person and role it is (row-level
// security does the rest) and writes the audit row. No query runs outside it, but for signing
// in and for what a link or a calendar address may see.
//
// # Vocabulary
//
//   - Principal: who asks: practice, person, role.
//   - Action: what is done to whom, for the audit.
//   - Tx: a transaction as that person. Every method of it sees the practice's rows only.
//   - Batch, receipt: what a device sends of a visit, and what became of each event of it.
//   - Projection: tables that are written from the log so that lists and searches need not
//     read it. The log is the record; a projection can be dropped and made again.
//   - Stale: somebody else changed the row since it was read. The answer holds what is there.
//   - Erasure: a record that is deleted on request, and the line that stays of it.
//
// # Data flow
//
//	device ─▶ Append: lock the client's visits ─▶ admit each event ─▶ rows, receipts, projection
//	reading a visit ─▶ Events ─▶ visit.Reduce ─▶ State
//	reading a list ─▶ projection; a visit whose projection is of an older reading is written anew
//
// A visit belongs to a client, and what one visit decides can depend on another (two treatments
// a day, an answer that lasts). So Append takes the locks of all visits of the client, in the
// order of their ids.
//
// # Migrations
//
// migrations/ is applied at start, by one copy of the program at a time (a lock in the
// database). Released files never change. They only add, so that an older copy of the program
// goes on working beside a newer one.
//
// # Invariants
//
//   - An event is never changed. What is decided about it is decided once and stored with it.
//   - Sending twice is the same as sending once, for every write of a device.
//   - The app's role in the database owns no table, and cannot switch off row security.
//   - Every access to a client's data leaves one audit row, also when it was refused.
//   - A secret that must be readable (a second factor) is sealed with a key outside of the
//     database; what need not be readable is kept as a hash.
//   - Errors say what was being done ("reading the clients: …") and never hold health data.
package store
