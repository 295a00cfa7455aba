package store_test

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/store"
	"mokren/store/seal"
)

// factor switches the second factor of the practice's person on.
func (p *practice) factor(t *testing.T) (secret string) {
	t.Helper()
	p.as(t, func(tx *store.Tx) error {
		key, err := tx.NewSecondFactor(ctx)
		require.NoError(t, err)
		secret = key.Secret()
		now := time.Now().Add(-30 * time.Second) // this step's code is left for the door
		code, err := totp.GenerateCode(secret, now)
		require.NoError(t, err)
		on, err := tx.ConfirmSecondFactor(ctx, code, now)
		require.True(t, on)
		return err
	})
	return secret
}

// enter signs in with the code of a moment.
func (p *practice) enter(t *testing.T, email, secret string, at time.Time) error {
	t.Helper()
	code, err := totp.GenerateCode(secret, at)
	require.NoError(t, err)
	_, err = p.st.SignIn(ctx, store.SignIn{Email: email, Password: "secret-words", Code: code})
	return err
}

func (p *practice) keptSecret(t *testing.T) (kept string) {
	t.Helper()
	require.NoError(t, admin(t).Get(&kept, `select totp_secret from login where person_id = $1`, p.who.Person))
	return kept
}

func newKey(t *testing.T) *seal.Key {
	t.Helper()
	key, err := seal.Make(filepath.Join(t.TempDir(), "seal.key"))
	require.NoError(t, err)
	return key
}

// Who has the database, or a backup of it, has no second factor: that takes the key.
func TestTheDatabaseHoldsNoSecondFactorThatCanBeRead(t *testing.T) {
	const email = "sealed-factor@x.example"
	p := newPractice(t, email)
	key := newKey(t)
	p.st.SealWith(key)
	secret := p.factor(t)
	assert.NotContains(t, p.keptSecret(t), secret)
	require.NoError(t, p.enter(t, email, secret, time.Now()))

	for _, other := range []*seal.Key{nil, newKey(t)} {
		p.st.SealWith(other)
		require.ErrorIs(t, p.enter(t, email, secret, time.Now().Add(30*time.Second)), seal.ErrShut)
	}
	p.st.SealWith(key)
	require.NoError(t, p.enter(t, email, secret, time.Now().Add(30*time.Second)), "nothing of that used the code up")
}

// What was kept before there was a key is sealed when its owner next signs in, and the
// code of that moment stays used.
func TestAnOlderSecondFactorIsSealedAtSignIn(t *testing.T) {
	const email = "older-factor@x.example"
	p := newPractice(t, email)
	secret := p.factor(t)
	assert.Equal(t, secret, p.keptSecret(t))
	p.st.SealWith(newKey(t))
	now := time.Now()
	require.NoError(t, p.enter(t, email, secret, now))
	assert.True(t, seal.Sealed(p.keptSecret(t)))
	require.ErrorIs(t, p.enter(t, email, secret, now), store.ErrCode)
	require.NoError(t, p.enter(t, email, secret, now.Add(30*time.Second)))
}
