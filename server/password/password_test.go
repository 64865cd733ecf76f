package password_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"

	"earlychorus/server/password"
)

func TestPasswordsThatAreGuessedAreRefused(t *testing.T) {
	for secret, says := range map[string]string{
		"short":                         "at least 12",
		"passwordpassword":              "guessed",
		"qwertyuiop12":                  "guessed",
		"aaaaaaaaaaaaaaaa":              "guessed",
		"odilefarrow2026":               "guessed",
		"trombone\u00a0is fine, really": "",
		"kelp anvil sofa mint":          "",
	} {
		err := password.Check(secret, "Odile Farrow", "odile@island.example")
		if says == "" {
			assert.NoError(t, err, secret)
			continue
		}
		assert.ErrorContains(t, err, says, secret)
	}
	long := make([]byte, 73)
	for n := range long {
		long[n] = byte('a' + n%26)
	}
	assert.ErrorContains(t, password.Check(string(long)), "at most 72")
}

func TestAHashIsOfItsPassword(t *testing.T) {
	hash, err := password.Hash("kelp anvil sofa mint")
	require.NoError(t, err)
	assert.NoError(t, bcrypt.CompareHashAndPassword([]byte(hash), []byte("kelp anvil sofa mint")))
}
