package demo

import "time"

// When children practice: after school and before supper, and one in nine before it begins
// (common practice, no published source).
const (
	afterSchool = 15*time.Hour + 40*time.Minute
	untilSupper = 3*time.Hour + 20*time.Minute
	beforeBell  = 7*time.Hour + 5*time.Minute
	aStep       = 150 * time.Second // to read it, to play it and to look
	aTake       = 45 * time.Second  // to play it once more
)

// hourOf is when on a day a person plays the n-th step for the nth time.
func hourOf(person, n, nth int) time.Duration {
	begins := afterSchool + time.Duration(person*47%97)*untilSupper/97
	if person%9 == 2 {
		begins = beforeBell + time.Duration(person)*time.Minute
	}
	return begins + time.Duration(n)*aStep + time.Duration(nth)*aTake
}
