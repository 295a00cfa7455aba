package store

import (
	_ "embed"
	"errors"
	"strings"
	"sync"
	"unicode"

	"github.com/alexedwards/argon2id"

	"mokren/store/internal/cost"
)

// HashPassword gives a self-describing argon2id hash.
func HashPassword(password string) (string, error) {
	return argon2id.CreateHash(password, cost.Hashing)
}

// checkPassword compares in constant time; a hash that cannot be read matches
// nothing.
func checkPassword(hash, password string) bool {
	same, err := argon2id.ComparePasswordAndHash(password, hash)
	return err == nil && same
}

// nobody is compared against when an e-mail is unknown, so that the answer
// takes the same time.
var nobody = sync.OnceValues(func() (string, error) { return HashPassword("nobody") })

// PasswordAtLeast so many characters: length is what counts, no mixture of signs is
// asked for (NIST SP 800-63B asks for 8 beside a second factor, 15 alone; a practice
// has both kinds of people).
const PasswordAtLeast = 10

// What is wrong with a password.
var (
	ErrShortPassword    = errors.New("at least 10 characters, such as three or four words")
	ErrCommonPassword   = errors.New("not one of the passwords that are tried first")
	ErrPersonalPassword = errors.New("not your own name, e-mail or practice")
)

// commonPasswords are those that are tried first, one a line: the list of zxcvbn-go (MIT, Nathan
// Button), which ranks passwords that were made public.
//
//go:embed passwords.txt
var commonPasswords string

var common = sync.OnceValue(func() map[string]bool {
	out := map[string]bool{}
	for word := range strings.Lines(commonPasswords) {
		out[strings.TrimSuffix(word, "\n")] = true
	}
	return out
})

// GoodPassword tells what is wrong with a password; personal is what everyone
// around knows. A common one with digits and signs round it is as common.
func GoodPassword(password string, personal ...string) error {
	if len([]rune(password)) < PasswordAtLeast {
		return ErrShortPassword
	}
	low := strings.ToLower(password)
	bare := strings.TrimFunc(low, func(r rune) bool { return !unicode.IsLetter(r) })
	if common()[low] || common()[bare] || bare == "" && isRow(low) || fewSigns(low) {
		return ErrCommonPassword
	}
	for _, p := range personal {
		if whole := onlyLetters(p); len(whole) >= 4 && onlyLetters(low) == whole {
			return ErrPersonalPassword
		}
		for _, word := range strings.FieldsFunc(strings.ToLower(p), func(r rune) bool { return !unicode.IsLetter(r) }) {
			if len(word) >= 4 && word == bare {
				return ErrPersonalPassword
			}
		}
	}
	return nil
}

// onlyLetters leaves a text's letters, in lower case: a whole name with a digit is as known
// as the name.
func onlyLetters(s string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) {
			return unicode.ToLower(r)
		}
		return -1
	}, s)
}

// isRow: every sign follows the one before by the same step, as in 1234567890.
func isRow(word string) bool {
	digits := strings.TrimSuffix(word, "0")
	for i := 2; i < len(digits); i++ {
		if digits[i]-digits[i-1] != digits[1]-digits[0] {
			return false
		}
	}
	return true
}

// fewSigns: three or fewer different ones.
func fewSigns(word string) bool {
	seen := map[rune]bool{}
	for _, r := range word {
		seen[r] = true
	}
	return len(seen) <= 3
}
