package contour

import (
	"slices"

	"earlychorus/core/music"
)

// Kept remembers answers by what was asked. What costs much and depends on nothing but a
// stretch of sound is asked of a take through one of these: what was asked while the take
// came in need not be worked out again at its end.
type Kept[Asked comparable, Answer any] map[Asked]Answer

// Of returns the answer kept, or works it out; sure says that no later sound changes it.
func (k Kept[Asked, Answer]) Of(asked Asked, sure bool, work func() Answer) Answer {
	answer, ok := k[asked]
	if ok {
		return answer
	}
	answer = work()
	if sure {
		k[asked] = answer
	}
	return answer
}

type (
	toneAsked struct {
		pitch music.Hertz
		at    music.Seconds
	}
	singleAsked struct {
		of         music.Hertz
		at, window music.Seconds
	}
	squeaksAsked struct {
		from, to music.Seconds
		least    music.Decibels
	}
	// squeaksFound are the squeaks of a stretch whose pitches were these.
	squeaksFound struct {
		pitches []music.Hertz
		squeaks []Burst
	}
)

// kept is what was asked of a take.
type kept struct {
	tones   Kept[toneAsked, Tone]
	singles Kept[singleAsked, music.Decibels]
	squeaks map[squeaksAsked]squeaksFound
}

func newKept() kept {
	return kept{
		tones:   Kept[toneAsked, Tone]{},
		singles: Kept[singleAsked, music.Decibels]{},
		squeaks: map[squeaksAsked]squeaksFound{},
	}
}

// Has reports whether the sound up to a moment has come in, or will never come.
func (t *Take) Has(until music.Seconds) bool {
	return t.ended || until <= music.Seconds(t.sound.Seconds())
}

// Tone is ToneEar.At of what came in.
func (t *Take) Tone(pitch music.Hertz, at music.Seconds) Tone {
	return t.kept.tones.Of(toneAsked{pitch, at}, t.Has(at+longestReach), func() Tone {
		return NewToneEar(t.sound).At(pitch, at)
	})
}

// Single is ToneEar.Single of what came in.
func (t *Take) Single(of music.Hertz, at, window music.Seconds) music.Decibels {
	return t.kept.singles.Of(singleAsked{of, at, window}, t.Has(at+window), func() music.Decibels {
		return NewToneEar(t.sound).Single(of, at, window)
	})
}

// Squeaks is Contour.Squeaks of what came in.
func (t *Take) Squeaks(c Contour, from, to music.Seconds, least music.Decibels) []Burst {
	asked := squeaksAsked{from, to, least}
	pitches := c.pitches(from, to)
	if found, ok := t.kept.squeaks[asked]; ok && slices.Equal(found.pitches, pitches) {
		return slices.Clone(found.squeaks)
	}
	found := squeaksFound{pitches, c.Squeaks(t.sound, from, to, least)}
	if t.Has(to + Hop) {
		t.kept.squeaks[asked] = found
	}
	return slices.Clone(found.squeaks)
}

// pitches are those of the frames that a stretch reaches.
func (c Contour) pitches(from, to music.Seconds) (out []music.Hertz) {
	for n := max(0, Index(from)-1); n < min(len(c.Frames), Index(to)+2); n++ {
		out = append(out, c.Frames[n].Pitch)
	}
	return out
}
