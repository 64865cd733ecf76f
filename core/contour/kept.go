package contour

import "earlychorus/core/music"

// Kept remembers answers by what was asked. What costs much and depends on nothing but a
// stretch of sound is asked of a take through one of these: what was asked while the take
// came in need not be worked out again at its end. The zero value is ready.
type Kept[Asked comparable, Answer any] struct {
	now, before map[Asked]Answer // asked since the last turn, and before it
}

// Of returns the answer kept, or works it out; sure says that no later sound changes it.
func (k *Kept[Asked, Answer]) Of(asked Asked, sure bool, work func() Answer) Answer {
	return k.WhileTrue(asked, sure, func(Answer) bool { return true }, work)
}

// WhileTrue is Of where an answer depends on more than what is asked by: stillTrue says
// whether one that was kept is to be had again.
func (k *Kept[Asked, Answer]) WhileTrue(
	asked Asked,
	sure bool,
	stillTrue func(Answer) bool,
	work func() Answer,
) Answer {
	answer, ok := k.now[asked]
	if !ok {
		answer, ok = k.before[asked]
	}
	if !ok || !stillTrue(answer) {
		answer, ok = work(), sure
	}
	if ok {
		if k.now == nil {
			k.now = map[Asked]Answer{}
		}
		k.now[asked] = answer
	}
	return answer
}

// Turn forgets what was not asked since the last turn: what grows with a take is asked
// anew each time it has grown, and never again as it was.
func (k *Kept[Asked, Answer]) Turn() { k.before, k.now = k.now, nil }

type (
	toneAsked struct {
		pitch music.Hertz
		at    music.Seconds
	}
	singleAsked struct {
		of         music.Hertz
		at, window music.Seconds
	}
)

// kept is what was asked of a take.
type kept struct {
	tones   Kept[toneAsked, Tone]
	singles Kept[singleAsked, music.Decibels]
	squeaks Kept[music.Seconds, *unpitched] // by where they were looked for from
}

// Turn begins a new asking: what was not asked in the last one is forgotten.
func (t *Take) Turn() {
	t.kept.tones.Turn()
	t.kept.singles.Turn()
	t.kept.squeaks.Turn()
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
	return t.kept.squeaks.Of(from, true, func() *unpitched { return &unpitched{} }).squeaks(c, t.sound, from, to, least)
}
