package classcode_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/server/classcode"
)

func TestACodeIsNotFoundByTrying(t *testing.T) {
	assert.GreaterOrEqual(t, 4*math.Log2(float64(classcode.Words())), 40.0, "bits")
	seen := map[string]bool{}
	for range 1000 {
		code := classcode.New()
		assert.Regexp(t, `^[A-Z]{3,5}(-[A-Z]{3,5}){3}$`, code)
		assert.True(t, classcode.IsStrong(code))
		seen[code] = true
	}
	assert.Len(t, seen, 1000)
	assert.False(t, classcode.IsStrong("AMBER-BADGE-17"))
}

func TestACodeIsReadHoweverItIsTyped(t *testing.T) {
	for _, typed := range []string{"apron boat kelp sugar", " APRON-BOAT-KELP-SUGAR ", "Apron\u2013Boat Kelp\tSugar"} {
		assert.Equal(t, "APRONBOATKELPSUGAR", classcode.Key(typed), typed)
	}
}
