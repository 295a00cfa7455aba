package seal_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/store/seal"
)

func made(t *testing.T) (key *seal.Key, path string) {
	t.Helper()
	path = filepath.Join(t.TempDir(), "seal.key")
	key, err := seal.ReadOrMake(path)
	require.NoError(t, err)
	return key, path
}

func TestWhatIsSealedIsOpenedByItsKeyAlone(t *testing.T) {
	key, path := made(t)
	kept, err := key.Seal("JBSWY3DPEHPK3PXP")
	require.NoError(t, err)
	assert.True(t, seal.Sealed(kept))
	assert.NotContains(t, kept, "JBSWY3DP")

	again, err := seal.ReadOrMake(path)
	require.NoError(t, err)
	plain, err := again.Open(kept)
	require.NoError(t, err)
	assert.Equal(t, "JBSWY3DPEHPK3PXP", plain)

	other, _ := made(t)
	var none *seal.Key
	for _, k := range []*seal.Key{other, none} {
		_, err := k.Open(kept)
		require.ErrorIs(t, err, seal.ErrShut)
	}
	for _, cut := range []string{kept[:len(kept)-8], "sealed:", "sealed:no base64", kept + "AAAA"} {
		_, err := key.Open(cut)
		require.ErrorIs(t, err, seal.ErrShut, cut)
	}
}

func TestWhatWasKeptBeforeThereWasAKeyIsRead(t *testing.T) {
	key, _ := made(t)
	var none *seal.Key
	for _, k := range []*seal.Key{key, none} {
		plain, err := k.Open("JBSWY3DPEHPK3PXP")
		require.NoError(t, err)
		assert.Equal(t, "JBSWY3DPEHPK3PXP", plain)
	}
	kept, err := none.Seal("JBSWY3DPEHPK3PXP")
	require.NoError(t, err)
	assert.Equal(t, "JBSWY3DPEHPK3PXP", kept)
	kept, err = key.Seal("")
	require.NoError(t, err)
	assert.Empty(t, kept, "nothing is no secret")
}

func TestTheFileOfTheKey(t *testing.T) {
	_, path := made(t)
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	_, err = seal.Read(path + "-gone")
	require.ErrorIs(t, err, os.ErrNotExist)
	require.NoError(t, os.WriteFile(path, []byte("not a key\n"), 0o600))
	_, err = seal.ReadOrMake(path)
	require.ErrorContains(t, err, path)
	now, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(string(now), "not a key"), "what is there is never written over")
}
