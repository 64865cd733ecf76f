package tone_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/music"
	"earlychorus/core/tone"
)

const (
	home    = "home"
	evening = tone.Fewest + 4 // takes in the weeks before
)

// usual is a note as one player of these trials plays it, with the spread of a
// beginner from take to take.
func usual(chance *rand.Rand, take int, note music.MIDI) tone.Heard {
	return tone.Heard{
		Take:    fmt.Sprint(take),
		Day:     take,
		Note:    note,
		Through: home,
		Room:    tone.Room{Floor: -60, Ring: 0.2},
		Level:   music.Decibels(-20 + 1.5*chance.NormFloat64()),
		Colour: tone.Colour{
			Clearness:  music.Decibels(22 + 2*chance.NormFloat64()),
			Brightness: 3 + 0.2*chance.NormFloat64(),
			Fullness:   10 + 1.5*chance.NormFloat64(),
		},
	}
}

// weeks are takes of two notes.
func weeks(chance *rand.Rand, takes int) (out []tone.Heard) {
	for take := range takes {
		out = append(out, usual(chance, take, 60), usual(chance, take, 62))
	}
	return out
}

func sureOf(c tone.Comparison, q tone.Quality) (tone.Change, bool) {
	for _, change := range c.Changes {
		if change.Quality == q {
			return change, change.Sure != tone.AsUsual
		}
	}
	return tone.Change{}, false
}

// A tone that is as it always was is seldom called another.
func TestChanceIsSeldomAChange(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 3))
	const trials = 4000
	found, certain := 0, 0
	for range trials {
		before := weeks(chance, tone.Fewest+chance.IntN(20))
		c := tone.Compare([]tone.Heard{usual(chance, 99, 60), usual(chance, 99, 62)}, before)
		change, is := sureOf(c, tone.Clearness)
		if is {
			found++
		}
		if change.Sure == tone.Certain {
			certain++
		}
	}
	assert.Less(t, found, trials*3/100)
	assert.Less(t, certain, trials/200)
}

// The air in a tone is heard within the player's own spread, and only that changed.
func TestABreathierTone(t *testing.T) {
	chance := rand.New(rand.NewPCG(4, 4))
	for range 100 {
		now := []tone.Heard{usual(chance, 99, 60), usual(chance, 99, 62)}
		for k := range now {
			now[k].Colour.Clearness -= 10
		}
		change, is := sureOf(tone.Compare(now, weeks(chance, 15)), tone.Clearness)
		assert.True(t, is, "%+v", change)
		assert.Negative(t, change.Spreads)
		assert.GreaterOrEqual(t, change.Beyond, 14)
	}
}

// What another microphone, room or loudness does is not the player's doing.
func TestOnlyLikeIsCompared(t *testing.T) {
	chance := rand.New(rand.NewPCG(5, 5))
	for want, change := range map[tone.Why]func(*tone.Heard){
		tone.OtherDevice:   func(h *tone.Heard) { h.Through = "school" },
		tone.OtherRoom:     func(h *tone.Heard) { h.Room.Ring = 0.7 },
		tone.OtherLoudness: func(h *tone.Heard) { h.Level += 15 },
		tone.TooFew:        func(h *tone.Heard) { h.Note = 72 },
	} {
		now := usual(chance, 99, 60)
		change(&now)
		c := tone.Compare([]tone.Heard{now}, weeks(chance, evening))
		assert.Equal(t, want, c.Why)
		assert.Empty(t, c.Changes)
	}
	unknown := usual(chance, 99, 60)
	unknown.Through = ""
	assert.Equal(t, tone.UnknownDevice, tone.Compare([]tone.Heard{unknown}, weeks(chance, evening)).Why)
	assert.Equal(t, tone.Unheard, tone.Compare(nil, weeks(chance, evening)).Why)
	few := tone.Compare([]tone.Heard{usual(chance, 99, 60)}, weeks(chance, tone.Fewest-1))
	assert.Equal(t, tone.TooFew, few.Why)
	assert.Equal(t, tone.Fewest-1, few.Against)
	again := tone.Compare(weeks(chance, 1), weeks(chance, 1))
	assert.Equal(t, tone.TooFew, again.Why, "a take is not compared with itself")
}

// A tone that clears over six weeks has a trend; a microphone that changed in the
// middle is no trend of the player's.
func TestCourse(t *testing.T) {
	chance := rand.New(rand.NewPCG(6, 6))
	clearing := func(through func(take int) string) (out []tone.Heard) {
		for take := range 40 {
			h := usual(chance, take, 60)
			h.Colour.Clearness += music.Decibels(float64(take) / 4)
			h.Through = through(take)
			out = append(out, h)
		}
		return out
	}
	trendOf := func(c tone.Course, q tone.Quality) bool {
		for _, turn := range c.Turns {
			if turn.Quality == q && turn.Trend != nil && turn.Trend.Clear {
				return true
			}
		}
		return false
	}
	c := tone.CourseOf(clearing(func(int) string { return home }))
	assert.True(t, trendOf(c, tone.Clearness), "%+v", c)
	assert.False(t, trendOf(c, tone.Fullness), "%+v", c)
	assert.Equal(t, 40, c.Days)

	c = tone.CourseOf(clearing(func(take int) string {
		if take > 36 {
			return "another"
		}
		return home
	}))
	assert.Equal(t, tone.OtherDevice, c.Why)
	assert.Empty(t, c.Turns)
	assert.Equal(t, tone.Unheard, tone.CourseOf(nil).Why)
}

// Players whose tone stays as it is are seldom told that it changed.
func TestAToneThatStaysHasNoTurn(t *testing.T) {
	chance := rand.New(rand.NewPCG(8, 8))
	const players = 300
	told := 0
	for range players {
		var heard []tone.Heard
		for take := range 12 {
			heard = append(heard, usual(chance, 2*take, 60), usual(chance, 2*take, 62))
		}
		for _, turn := range tone.CourseOf(heard).Turns {
			if turn.Trend != nil && turn.Trend.Clear {
				told++
			}
		}
	}
	assert.Less(t, told, players*5/100)
}
