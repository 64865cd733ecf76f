package plan_test

import (
	"testing"

	"earlychorus/core/plan"
)

// BenchmarkFit is a day of twelve steps for sixteen instruments.
func BenchmarkFit(b *testing.B) {
	items, everyone := warmUp(), wholeBand(b, 1)
	for b.Loop() {
		if _, err := plan.Fit(items, everyone, plan.AtHome, 0); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkDayLoad is the preview of one edit: the same day added up.
func BenchmarkDayLoad(b *testing.B) {
	items, everyone := warmUp(), wholeBand(b, 2)
	for b.Loop() {
		if _, err := plan.DayLoad(items, everyone, plan.InClass, 0); err != nil {
			b.Fatal(err)
		}
	}
}
