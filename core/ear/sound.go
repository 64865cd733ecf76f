package ear

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// SoundKind is what was heard besides the player's notes.
type SoundKind string

const (
	Click       SoundKind = "click" // a metronome, a key, a chair
	Voice       SoundKind = "voice" // somebody speaks
	OtherPlayer SoundKind = "other-player"
	OtherSound  SoundKind = "other"
)

// Sound is something heard that is not one of the notes. It is reported, and
// never measured as playing.
type Sound struct {
	Kind     SoundKind     `json:"kind" enum:"click,voice,other-player,other"`
	At       music.Seconds `json:"t_s"`
	Duration music.Seconds `json:"duration_s"`
	MIDI     music.MIDI    `json:"midi,omitempty" doc:"the other player's note"`
	Note     int           `json:"note" doc:"index of the note it sounds with; -1 for none"`

	Below music.Decibels `json:"below_db,omitempty" doc:"how much softer than that note another player is"`
}

// mostSounds bounds the list; a noisy room says no more with a thousand.
const mostSounds = 60

// listenForOthers reports clicks, voices and other players.
func (l *listening) listenForOthers(groups []group, strays []plateau) {
	add := func(s Sound) {
		if len(l.Sounds) < mostSounds {
			l.Sounds = append(l.Sounds, s)
		}
	}
	for _, b := range l.contour.Bursts {
		if l.isClick(b) {
			add(Sound{
				Kind:     Click,
				At:       b.From,
				Duration: b.To - b.From,
				Note:     l.noteAt(b.From),
			})
		}
	}
	for _, s := range l.nameStrays(strays) {
		add(s)
	}
	for n, g := range groups {
		if midi, below, heard := l.neighbour(g, l.Notes[n]); heard {
			add(Sound{
				Kind:     OtherPlayer,
				At:       l.Notes[n].Onset,
				Duration: l.Notes[n].Release - l.Notes[n].Onset,
				MIDI:     midi,
				Note:     n,
				Below:    below,
			})
		}
	}
}

func (l *listening) noteAt(at music.Seconds) int {
	for n, note := range l.Notes {
		if note.Played && at >= note.Onset && at < note.Release {
			return n
		}
	}
	return -1
}

const (
	// Speech glides: its pitch moves by more than this within a syllable, and
	// syllables come one after the other.
	speechMoves    = music.Cents(60)
	speechSyllable = music.Seconds(0.06)
	longSyllable   = music.Seconds(0.4)
	nextSyllable   = music.Seconds(0.35)
	steadyWithin   = music.Cents(25)
	otherShortest  = music.Seconds(0.15)
)

// nameStrays says what pitched sounds that belong to no note are: gliding ones
// are speech, level ones another player.
func (l *listening) nameStrays(strays []plateau) (out []Sound) {
	for _, p := range strays {
		if p.length() < speechSyllable {
			continue
		}
		var cents []float64
		for _, f := range l.contour.Frames[p.from:p.to] {
			if f.Voiced() {
				cents = append(cents, float64(music.Between(standardPitch, f.Pitch)))
			}
		}
		if len(cents) == 0 {
			continue
		}
		s := Sound{
			Kind:     OtherSound,
			At:       p.Onset,
			Duration: p.length(),
			Note:     -1,
		}
		span := music.Cents(dsp.Quantile(cents, 0.9) - dsp.Quantile(cents, 0.1))
		switch {
		case span > speechMoves:
			s.Kind = Voice
		case span < 2*steadyWithin && p.length() >= otherShortest:
			s.Kind = OtherPlayer
			s.MIDI, _ = music.Nearest(p.pitch.Above(standardPitch), l.a4())
		}
		out = append(out, s)
	}
	joinSyllables(out)
	return out
}

// joinSyllables takes short sounds in between for what is around them: a level
// syllable among gliding ones is speech too.
func joinSyllables(sounds []Sound) {
	for n := range sounds {
		if sounds[n].Kind == Voice || sounds[n].Duration > longSyllable {
			continue
		}
		for _, other := range []int{n - 1, n + 1} {
			if other < 0 || other >= len(sounds) || sounds[other].Duration > longSyllable {
				continue
			}
			first, second := sounds[min(n, other)], sounds[max(n, other)]
			if second.At-first.At-first.Duration < nextSyllable && sounds[other].Kind != OtherPlayer {
				sounds[n].Kind, sounds[n].MIDI = Voice, 0
			}
		}
	}
}

// Another player under a note: what is left when the note's own harmonics are
// taken out has a pitch of its own.
const (
	neighbourMoments = 5
	neighbourBelow   = 26.  // dB below the note: softer ones do no harm
	neighbourClear   = 0.85 // periodicity of what is left
	neighbourWindow  = 0.12 // seconds
	// A tube's own roughness lies at whole parts of its pitch.
	ownPart = music.Cents(35)
)

// neighbour listens for another pitch under a note.
func (l *listening) neighbour(g group, n Note) (other music.MIDI, below music.Decibels, ok bool) {
	if !n.Played || len(g.on) == 0 || n.Release-n.Onset < 4*neighbourWindow {
		return 0, 0, false
	}
	found := map[music.MIDI][]float64{}
	for k, most := 0, 0; k < neighbourMoments && 2*(most+neighbourMoments-k) > neighbourMoments; k++ {
		at := n.Onset + (n.Release-n.Onset)*music.Seconds(2*k+1)/(2*neighbourMoments)
		f := l.contour.Frames[min(len(l.contour.Frames)-1, contour.Index(at))]
		if !f.Voiced() {
			continue
		}
		left := l.take.residueOf(f.Pitch, at)
		if left.pitch == 0 || isPartOf(left.pitch, f.Pitch) {
			continue
		}
		midi, _ := music.Nearest(left.pitch, l.a4())
		found[midi] = append(found[midi], -left.share)
		most = max(most, len(found[midi]))
	}
	for midi, times := range found {
		if 2*len(times) > neighbourMoments {
			return midi, music.Decibels(dsp.Median(times)), true
		}
	}
	return 0, 0, false
}

// isPartOf reports whether one pitch is a multiple or a whole part of another.
func isPartOf(a, b music.Hertz) bool {
	ratio := float64(a / b)
	if ratio < 1 {
		ratio = 1 / ratio
	}
	return math.Abs(1200*math.Log2(ratio/math.Round(ratio))) < float64(ownPart)
}

// residue is what is left of a sound without a pitch's harmonics: its own pitch, 0 for
// none, and its level against the whole in dB.
type residue struct {
	pitch music.Hertz
	share float64
}

type residueAsked struct {
	without music.Hertz
	at      music.Seconds
}

// residueOf is residueIn of what came in.
func (t *Take) residueOf(without music.Hertz, at music.Seconds) residue {
	return t.residues.Of(residueAsked{without, at}, t.heard.Has(at+neighbourWindow), func() residue {
		return residueIn(t.heard.Sound(), without, at)
	})
}

// residueIn takes a pitch's harmonics out of a sound around a moment. A harmonic is what
// stays the same from one period to the next: the sound less itself a period earlier holds
// none of them.
func residueIn(m audio.Mono, without music.Hertz, at music.Seconds) residue {
	rate := float64(m.Rate)
	period := rate / float64(without)
	length := int(neighbourWindow * rate)
	from := int(float64(at)*rate) - length/2
	if from-int(period)-2 < 0 || from+length > len(m.Samples) {
		return residue{}
	}
	left := audio.Mono{Rate: m.Rate, Samples: make([]float64, length)}
	dsp.LessPeriod(left.Samples, m.Samples, from, period)
	var whole, rest float64
	for n := range left.Samples {
		now := m.Samples[from+n]
		whole += now * now
		rest += left.Samples[n] * left.Samples[n]
	}
	if whole == 0 || rest == 0 {
		return residue{}
	}
	share := 10 * math.Log10(rest/whole/2) // the difference doubles what is not periodic
	if share < -neighbourBelow {
		return residue{}
	}
	heard, clarity := contour.PitchOf(left)
	if clarity < neighbourClear {
		return residue{}
	}
	return residue{heard, share}
}
