package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Note is one measured note. Pitches are against its target, or against the
// nearest note where there is no score.
type Note struct {
	Target    music.MIDI    `json:"target_midi,omitempty"`
	Phase     scores.Phase  `json:"phase,omitempty" doc:"how it was to be sounded, when there is a score"`
	MIDI      music.MIDI    `json:"midi" doc:"the note that sounded"`
	Partial   int           `json:"partial,omitempty" doc:"which partial of its tube or fingering it is"`
	Played    bool          `json:"played" doc:"false when nothing was heard where the score has a note"`
	WrongNote bool          `json:"wrong_note" doc:"another note sounded longer than the target"`
	Onset     music.Seconds `json:"onset_s"`
	Release   music.Seconds `json:"release_s"`
	Start     Start         `json:"start,omitempty" doc:"how it follows what was before" enum:"silence,tongue,slur"`
	F0        music.Hertz   `json:"f0_hz" doc:"median over the steady part"`

	Centre     music.Cents    `json:"centre_cents" doc:"median distance from the target over the steady part"`
	Steadiness music.Cents    `json:"steadiness_cents" doc:"half the 5–95 % range of the detrended pitch"`
	Drift      float64        `json:"drift_cents_per_s" doc:"Theil–Sen slope of the pitch"`
	CentsFrom  music.Cents    `json:"cents_from" doc:"pitch of the first fifth, against the target"`
	CentsTo    music.Cents    `json:"cents_to" doc:"pitch of the last fifth"`
	WaverHz    float64        `json:"waver_hz" doc:"rate of the strongest component of 2 to 9 Hz; 0 where the note is too short"`
	Waver      music.Cents    `json:"waver_cents" doc:"its depth, peak from the middle"`
	Vibrato    bool           `json:"vibrato" doc:"the waver is regular"`
	Level      music.Decibels `json:"level_db" doc:"median loudness, dB below full scale"`
	LevelSD    float64        `json:"level_sd_db" doc:"standard deviation of the loudness over the middle 80 %"`
	LevelFrom  music.Decibels `json:"level_from_db" doc:"loudness of the first fifth"`
	LevelTo    music.Decibels `json:"level_to_db" doc:"loudness of the last fifth"`
	Grows      music.Decibels `json:"grows_db" doc:"from the one to the other, as most harmonics do"`
	Loudness   music.Decibels `json:"loudness_lufs,omitempty" doc:"momentary loudness, ITU-R BS.1770; absent from notes shorter than its window"`
	WithLevel  float64        `json:"cents_per_10_db" doc:"how the pitch goes with loudness; 0 where the loudness hardly changes"`
	Scoop      music.Cents    `json:"scoop_cents" doc:"first 60 ms against the centre; 0 where a click or a voice sounds over them"`
	Settle     music.Seconds  `json:"settle_s" doc:"until the pitch stays within 20 cents of the centre"`
	Attack     music.Seconds  `json:"attack_s" doc:"time to rise from a tenth to nine tenths of the loudness"`
	Rise       music.Seconds  `json:"rise_s" doc:"time to rise from a tenth to half of the loudness: longer without the tongue; 0 where what else sounds hides it"`
	Dip        music.Decibels `json:"dip_db" doc:"how far the loudness dips where it follows another pitch: the tongue's doing; 0 after a rest"`
	Step       music.Decibels `json:"step_db" doc:"the greatest sudden change of its loudness that lasts"`
	Decay      music.Seconds  `json:"decay_s" doc:"time to fall from nine tenths to a tenth of it"`
	EndBend    music.Cents    `json:"end_cents" doc:"last 150 ms against the centre"`
	Tail       float64        `json:"tail_db_per_s" doc:"slope of the loudness over the last quarter"`
	Air        music.Seconds  `json:"air_s" doc:"air heard before the tone spoke"`
	Sounding   music.Seconds  `json:"sounding_s" doc:"time at the note, without gaps and breaks"`
	HeldRatio  float64        `json:"held_ratio" doc:"sounding share of the beats asked for; 0 without a score"`
	Response   music.Seconds  `json:"response_s" doc:"onset after its beat; 0 without a score"`
	Change     music.Seconds  `json:"change_s" doc:"from leaving the note before to being within 30 cents of this one; 0 after a rest"`
	Pulse      *Pulse         `json:"pulse,omitempty" doc:"of a tone pushed by the air"`
	Slide      *Slide         `json:"slide,omitempty" doc:"of a sliding pitch"`
	Tone       contour.Tone   `json:"tone"`

	Trusted    bool    `json:"trusted" doc:"whether the pitch measures can be relied on"`
	WhyNot     Doubt   `json:"why_not,omitempty"`
	Distrust   Trust   `json:"distrust" doc:"per group of measures, why it cannot be relied on; empty where it can"`
	Confidence float64 `json:"confidence" doc:"median confidence of the pitch path"`
}

const (
	settle       music.Seconds = 0.15 // from onset to the steady part, and from it to the release
	settleShare                = 0.3  // of a note, at most
	aroundStops  music.Seconds = 0.05 // kept clear on both sides of gaps and breaks
	scoopTime    music.Seconds = 0.06
	endTime      music.Seconds = 0.15
	fewestFrames               = 6
)

// measure computes one note's measures from its plateaus.
func (l *listening) measure(g group) Note {
	if len(g.on) == 0 {
		n := Note{MIDI: g.midi, WrongNote: g.wrong, WhyNot: Unheard}
		if g.target != nil {
			n.Target, n.Phase = g.target.Target, g.target.Phase
		}
		return n
	}
	s := l.steady(g)
	short := len(s.cents) < fewestFrames
	if short {
		s = l.frames(g, 0)
	}
	n := l.take.bodyOf(s, g.pitch)
	if short {
		n.WhyNot = TooShort
	}
	l.place(&n, g)
	if len(s.cents) == 0 {
		return n
	}
	n.Grows = l.grows(n, s)
	l.shape(&n, g)
	if len(l.Notes) > 0 {
		n.Change = l.change(g, n)
	}
	if g.target != nil && g.target.Pulses > 0 {
		n.Pulse = l.take.pulseOf(s, float64(g.target.Pulses)*float64(l.Score.TempoBPM)/60)
	}
	if g.target != nil && g.target.GlideTo != 0 {
		n.Slide = l.slide(g)
	}
	n.Tone = l.toneOf(s, g)
	if v := l.loudness.Between(n.Onset, n.Release); v > contour.Silence {
		n.Loudness = v
	}
	return n
}

// place says which note a played one is, and where it lies.
func (l *listening) place(n *Note, g group) {
	n.MIDI, n.WrongNote, n.Played = g.midi, g.wrong, true
	n.Onset, n.Release = g.on[0].Onset, g.on[len(g.on)-1].Release
	n.Start = g.on[0].starts
	for k, p := range g.on {
		n.Sounding += p.length()
		if k > 0 && g.isWhole(g.on[k-1], p) && !l.isHole(g.on[k-1], p) {
			n.Sounding += max(0, p.Onset-g.on[k-1].Release) // echoes cancelled it for a while
		}
	}
	if g.target != nil {
		n.Target, n.Phase = g.target.Target, g.target.Phase
		n.HeldRatio = math.Min(1, float64(n.Sounding/g.beats))
		n.Response = n.Onset - g.begin
	}
	if q := l.Question.Instrument; q != nil && n.Phase != scores.Sing {
		n.Partial = q.PartialOf(n.MIDI)
	}
}

// stretch is the frames a measure is taken over.
type stretch struct {
	t, cents, levels, confidences []float64
}

// steady returns the frames from a little after the onset to a little before
// the release, clear of gaps and breaks.
func (l *listening) steady(g group) stretch {
	length := g.on[len(g.on)-1].Release - g.on[0].Onset
	return l.frames(g, min(settle, settleShare*length))
}

func (l *listening) frames(g group, margin music.Seconds) stretch {
	var s stretch
	first, last := g.on[0].Onset+margin, g.on[len(g.on)-1].Release-margin
	for k, p := range g.on {
		from, to := p.Onset, p.Release
		if k > 0 && margin > 0 {
			from += aroundStops
		}
		if k < len(g.on)-1 && margin > 0 {
			to -= aroundStops
		}
		from, to = max(from, first), min(to, last)
		for n := max(p.from, contour.Index(from)); n < min(p.to, contour.Index(to)+1); n++ {
			f := l.contour.Frames[n]
			if !f.Voiced() {
				continue
			}
			cents := music.Between(standardPitch, f.Pitch) - g.pitch
			if math.Abs(float64(cents-(p.pitch-g.pitch))) > float64(2*newPlateau) {
				continue // a slip of the tracker inside the plateau
			}
			s.t = append(s.t, float64(contour.Time(n)))
			s.cents = append(s.cents, float64(cents))
			s.levels = append(s.levels, float64(f.Level))
			s.confidences = append(s.confidences, f.Confidence)
		}
	}
	return s
}

// bodyAsked is which stretch of a take was asked about, and against which pitch.
type bodyAsked struct {
	pitch        music.Cents
	begins, ends float64
}

// body is a stretch, and what of its note it tells by itself.
type body struct {
	of   stretch
	note Note
}

// bodyOf is a note with the measures of its stretch; none of an empty one.
func (t *Take) bodyOf(s stretch, pitch music.Cents) Note {
	if len(s.t) == 0 {
		return Note{}
	}
	return t.bodies.WhileTrue(
		bodyAsked{pitch, s.t[0], s.t[len(s.t)-1]},
		true,
		func(b body) bool { return b.of.equals(s) },
		func() body {
			var n Note
			n.fill(s, pitch)
			return body{s, n}
		},
	).note
}

func (s stretch) equals(o stretch) bool {
	return slices.Equal(s.t, o.t) && slices.Equal(s.cents, o.cents) &&
		slices.Equal(s.levels, o.levels) && slices.Equal(s.confidences, o.confidences)
}

// fill measures a stretch at a pitch, in cents from A4 = 440.
func (n *Note) fill(s stretch, pitch music.Cents) {
	n.Centre = music.Cents(dsp.Median(s.cents))
	n.F0 = (pitch + n.Centre).Above(standardPitch)
	n.Drift = dsp.TheilSen(s.t, s.cents)
	straight := make([]float64, len(s.cents))
	for k := range s.cents {
		straight[k] = s.cents[k] - n.Drift*(s.t[k]-s.t[0])
	}
	n.Steadiness = music.Cents((dsp.Quantile(straight, 0.95) - dsp.Quantile(straight, 0.05)) / 2)
	n.WaverHz, n.Waver, n.Vibrato = waver(s.t, straight)
	n.Level = music.Decibels(dsp.Median(s.levels))
	n.LevelSD = deviation(s.levels[len(s.levels)/10 : len(s.levels)-len(s.levels)/10])
	fifth := max(1, len(s.levels)/5)
	n.LevelFrom = music.Decibels(dsp.Median(s.levels[:fifth]))
	n.LevelTo = music.Decibels(dsp.Median(s.levels[len(s.levels)-fifth:]))
	n.CentsFrom = music.Cents(dsp.Median(s.cents[:fifth]))
	n.CentsTo = music.Cents(dsp.Median(s.cents[len(s.cents)-fifth:]))
	n.WithLevel = pitchWithLevel(s.levels, s.cents)
	n.Confidence = dsp.Median(s.confidences)
}

func deviation(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	var mean, squares float64
	for _, v := range x {
		mean += v / float64(len(x))
	}
	for _, v := range x {
		squares += (v - mean) * (v - mean) / float64(len(x))
	}
	return math.Sqrt(squares)
}

// loudnessHardlyChanges is the least range of loudness, in dB, over which a
// slope of pitch says something.
const loudnessHardlyChanges = 6

// pitchWithLevel is the slope of cents over dB, for 10 dB.
func pitchWithLevel(levels, cents []float64) float64 {
	if dsp.Quantile(levels, 0.95)-dsp.Quantile(levels, 0.05) < loudnessHardlyChanges {
		return 0
	}
	return 10 * dsp.Slope(levels, cents)
}

const momentsOfTone = 8

// toneOf is the median tone over a note's steady part.
func (l *listening) toneOf(s stretch, g group) contour.Tone {
	var clear, bright, tilt, odd, full, breath []float64
	for k := range momentsOfTone {
		at := (2*k + 1) * len(s.t) / (2 * momentsOfTone)
		pitch := (g.pitch + music.Cents(s.cents[at])).Above(standardPitch)
		t := l.take.heard.Tone(pitch, music.Seconds(s.t[at]))
		clear, bright = append(clear, float64(t.Clearness)), append(bright, t.Brightness)
		tilt, odd = append(tilt, t.Tilt), append(odd, float64(t.OddEven))
		full, breath = append(full, float64(t.Fullness)), append(breath, float64(t.Breath))
	}
	return contour.Tone{
		Clearness:  music.Decibels(dsp.Median(clear)),
		Brightness: dsp.Median(bright),
		Tilt:       dsp.Median(tilt),
		OddEven:    music.Decibels(dsp.Median(odd)),
		Fullness:   int(math.Round(dsp.Median(full))),
		Breath:     music.Decibels(dsp.Median(breath)),
	}
}

// isWhole reports whether nothing else sounds between two parts of a note.
func (g group) isWhole(before, after plateau) bool {
	return !slices.ContainsFunc(g.all, func(p plateau) bool {
		return p.Onset >= before.Release && p.Onset < after.Onset
	})
}
