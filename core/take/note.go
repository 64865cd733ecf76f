package take

import (
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Note is one measured note. Pitches are against its target, or against the
// nearest note where there is no score.
type Note struct {
	Target    music.MIDI    `json:"target_midi,omitempty"`
	MIDI      music.MIDI    `json:"midi" doc:"the note that sounded"`
	Played    bool          `json:"played" doc:"false when nothing was heard where the score has a note"`
	WrongNote bool          `json:"wrong_note" doc:"another note sounded longer than the target"`
	Onset     music.Seconds `json:"onset_s"`
	Release   music.Seconds `json:"release_s"`
	F0        music.Hertz   `json:"f0_hz" doc:"median over the steady part"`

	Centre     music.Cents    `json:"centre_cents" doc:"median distance from the target over the steady part"`
	Steadiness music.Cents    `json:"steadiness_cents" doc:"half the 5–95 % range of the detrended pitch"`
	Drift      float64        `json:"drift_cents_per_s" doc:"Theil–Sen slope of the pitch"`
	Level      music.Decibels `json:"level_db" doc:"median loudness, dB below full scale"`
	LevelSD    float64        `json:"level_sd_db" doc:"standard deviation of the loudness over the middle 80 %"`
	Clearness  music.Decibels `json:"clearness_db" doc:"harmonics to noise"`
	Scoop      music.Cents    `json:"scoop_cents" doc:"first 60 ms against the centre"`
	Sounding   music.Seconds  `json:"sounding_s" doc:"time at the note, without gaps and breaks"`
	HeldRatio  float64        `json:"held_ratio" doc:"sounding share of the beats asked for; 0 without a score"`
	Response   music.Seconds  `json:"response_s" doc:"onset after its beat; 0 without a score"`

	Trusted    bool    `json:"trusted" doc:"whether the pitch measures can be relied on"`
	WhyNot     string  `json:"why_not,omitempty"`
	Confidence float64 `json:"confidence" doc:"median confidence of the pitch path"`
}

const (
	settle         music.Seconds = 0.15 // from onset to the steady part, and from it to the release
	aroundStops    music.Seconds = 0.05 // kept clear on both sides of gaps and breaks
	scoopTime      music.Seconds = 0.06
	leastConfident               = 0.75
	fewestFrames                 = 10
)

// measure computes one note's measures from its plateaus.
func (a *Analysis) measure(g group, q Question) Note {
	n := Note{MIDI: g.midi, WrongNote: g.wrong}
	if g.target != nil {
		n.Target = g.target.Target
	}
	if len(g.on) == 0 {
		n.WhyNot = "nothing was heard here"
		return n
	}
	n.Played = true
	n.Onset, n.Release = g.on[0].Onset, g.on[len(g.on)-1].Release
	for _, p := range g.on {
		n.Sounding += p.length()
	}
	if g.target != nil {
		n.HeldRatio = math.Min(1, float64(n.Sounding/g.beats))
		n.Response = n.Onset - g.begin
	}
	s := a.steady(g)
	if len(s.cents) < fewestFrames {
		n.WhyNot = "too short to measure"
		s = a.frames(g, 0)
	}
	if len(s.cents) == 0 {
		return n
	}
	n.fill(s, g)
	n.Scoop = a.scoop(g) - n.Centre
	n.judgeTrust()
	return n
}

// stretch is the frames a measure is taken over.
type stretch struct {
	t, cents, levels, confidences []float64
}

// steady returns the frames from settle after the onset to settle before the
// release, clear of gaps and breaks.
func (a *Analysis) steady(g group) stretch {
	return a.frames(g, settle)
}

func (a *Analysis) frames(g group, margin music.Seconds) stretch {
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
			f := a.Contour.Frames[n]
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

func (n *Note) fill(s stretch, g group) {
	n.Centre = music.Cents(dsp.Median(s.cents))
	n.F0 = (g.pitch + n.Centre).Above(standardPitch)
	n.Drift = dsp.TheilSen(s.t, s.cents)
	straight := make([]float64, len(s.cents))
	for k := range s.cents {
		straight[k] = s.cents[k] - n.Drift*(s.t[k]-s.t[0])
	}
	n.Steadiness = music.Cents((dsp.Quantile(straight, 0.95) - dsp.Quantile(straight, 0.05)) / 2)
	n.Level = music.Decibels(dsp.Median(s.levels))
	n.LevelSD = deviation(s.levels[len(s.levels)/10 : len(s.levels)-len(s.levels)/10])
	n.Confidence = dsp.Median(s.confidences)
	n.Clearness = HarmonicsToNoise(n.Confidence)
}

// HarmonicsToNoise returns the ratio that a periodicity (0 to 1) stands for:
// 10·log10(r / (1−r)), kept within ±40 dB. Source: P. Boersma, IFA
// Proceedings 17 (1993), pp. 97–110.
func HarmonicsToNoise(periodicity float64) music.Decibels {
	r := max(1e-4, min(1-1e-4, periodicity))
	return music.Decibels(10 * math.Log10(r/(1-r)))
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

// scoop is the median of the note's first 60 ms.
func (a *Analysis) scoop(g group) music.Cents {
	p := g.on[0]
	var first []float64
	for n := p.from; n < p.to && contour.Time(n) < p.Onset+scoopTime; n++ {
		if f := a.Contour.Frames[n]; f.Voiced() {
			first = append(first, float64(music.Between(standardPitch, f.Pitch)-g.pitch))
		}
	}
	if len(first) == 0 {
		return p.pitch - g.pitch
	}
	return music.Cents(dsp.Median(first))
}

func (n *Note) judgeTrust() {
	if n.WhyNot == "" && n.Confidence < leastConfident {
		n.WhyNot = "the pitch is not clear enough"
	}
	n.Trusted = n.WhyNot == ""
}
