package postgres

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// installed makes a folder like Debian's, with these versions in it.
func installed(t *testing.T, versions ...string) string {
	t.Helper()
	debian := t.TempDir()
	for _, v := range versions {
		bin := filepath.Join(debian, v, "bin")
		require.NoError(t, os.MkdirAll(bin, 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(bin, "initdb"), nil, 0o755))
	}
	return debian
}

// madeBy makes a folder of data as that version of PostgreSQL leaves it.
func madeBy(t *testing.T, version string) string {
	t.Helper()
	data := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(data, "PG_VERSION"), []byte(version+"\n"), 0o600))
	return data
}

func TestNewDataIsMadeByTheNewestProgram(t *testing.T) {
	debian := installed(t, "9", "15", "17")
	found, err := findPrograms(debian, filepath.Join(t.TempDir(), "not there yet"))
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(debian, "17", "bin"), found)
}

// After an upgrade of Debian two versions lie side by side. The newer one would
// refuse the older one's data.
func TestDataIsServedByTheProgramThatMadeIt(t *testing.T) {
	debian := installed(t, "15", "17")
	found, err := findPrograms(debian, madeBy(t, "15"))
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(debian, "15", "bin"), found)
}

func TestDataOfAProgramThatIsGoneSaysWhichItWants(t *testing.T) {
	_, err := findPrograms(installed(t, "17"), madeBy(t, "15"))
	require.Error(t, err)
	assert.ErrorContains(t, err, "postgresql-15")
	_, err = findPrograms(installed(t), t.TempDir())
	assert.ErrorIs(t, err, ErrMissing)
}
