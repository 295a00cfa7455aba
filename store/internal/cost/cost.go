// Package cost holds how dear it is to try a password. It is set once, before anything
// is hashed; only tests set it lower, through store/storetest, which no program imports.
package cost

import "github.com/alexedwards/argon2id"

// Hashing by the parameters that RFC 9106 recommends second (64 MiB).
var Hashing = &argon2id.Params{Memory: 64 * 1024, Iterations: 3, Parallelism: 2, SaltLength: 16, KeyLength: 32}

// ScryptLogN is the binary logarithm of scrypt's work for a backup's passphrase; 18 takes
// about a second.
var ScryptLogN = 18
