package instrument_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/instrument"
)

// Every key of every fingering, alternates too, is one that a beginner can find: by the
// finger that presses it, drawn on the sheet and on no other mark.
func TestEveryKeyIsFound(t *testing.T) {
	for _, i := range instrument.All() {
		for m := i.Beginner.From; m <= i.Beginner.To; m++ {
			for _, f := range i.Ways(m, instrument.UsualHands()) {
				seen := map[string]bool{}
				for _, mark := range f.Diagram.Marks {
					at := fmt.Sprint(mark.X, mark.Y)
					if mark.Shape == "key" {
						assert.NotEmpty(t, mark.Finger, "%s %s: %s", i.Key, f.Text, mark.Label)
						assert.False(t, seen[at], "%s %s: %s lies on another mark", i.Key, f.Text, mark.Label)
					}
					seen[at] = true
					assert.True(t, mark.Y > 0 && mark.Y < f.Diagram.Height, "%s %s: %s", i.Key, f.Text, mark.Label)
				}
			}
		}
	}
}

// What moves between any two neighbours is what their texts differ in.
func TestMovingMarksBetweenNeighbours(t *testing.T) {
	for _, i := range instrument.All() {
		for m := i.Beginner.From; m < i.Beginner.To; m++ {
			a, hasA := i.Fingering(m, instrument.UsualHands())
			b, hasB := i.Fingering(m+1, instrument.UsualHands())
			if !hasA || !hasB {
				continue
			}
			for _, pair := range [][2]instrument.Fingering{{a, b}, {b, a}} {
				from, to := pair[0], pair[1]
				var moved []string
				for _, n := range to.Diagram.ChangesFrom(from.Diagram) {
					moved = append(moved, named(to.Diagram.Marks[n]))
				}
				var want []string
				before := marksOf(from.Diagram)
				for _, mark := range to.Diagram.Marks {
					if !slices.Contains([]string{"bar", "bell"}, mark.Shape) && before[named(mark)] != state(mark) {
						want = append(want, named(mark))
					}
				}
				assert.Equal(t, want, moved, "%s: %s to %s", i.Key, from.Text, to.Text)
			}
		}
	}
}

// named is what a mark stands for, wherever it is drawn.
func named(m instrument.Mark) string {
	if m.Shape == "key" {
		return m.Label + " by " + m.Finger
	}
	return fmt.Sprintf("%.1f %.1f", m.X, m.Y)
}

func state(m instrument.Mark) string {
	if m.Shape == "slide" {
		return "hand"
	}
	return m.State
}

func marksOf(d instrument.Diagram) map[string]string {
	out := map[string]string{}
	for _, m := range d.Marks {
		out[named(m)] = state(m)
	}
	return out
}

// Slide positions on a 2.75 m tube: 8.2, 16.8, 26.0, 35.7, 46.0 and 57.0 cm (worked by
// hand: half of the tube that is added).
func TestTheSlideIsDrawnAtItsDistances(t *testing.T) {
	for k, cm := range []float64{0, 8.2, 16.8, 26.0, 35.7, 46.0, 57.0} {
		assert.InDelta(t, cm/57.0, instrument.SlideTravel(k+1), 0.002, "position %d", k+1)
	}
	i, _ := instrument.Get("trombone")
	f, _ := i.Fingering(53, instrument.UsualHands())
	bells := 0
	for _, m := range f.Diagram.Marks {
		if m.Shape == "bell" {
			bells++
		}
	}
	assert.Equal(t, 1, bells)
	assert.True(t, strings.HasPrefix(f.Text, "position"))
}

// Both little fingers have the clarinet's low E: to change hands is to move.
func TestChangingHandsMoves(t *testing.T) {
	i, _ := instrument.Get("clarinet")
	h := instrument.UsualHands()
	h.ClarinetLow = instrument.LeftLittle
	left, _ := i.Fingering(50, h)
	h.ClarinetLow = instrument.RightLittle
	right, _ := i.Fingering(50, h)
	changes := right.Diagram.ChangesFrom(left.Diagram)
	assert.Len(t, changes, 1)
	assert.Equal(t, "right little finger", right.Diagram.Marks[changes[0]].Finger)
}
