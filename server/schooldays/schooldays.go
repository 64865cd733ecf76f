// Package schooldays counts a school's dates, which are kept at midnight UTC, as the
// core counts days: whole numbers from a Monday.
package schooldays

import (
	"time"

	"earlychorus/core/progress"
)

// first is day 0, a Monday.
var first = time.Date(2024, 1, 1, 0, 0, 0, 0, time.UTC)

// Number returns a date's number.
func Number(day time.Time) int { return int(day.Sub(first).Hours() / 24) }

// Date writes the date with a number.
func Date(number int) string { return first.AddDate(0, 0, number).Format(time.DateOnly) }

// Between returns how many school days lie after one date, up to another.
func Between(after, to time.Time) int { return progress.SchoolDays(Number(after), Number(to)) }
