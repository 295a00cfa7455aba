// Package seal keeps small secrets unreadable to whoever has the database alone, or a
// backup of it. The key is an age identity in a file of its own.
//
//	key, err := seal.ReadOrMake("/var/lib/mokren/seal.key")
//	kept, err := key.Seal("the secret of a second factor")
//	plain, err := key.Open(kept)
package seal

import (
	"encoding/base64"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"filippo.io/age"
)

// ErrShut: there is no key, or not the one that sealed the secret.
var ErrShut = errors.New("the server's key does not open this secret")

// mark tells what is sealed from what was kept before there was a key.
const mark = "sealed:"

// Key seals and opens. A nil key leaves secrets as they are, and opens nothing sealed.
type Key struct{ id *age.X25519Identity }

// Read takes the key from its file.
func Read(path string) (*Key, error) {
	f, err := os.Open(path)
	if err != nil {
		return nil, fmt.Errorf("reading the key for secrets: %w", err)
	}
	defer f.Close()
	ids, err := age.ParseIdentities(f)
	if err != nil {
		return nil, fmt.Errorf("reading the key for secrets in %s: %w", path, err)
	}
	id, ok := ids[0].(*age.X25519Identity)
	if !ok {
		return nil, fmt.Errorf("reading the key for secrets in %s: it is of another kind", path)
	}
	return &Key{id}, nil
}

// ReadOrMake makes the key where there is none yet.
func ReadOrMake(path string) (*Key, error) {
	key, err := Make(path)
	if errors.Is(err, os.ErrExist) {
		return Read(path)
	}
	return key, err
}

// Make writes a new key into a file that is not there yet.
func Make(path string) (*Key, error) {
	id, err := age.GenerateX25519Identity()
	if err != nil {
		return nil, err
	}
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return nil, fmt.Errorf("making the key for secrets: %w", err)
	}
	const what = "# Opens the second factors of this server. It is in no backup: keep a copy elsewhere."
	_, err = fmt.Fprintf(f, "%s\n%s\n", what, id)
	if err := errors.Join(err, f.Close()); err != nil {
		return nil, fmt.Errorf("making the key for secrets: %w", err)
	}
	return &Key{id}, nil
}

// Sealed tells whether a key is needed to read what is kept.
func Sealed(kept string) bool { return strings.HasPrefix(kept, mark) }

// Seal gives what is to be kept of a secret.
func (k *Key) Seal(secret string) (string, error) {
	if k == nil || secret == "" {
		return secret, nil
	}
	var out strings.Builder
	out.WriteString(mark)
	text := base64.NewEncoder(base64.StdEncoding, &out)
	w, err := age.Encrypt(text, k.id.Recipient())
	if err != nil {
		return "", fmt.Errorf("sealing a secret: %w", err)
	}
	_, err = io.WriteString(w, secret)
	if err := errors.Join(err, w.Close(), text.Close()); err != nil {
		return "", fmt.Errorf("sealing a secret: %w", err)
	}
	return out.String(), nil
}

// Open gives the secret of what is kept.
func (k *Key) Open(kept string) (string, error) {
	if !Sealed(kept) {
		return kept, nil
	}
	if k == nil {
		return "", ErrShut
	}
	text := base64.NewDecoder(base64.StdEncoding, strings.NewReader(strings.TrimPrefix(kept, mark)))
	r, err := age.Decrypt(text, k.id)
	if err != nil {
		return "", errors.Join(ErrShut, err)
	}
	plain, err := io.ReadAll(r)
	if err != nil {
		return "", errors.Join(ErrShut, err)
	}
	return string(plain), nil
}
