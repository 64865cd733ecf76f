// Package onetime asks for a code of a device beside a password: RFC 6238, six digits that
// change every 30 seconds, as any app for such codes makes them.
package onetime

import (
	"crypto/subtle"
	"time"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/hotp"
	"github.com/pquerna/otp/totp"
)

// issuer is what the app shows beside the codes.
const issuer = "Early Chorus"

// period is how long a code is good for (RFC 6238 section 4.1's default).
const period = 30 // seconds

// skew is how many steps a device's clock may be off (RFC 6238 section 5.2 advises one).
const skew = 1

// New makes a secret for an account's device, and the address that its square carries.
func New(account string) (secret, address string, err error) {
	key, err := totp.Generate(totp.GenerateOpts{Issuer: issuer, AccountName: account, Period: period})
	if err != nil {
		return "", "", err
	}
	return key.Secret(), key.URL(), nil
}

// Step returns the step of the code, later than used; 0 for a code that is wrong, or was
// used.
func Step(secret, code string, used int64, at time.Time) int64 {
	now := at.Unix() / period
	for step := now - skew; step <= now+skew; step++ {
		right, err := hotp.GenerateCodeCustom(secret, uint64(step), hotp.ValidateOpts{
			Digits:    otp.DigitsSix,
			Algorithm: otp.AlgorithmSHA1,
		})
		if err == nil && step > used && subtle.ConstantTimeCompare([]byte(right), []byte(code)) == 1 {
			return step
		}
	}
	return 0
}
