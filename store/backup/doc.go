// Package backup writes the whole database into one encrypted file and brings it back.
//
// A file is age-encrypted (passphrase, scrypt). Within it: a line that names the
// format, a line of JSON that says how many rows each table has and their checksum,
// and a dump in PostgreSQL's custom format. Rows and dump are of the same snapshot, so
// that what was restored can be compared with what was there.
//
//	made, err := backup.Write(ctx, backup.From{URL: adminURL, Bin: bin}, folder, passphrase, time.Now())
//	err = backup.Restore(ctx, into, made.Path, passphrase)
package backup
