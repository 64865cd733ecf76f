// Package ribbon turns an analysed take into the drawing that is the same at
// every size: strokes of ink along time, thick where loud, solid where clear,
// with gaps left white and jumps set apart. It decides what is drawn; the
// interface only scales it.
package ribbon

import (
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/ear"
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Ribbon is the drawing. All times are seconds from the score's first click.
type Ribbon struct {
	From    music.Seconds `json:"from_s"`
	To      music.Seconds `json:"to_s"`
	Range   music.Cents   `json:"range_cents" doc:"half the height of the drawing; the band is a third of it"`
	Tracks  []Track       `json:"tracks" nullable:"false"`
	Strokes []Stroke      `json:"strokes" nullable:"false"`
	Jumps   []Jump        `json:"jumps" nullable:"false"`
	Gaps    []Stretch     `json:"gaps" nullable:"false"`
	Beats   []float64     `json:"beats_s" nullable:"false"`
	Text    string        `json:"text" doc:"the drawing in words, for screen readers"`
}

// Track is the allowed band of one target.
type Track struct {
	From    music.Seconds `json:"from_s"`
	To      music.Seconds `json:"to_s"`
	Band    music.Cents   `json:"band_cents"`
	Written string        `json:"written"`
	Concert string        `json:"concert"`
	Called  string        `json:"called,omitempty" doc:"as the player says it"`
	Became  string        `json:"became,omitempty" doc:"what became of it, where it did not come: stayed on F, left out"`
}

// Stroke is a stretch of sound at the target: point n lies at From + n·Step.
type Stroke struct {
	From   music.Seconds `json:"from_s"`
	To     music.Seconds `json:"to_s"`
	Step   music.Seconds `json:"step_s"`
	Cents  []float64     `json:"cents" nullable:"false"`
	Weight []int         `json:"weight" nullable:"false" doc:"thickness, 0 to 100"`
	Ink    []int         `json:"ink" nullable:"false" doc:"0 breathy to 100 clear"`
}

// Jump is a stretch away from the target, drawn apart above or below.
type Jump struct {
	From  music.Seconds `json:"from_s"`
	To    music.Seconds `json:"to_s"`
	Above bool          `json:"above"`
	Label string        `json:"label"`
}

// Stretch is a span of time.
type Stretch struct {
	From music.Seconds `json:"from_s"`
	To   music.Seconds `json:"to_s"`
}

const (
	rangeInBands                = 3
	margin       music.Seconds  = 0.5 // of white before the first and after the last beat
	quietest     music.Decibels = 30  // below the take's loudest: the thinnest line
	thinnest                    = 12
	attack       music.Seconds  = 0.06 // drawn thin: the pitch has not settled
	breathy      music.Decibels = 5
	clear        music.Decibels = 25
	palestInk                   = 30
	// elsewhere is how far from the note a frame may lie and still be its own: the
	// edges of a break belong to neither.
	elsewhere music.Cents = 120
	// onTheLine, in beats, counts what falls just before a beat to that beat.
	onTheLine music.Beats = 0.1
)

// Draw returns the ribbon with about the given number of points across.
func Draw(a ear.Analysis, s scores.Score, i instrument.Instrument, points int) Ribbon {
	return DrawAt(a, s, i, points)[0]
}

// DrawAt returns the ribbon at several sizes, each with about so many points across.
func DrawAt(a ear.Analysis, s scores.Score, i instrument.Instrument, points ...int) []Ribbon {
	targets, calls := s.Targets(), callsOf(a, s, i)
	laid := lay(a, s, targets, calls)
	out := make([]Ribbon, len(points))
	for size, count := range points {
		r := &out[size]
		*r = laid
		if len(r.Tracks) == 0 {
			continue
		}
		p := pen{
			a:       a,
			targets: targets,
			calls:   calls,
			step:    max(contour.Hop, (r.To-r.From)/music.Seconds(max(1, count))),
			loudest: loudest(a),
		}
		for n, note := range a.Notes {
			p.note(r, n, note, targets[n], s)
		}
	}
	return out
}

// lay is a ribbon as far as it is the same at every size: all but its ink.
func lay(a ear.Analysis, s scores.Score, targets []scores.Segment, calls calls) Ribbon {
	r := Ribbon{
		Range:   rangeInBands * s.Limits.Centre,
		Tracks:  []Track{},
		Strokes: []Stroke{},
		Jumps:   []Jump{},
		Gaps:    []Stretch{},
		Beats:   []float64{},
	}
	for n, t := range targets {
		from := s.TempoBPM.Seconds(t.StartBeat)
		r.Tracks = append(r.Tracks, Track{
			From:    from,
			To:      from + s.TempoBPM.Seconds(t.Beats),
			Band:    s.Limits.Centre,
			Written: t.WrittenName,
			Concert: t.Concert,
			Called:  calls.of(t.Target),
			Became:  calls.became(a, n),
		})
	}
	if len(r.Tracks) == 0 {
		return r
	}
	r.From, r.To = r.Tracks[0].From-margin, r.Tracks[len(r.Tracks)-1].To+margin
	for _, n := range a.Notes {
		if n.Played {
			r.From, r.To = min(r.From, n.Onset-a.Start-margin/2), max(r.To, n.Release-a.Start+margin/2)
		}
	}
	for _, c := range s.Timeline().Clicks {
		if c.At >= r.From && c.At <= r.To {
			r.Beats = append(r.Beats, float64(c.At))
		}
	}
	r.Text = describe(a, s, calls)
	return r
}

// pen draws one take.
type pen struct {
	a       ear.Analysis
	targets []scores.Segment
	calls   calls
	step    music.Seconds
	loudest music.Decibels
	// what lies around a point, for its medians: kept from point to point
	cents, levels, sure []float64
}

func loudest(a ear.Analysis) music.Decibels {
	var levels []float64
	for _, f := range a.Contour.Frames {
		if f.Voiced() {
			levels = append(levels, float64(f.Level))
		}
	}
	if len(levels) == 0 {
		return 0
	}
	return music.Decibels(dsp.Quantile(levels, 0.95))
}

// note adds one note's strokes, cut where it was silent or elsewhere.
func (p *pen) note(
	r *Ribbon,
	index int,
	n ear.Note,
	target scores.Segment,
	s scores.Score,
) {
	if !n.Played {
		return
	}
	at := n.Onset
	for _, e := range p.a.Events {
		if e.Note != index {
			continue
		}
		to := e.At + e.Duration
		switch e.Kind {
		case ear.Gap:
			r.Gaps = append(r.Gaps, Stretch{e.At - p.a.Start, to - p.a.Start})
		case ear.Chirp:
			r.Jumps = append(r.Jumps, Jump{e.At - p.a.Start, to - p.a.Start, true, "a squeak"})
			continue // the note goes on under it
		case ear.Break, ear.Undertone, ear.WrongNote:
			if e.Kind == ear.WrongNote {
				to = n.Release
			}
			r.Jumps = append(r.Jumps, Jump{e.At - p.a.Start, to - p.a.Start, e.Interval > 0, p.calls.jump(e)})
		default:
			continue // the line itself shows it
		}
		if n.WrongNote {
			continue
		}
		r.stroke(p, at, e.At, target, s, n.Centre)
		at = max(at, e.At+e.Duration)
	}
	if !n.WrongNote {
		r.stroke(p, at, p.until(r, index, n.Release), target, s, n.Centre)
	}
}

// until is where a note's own ink ends: where it went on into the next one's time, that is
// drawn there, apart, as what came in its place.
func (p *pen) until(r *Ribbon, index int, release music.Seconds) music.Seconds {
	end := release
	for k := index + 1; k < len(p.a.Accounts) && p.a.Accounts[k].Kind == explain.HeldOver; k++ {
		t := r.Tracks[k]
		if to := min(release-p.a.Start, t.To); to > t.From {
			r.Jumps = append(r.Jumps, Jump{t.From, to, p.a.Accounts[k].Came > p.targets[k].Target, t.Became})
		}
		end = min(end, p.a.Start+t.From)
	}
	return end
}

// stroke adds the sound between two moments of the recording.
func (r *Ribbon) stroke(p *pen, from, to music.Seconds, target scores.Segment, s scores.Score, centre music.Cents) {
	if to-from < contour.Hop {
		return
	}
	st := Stroke{From: from - p.a.Start, To: to - p.a.Start}
	count := max(2, int(math.Ceil(float64((to-from)/p.step)))+1)
	st.Step = (to - from) / music.Seconds(count-1)
	pitch := target.Target.Frequency(s.A4Hz)
	for k := range count {
		at := from + music.Seconds(k)*st.Step
		cents, level, confidence, ok := p.around(at, st.Step, from, to, pitch, centre)
		if !ok { // unvoiced flicker: the line goes on
			cents = float64(centre)
			if k > 0 {
				cents = st.Cents[k-1]
			}
		}
		weight := 100 - float64((p.loudest-level)/quietest)*(100-thinnest)
		if at < from+attack {
			weight /= 2
		}
		st.Cents = append(st.Cents, math.Round(cents*10)/10)
		st.Weight = append(st.Weight, int(max(thinnest, min(100, weight))))
		st.Ink = append(st.Ink, ink(confidence))
	}
	r.Strokes = append(r.Strokes, st)
}

// around returns the medians of the frames within half a step of at that lie
// inside the stroke.
func (p *pen) around(
	at, step, from, to music.Seconds,
	pitch music.Hertz,
	centre music.Cents,
) (cents float64, level music.Decibels, confidence float64, ok bool) {
	p.cents, p.levels, p.sure = p.cents[:0], p.levels[:0], p.sure[:0]
	lo := max(0, contour.Index(max(from, at-step/2)))
	hi := min(len(p.a.Contour.Frames)-1, contour.Index(min(to, at+step/2)))
	for n := lo; n <= hi; n++ {
		if f := p.a.Contour.Frames[n]; f.Voiced() {
			cents := music.Between(pitch, f.Pitch)
			if max(cents-centre, centre-cents) > elsewhere {
				continue
			}
			p.cents = append(p.cents, float64(cents))
			p.levels = append(p.levels, float64(f.Level))
			p.sure = append(p.sure, f.Confidence)
		}
	}
	if len(p.cents) == 0 {
		return 0, p.loudest - quietest, 0, false
	}
	return dsp.Median(p.cents), music.Decibels(dsp.Median(p.levels)), dsp.Median(p.sure), true
}

func ink(confidence float64) int {
	share := float64((contour.HarmonicsToNoise(confidence) - breathy) / (clear - breathy))
	return int(palestInk + (100-palestInk)*max(0, min(1, share)))
}
