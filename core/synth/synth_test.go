package synth_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// The ear is trained and tested on what these players say they did, so what they
// say is held here against the samples, by nothing but sums of sines.

const rate = 24000

// score is one or more held notes of eight beats at 60.
func score(t *testing.T, key string, notes ...int) (scores.Score, instrument.Instrument) {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": notes, "beats": 8},
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	return s, i
}

func piece(m audio.Mono, from, to music.Seconds) []float64 {
	return m.Samples[int(float64(from)*float64(m.Rate)):int(float64(to)*float64(m.Rate))]
}

// strength is how much of a sine of f is in x, under a Hann window.
func strength(x []float64, f float64) float64 {
	var re, im float64
	for n, v := range x {
		w := v * (0.5 - 0.5*math.Cos(2*math.Pi*float64(n)/float64(len(x))))
		re += w * math.Cos(2*math.Pi*f*float64(n)/rate)
		im += w * math.Sin(2*math.Pi*f*float64(n)/rate)
	}
	return math.Hypot(re, im) * 4 / float64(len(x)) // a sine's amplitude
}

// pitchNear finds the tone near f: the strongest of its first harmonics is followed
// to its peak.
func pitchNear(x []float64, f float64) float64 {
	harmonic, best := 1., 0.
	for h := 1.; h <= 6; h++ {
		if s := strength(x, h*f); s > best {
			harmonic, best = h, s
		}
	}
	at := 0. // cents
	for c := -80.; c <= 80; c += 4 {
		if strength(x, harmonic*f*math.Exp2(c/1200)) > strength(x, harmonic*f*math.Exp2(at/1200)) {
			at = c
		}
	}
	step := 2.
	for step > 0.02 {
		here := strength(x, harmonic*f*math.Exp2(at/1200))
		switch {
		case strength(x, harmonic*f*math.Exp2((at+step)/1200)) > here:
			at += step
		case strength(x, harmonic*f*math.Exp2((at-step)/1200)) > here:
			at -= step
		default:
			step /= 2
		}
	}
	return f * math.Exp2(at/1200)
}

func cents(a, b float64) float64 { return 1200 * math.Log2(a/b) }

func rms(x []float64) float64 {
	var sum float64
	for _, v := range x {
		sum += v * v
	}
	return math.Sqrt(sum / float64(len(x)))
}

func decibels(x float64) float64 { return 20 * math.Log10(x) }

func TestANoteSoundsWhereItIsSaidTo(t *testing.T) {
	for _, key := range []string{"flute", "clarinet", "alto-sax", "bassoon", "trumpet", "tuba"} {
		s, i := score(t, key, 0)
		for _, offset := range []music.Cents{0, -31, 17} {
			sound, truths := synth.Player{Instrument: i, Offset: offset}.Play(s, rate)
			require.Len(t, truths, 1)
			target := float64(s.Targets()[0].Target.Frequency(s.A4Hz))
			assert.InDelta(t, float64(offset), cents(float64(truths[0].Pitch), target), 1e-6, key)
			mid := truths[0].Onset + 2
			assert.InDelta(
				t,
				0,
				cents(pitchNear(piece(sound, mid, mid+0.5), target), float64(truths[0].Pitch)),
				0.2,
				"%s %v",
				key,
				offset,
			)
			assert.InDelta(t, float64(truths[0].Pitch), float64(truths[0].At(mid)), 1e-6)
		}
	}
}

func TestItBeginsAndEndsWhereItIsSaidTo(t *testing.T) {
	s, i := score(t, "clarinet", 0)
	beat := s.TempoBPM.Seconds(s.Targets()[0].StartBeat)
	sound, truths := synth.Player{Instrument: i, Late: 0.2, Held: 0.5}.Play(s, rate)
	assert.InDelta(t, float64(beat)+0.2, float64(truths[0].Onset), 1e-9)
	assert.InDelta(t, float64(beat)+4, float64(truths[0].Release), 1e-9)
	assert.Zero(t, rms(piece(sound, 0, truths[0].Onset)), "silence before")
	assert.Zero(t, rms(piece(sound, truths[0].Release+0.01, music.Seconds(sound.Seconds()))), "and behind")
	assert.Greater(t, rms(piece(sound, truths[0].Onset+0.2, truths[0].Onset+0.4)), 0.05)
	assert.Zero(t, truths[0].At(truths[0].Onset-0.1))
}

func TestLevelsAreWhatTheyAreSaidToBe(t *testing.T) {
	s, i := score(t, "trumpet", 0)
	for _, level := range []music.Decibels{-12, -20, -35} {
		sound, truths := synth.Player{Instrument: i, Level: level}.Play(s, rate)
		mid := truths[0].Onset + 2
		assert.InDelta(t, float64(level), decibels(rms(piece(sound, mid, mid+2))), 0.5)
	}
	quiet, _ := synth.Player{Instrument: i, Room: -55}.Play(s, rate)
	assert.InDelta(t, -55, decibels(rms(piece(quiet, 0.5, 3.5))), 0.3, "the room")
	whole, truths := synth.Player{Instrument: i}.Play(s, rate)
	breathy, _ := synth.Player{Instrument: i, Breath: -20}.Play(s, rate)
	from, to := truths[0].Onset+1, truths[0].Onset+5
	hiss := piece(breathy, from, to)
	for n, v := range piece(whole, from, to) {
		hiss[n] -= v
	}
	assert.InDelta(t, -20-20, decibels(rms(hiss)), 1.5, "breath below the tone")
	faded, _ := synth.Player{Instrument: i, Fade: 12}.Play(s, rate)
	early, late := rms(
		piece(faded, truths[0].Onset+0.5, truths[0].Onset+1),
	), rms(
		piece(faded, truths[0].Release-1, truths[0].Release-0.5),
	)
	assert.InDelta(t, 12*6.5/8, decibels(early/late), 1)
}

func TestPitchMovesAsItIsSaidTo(t *testing.T) {
	s, i := score(t, "oboe", 0)
	target := float64(s.Targets()[0].Target.Frequency(s.A4Hz))
	at := func(p synth.Player, seconds music.Seconds) float64 {
		p.Instrument = i
		sound, truths := p.Play(s, rate)
		from := truths[0].Onset + seconds
		return cents(pitchNear(piece(sound, from-0.1, from+0.1), target), target)
	}
	drifting := synth.Player{Drift: 4}
	assert.InDelta(t, 4*(6-1), at(drifting, 6)-at(drifting, 1), 0.6)
	assert.InDelta(t, 0, at(synth.Player{Sag: 40}, 4), 0.4)
	assert.InDelta(t, -20, at(synth.Player{Sag: 40}, 7.5), 3)
	assert.InDelta(t, 0, at(synth.Player{Scoop: -60}, 2), 0.4)

	// A slow waver is as deep as it is said to be: the path is the pitch that sounds.
	waver := synth.Player{Instrument: i, WaverDepth: 30, WaverHz: 0.5}
	sound, truths := waver.Play(s, rate)
	low, high := 0., 0.
	for from := truths[0].Onset + 0.5; from < truths[0].Release-0.5; from += 0.1 {
		heard := cents(pitchNear(piece(sound, from-0.05, from+0.05), target), target)
		said := cents(float64(truths[0].At(from)), target)
		assert.InDelta(t, said, heard, 1.5)
		low, high = min(low, heard), max(high, heard)
	}
	assert.InDelta(t, 30, high, 6)
	assert.InDelta(t, -30, low, 6)
}

func TestFaultsAreWhereTheyAreSaidToBe(t *testing.T) {
	s, i := score(t, "clarinet", 0, 7)
	target := float64(s.Targets()[0].Target.Frequency(s.A4Hz))
	p := synth.Player{
		Instrument: i,
		FaultOn:    1,
		Gaps:       []synth.Gap{{At: 2, Length: 0.5}},
		Cracks:     []synth.Crack{{At: 4, Length: 0.5, Semitones: 19}},
	}
	sound, truths := p.Play(s, rate)
	require.Len(t, truths, 2)
	on := truths[0].Onset
	assert.Zero(t, rms(piece(sound, on+2.05, on+2.45)), "the gap is silent")
	assert.Zero(t, truths[0].At(on+2.25))
	for _, edge := range []music.Seconds{1.8, 2.6} {
		assert.Greater(t, rms(piece(sound, on+edge, on+edge+0.1)), 0.05)
	}
	// A clarinet overblows at the twelfth: three times the frequency.
	cracked := piece(sound, on+4.1, on+4.4)
	assert.InDelta(t, 0, cents(pitchNear(cracked, 3*target), 3*target), 25)
	assert.InDelta(t, 1902, cents(float64(truths[0].At(on+4.25)), target), 25)
	assert.InDelta(t, 0, cents(float64(truths[0].At(on+5)), target), 1)
	second := truths[1].Onset
	assert.Greater(t, rms(piece(sound, second+2.05, second+2.45)), 0.05, "the second note has none of it")

	wrong, truths := synth.Player{Instrument: i, Shift: 2}.Play(s, rate)
	assert.InDelta(t, 200, cents(float64(truths[0].Pitch), target), 1e-6)
	assert.InDelta(t, 200, cents(pitchNear(piece(wrong, on+2, on+3), target*math.Exp2(2./12)), target), 0.2)
}

// An end is as long as it is said to be; where the score asks for a taper and
// nothing is said, it is one.
func TestEndsAreAsLongAsTheyAreSaidToBe(t *testing.T) {
	i, err := instrument.Get("alto-sax")
	require.NoError(t, err)
	starts, err := exercise.New(
		"starts-and-ends",
		nil,
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	fall := func(p synth.Player, s scores.Score) float64 { // seconds from nine tenths to a tenth
		p.Instrument = i
		sound, truths := p.Play(s, rate)
		end := truths[0].Release
		loud := func(at music.Seconds) float64 { return rms(piece(sound, at-0.01, at+0.01)) }
		whole := loud(end - 0.6)
		var nine, one music.Seconds
		for at := end - 0.6; at < end; at += 0.005 {
			if loud(at) > 0.9*whole {
				nine = at
			}
			if loud(at) > 0.1*whole {
				one = at
			}
		}
		return float64(one - nine)
	}
	long, _ := score(t, "alto-sax", 0)
	assert.InDelta(t, 0.036, fall(synth.Player{}, long), 0.02)
	assert.Greater(t, fall(synth.Player{}, starts), 0.15, "the step asks for a taper")
	assert.Less(t, fall(synth.Player{Release: 0.05}, starts), 0.08, "and this one cuts it off")
	assert.InDelta(t, 0.59*0.5, fall(synth.Player{Release: 0.5}, long), 0.05)
}

// The same seed sounds the same; another differs.
func TestSoundIsReproducible(t *testing.T) {
	s, i := score(t, "flute", 0)
	p := synth.Player{
		Instrument: i,
		Seed:       4,
		WaverDepth: 6,
		Jitter:     4,
		Breath:     -30,
		Room:       -60,
	}
	a, _ := p.Play(s, rate)
	b, _ := p.Play(s, rate)
	p.Seed = 5
	c, _ := p.Play(s, rate)
	assert.Equal(t, a, b)
	assert.NotEqual(t, a.Samples, c.Samples)
}

// A room adds what it is said to, and keeps time.
func TestARoomAddsWhatItIsSaidTo(t *testing.T) {
	s, i := score(t, "clarinet", 0)
	dry, truths := synth.Player{Instrument: i}.Play(s, rate)
	assert.Equal(t, dry.Samples, synth.Room{}.Record(dry).Samples, "the zero room adds nothing")
	noisy := synth.Room{Seed: 1, Noise: -50}.Record(dry)
	assert.InDelta(t, -50, decibels(rms(piece(noisy, 0.5, 3))), 0.3)
	humming := synth.Room{Seed: 1, Hum: -40, HumHz: 60}.Record(dry)
	assert.InDelta(t, -40, decibels(rms(piece(humming, 0.5, 3))), 0.3)
	assert.Greater(t, strength(piece(humming, 0.5, 2.5), 60), 5*strength(piece(humming, 0.5, 2.5), 50))
	clicked := synth.Room{Clicks: []music.Seconds{1}, Click: -6}.Record(dry)
	assert.Zero(t, rms(piece(clicked, 0.5, 0.999)))
	loudest := 0.
	for _, v := range piece(clicked, 1, 1.05) {
		loudest = max(loudest, math.Abs(v))
	}
	assert.InDelta(t, -6, decibels(loudest), 1)
	echo := synth.Room{Seed: 1, Echo: 0.8}.Record(dry)
	assert.Zero(t, rms(piece(echo, 0, truths[0].Onset)), "the echo comes behind")
	assert.Greater(
		t,
		rms(piece(echo, truths[0].Release+0.05, truths[0].Release+0.1)),
		10*rms(piece(echo, truths[0].Release+0.8, truths[0].Release+0.9)),
	)
	hot := synth.Room{Device: synth.Device{Gain: 40}}.Record(dry)
	for _, v := range hot.Samples {
		require.LessOrEqual(t, math.Abs(v), 1.)
	}
}

// Every simulated player that can be chosen plays every score, and an unknown one
// is told.
func TestStandInsPlay(t *testing.T) {
	s, i := score(t, "trombone", 0)
	for _, who := range synth.StandIns() {
		p, ok := synth.Perform(who.Key, s, i, 3)
		require.True(t, ok, who.Key)
		sound, truths := p.Play(rate)
		assert.InDelta(t, float64(s.Seconds()), sound.Seconds(), 0.01)
		assert.Len(t, truths, len(p.Score.Targets()))
	}
	_, ok := synth.NewStandIn("virtuoso", i, 58, 1)
	assert.False(t, ok)
	assert.Equal(t, 4, synth.NextPartial(i, 58), "a trombone's B♭3, the fourth partial, breaks to the fifth, D4")
	assert.Equal(t, 7, synth.NextPartial(i, 46), "its B♭2, the second, to the third, F3")
}

// A player who comes so late that the last note of a phrase would begin after its end
// leaves it out, and the take is still played.
func TestANoteLaterThanItsPhraseIsLeftOut(t *testing.T) {
	i, err := instrument.Get("bass-clarinet")
	require.NoError(t, err)
	s, err := exercise.New("neighbour-return", nil).
		Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	for n := range s.Segments {
		if n > 0 && s.Segments[n].Phase == scores.Play {
			s.Segments[n].Articulation = scores.Slurred
		}
	}
	for late := music.Seconds(0); late < 12; late += 0.37 {
		_, truths := synth.Player{Instrument: i, Late: late}.Play(s, 8000)
		assert.Len(t, truths, len(s.Targets()))
	}
}

// A second's playing, waver, breath and room with it.
func BenchmarkPlay(b *testing.B) {
	i, err := instrument.Get("clarinet")
	require.NoError(b, err)
	s, err := exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0, 1}, "beats": 8}).
		Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(b, err)
	p := synth.Player{
		Instrument: i,
		WaverDepth: 10,
		Drift:      0.3,
		Breath:     -38,
		Room:       -68,
	}
	for b.Loop() {
		p.Play(s, 44100)
	}
	b.ReportMetric(b.Elapsed().Seconds()*1e3/float64(b.N)/float64(s.Seconds()), "ms/s")
}
