package onetime_test

import (
	"encoding/base32"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"earlychorus/server/onetime"
)

// The worked examples of RFC 6238, appendix B, for SHA-1, by their last six digits.
func TestCodesAreThoseOfTheStandard(t *testing.T) {
	secret := base32.StdEncoding.EncodeToString([]byte("12345678901234567890"))
	for at, code := range map[int64]string{
		59:          "287082",
		1111111109:  "081804",
		1111111111:  "050471",
		1234567890:  "005924",
		2000000000:  "279037",
		20000000000: "353130",
	} {
		step := onetime.Step(secret, code, 0, time.Unix(at, 0))
		assert.Equal(t, at/30, step, code)
		assert.Zero(t, onetime.Step(secret, code, step, time.Unix(at, 0)), "a code counts once")
		assert.Equal(t, step, onetime.Step(secret, code, 0, time.Unix(at+30, 0)), "a clock may be a step late")
		assert.Zero(t, onetime.Step(secret, code, 0, time.Unix(at+90, 0)), "and not three")
		assert.Zero(t, onetime.Step(secret, "12345", 0, time.Unix(at, 0)))
	}
}
