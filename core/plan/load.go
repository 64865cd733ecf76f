package plan

import (
	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Effort is what a day asks of one player's body.
type Effort struct {
	Total  music.Seconds `json:"total_s"`
	Sound  music.Seconds `json:"sound_s"`
	Rest   music.Seconds `json:"rest_s"`
	Lip    music.Seconds `json:"lip_s" doc:"the most in any ten minutes"`
	Buzz   music.Seconds `json:"buzz_s" doc:"the most before a long pause"`
	Breath music.Seconds `json:"breath_s"`
	High   music.Seconds `json:"high_s"`
	Break  music.Seconds `json:"break_s"`
	Rounds int           `json:"rounds"`
}

// Over is one budget that a day goes beyond, for one instrument.
type Over struct {
	Budget     string  `json:"budget" enum:"total,break,buzz,lip,high,rounds"`
	Instrument string  `json:"instrument"`
	Value      float64 `json:"value"`
	Limit      float64 `json:"limit"`
	Text       string  `json:"text"`
}

// day is a day being added up for one player, item after item.
type day struct {
	load    Effort
	budgets Budgets
	who     instrument.Instrument
	buzzing music.Seconds // since the last long pause
	paused  music.Seconds
	lips    []stretch // of lip time
}

type stretch struct{ from, to music.Seconds }

// piece is an option of an item, worked out for one player.
type piece struct {
	absent  bool // not for this instrument
	seconds music.Seconds
	load    scores.Load
	times   int
	wave    []wavelet // how lips and buzzing lie in time, once through
}

// wavelet is a stretch of a score for the lips.
type wavelet struct {
	seconds   music.Seconds
	lip, buzz bool
}

// work lays an item out for a player.
func work(i Item, p exercise.Player, c exercise.Conventions, at Place) (piece, error) {
	if !i.AsksOf(p) {
		return piece{absent: true}, nil
	}
	s, err := i.Step.Score(p, c)
	if err != nil {
		return piece{}, err
	}
	out := piece{seconds: i.Seconds(s, at), load: s.Load, times: i.Times}
	for _, seg := range s.Segments {
		w := wavelet{
			seconds: s.TempoBPM.Seconds(seg.Beats), buzz: seg.Phase == scores.Buzz,
			lip: seg.Phase == scores.Buzz || seg.Phase == scores.Play && p.Instrument.Family == instrument.Brass,
		}
		if n := len(out.wave); n > 0 && out.wave[n-1].buzz == w.buzz && out.wave[n-1].lip == w.lip {
			out.wave[n-1].seconds += w.seconds
			continue
		}
		out.wave = append(out.wave, w)
	}
	return out, nil
}

// add puts a piece behind the others. together is how long it takes everyone,
// for those who wait.
func (d *day) add(p piece, together music.Seconds) {
	begin := d.load.Total
	d.load.Total += together
	if p.absent {
		d.pause(together)
		d.load.Rest += together
		return
	}
	times := music.Seconds(p.times)
	d.load.Sound += times * p.load.SoundSeconds
	d.load.Rest += together - times*p.load.SoundSeconds
	d.load.Breath += times * p.load.BreathSeconds
	d.load.High += times * p.load.HighSeconds
	d.load.Break += times * p.load.BreakSeconds
	d.load.Rounds += p.times * p.load.Rounds
	at := begin
	once := music.Seconds(0)
	for _, w := range p.wave {
		once += w.seconds
	}
	between := max(0, together/times-once) // reading, recording and looking
	for range p.times {
		d.pause(between)
		at += between
		for _, w := range p.wave {
			d.lip(w, at)
			at += w.seconds
		}
	}
}

func (d *day) pause(s music.Seconds) {
	if d.paused += s; d.paused >= d.budgets.BuzzPause {
		d.buzzing = 0
	}
}

func (d *day) lip(w wavelet, at music.Seconds) {
	if w.buzz {
		d.buzzing += w.seconds
		d.paused = 0
		d.load.Buzz = max(d.load.Buzz, d.buzzing)
	} else {
		d.pause(w.seconds)
	}
	if !w.lip {
		return
	}
	d.lips = append(d.lips, stretch{at, at + w.seconds})
	from := at + w.seconds - tenMinutes
	var inWindow music.Seconds
	for n := len(d.lips) - 1; n >= 0 && d.lips[n].to > from; n-- {
		inWindow += d.lips[n].to - max(from, d.lips[n].from)
	}
	d.load.Lip = max(d.load.Lip, inWindow)
}

// tolerance is half a second nobody notices.
const tolerance = 0.5

// over lists the budgets that the day goes beyond.
func (d *day) over() []Over {
	out := []Over{}
	b, l, name := d.budgets, d.load, d.who.Name
	exceeds := func(budget string, value, limit float64, text func() string) {
		if beyond(value, limit) {
			out = append(out, Over{budget, d.who.Key, value, limit, text()})
		}
	}
	exceeds(
		"total",
		float64(l.Total),
		float64(b.Total),
		func() string { return fmt.Sprintf("%s of %s", minutes(l.Total), minutes(b.Total)) },
	)
	exceeds("break", float64(l.Break), float64(b.Break), func() string {
		return fmt.Sprintf("%s would cross the break for %s; %s are enough", name, minutes(l.Break), minutes(b.Break))
	})
	exceeds("buzz", float64(l.Buzz), float64(b.Buzz), func() string {
		return fmt.Sprintf("%s would buzz %.0f s without a pause of %.0f s", name, l.Buzz, b.BuzzPause)
	})
	exceeds("lip", float64(l.Lip), float64(b.Lip), func() string {
		return fmt.Sprintf(
			"%s would have %s on the lips within ten minutes; %s are enough",
			name,
			minutes(l.Lip),
			minutes(b.Lip),
		)
	})
	exceeds(
		"rounds",
		float64(l.Rounds),
		float64(b.Rounds),
		func() string { return fmt.Sprintf("%d rounds of breathing; %d are enough", l.Rounds, b.Rounds) },
	)
	exceeds("high", float64(l.High), b.HighShare*float64(l.Sound), func() string {
		return fmt.Sprintf("%s would play high for %s of %s", name, minutes(l.High), minutes(l.Sound))
	})
	return out
}

// inside reports whether the day is inside every budget that only grows; shares
// cannot be judged while more is to come.
func (d *day) inside() bool {
	b, l := d.budgets, d.load
	return !beyond(float64(l.Total), float64(b.Total)) && !beyond(float64(l.Break), float64(b.Break)) &&
		!beyond(float64(l.Buzz), float64(b.Buzz)) &&
		!beyond(float64(l.Lip), float64(b.Lip)) &&
		!beyond(float64(l.Rounds), float64(b.Rounds))
}

func beyond(value, limit float64) bool { return limit > 0 && value > limit+tolerance }

// minutes writes a time as 6:05.
func minutes(s music.Seconds) string {
	n := int(s + 0.5)
	return fmt.Sprintf("%d:%02d", n/60, n%60)
}

// Section is a day's load on one instrument of the band.
type Section struct {
	Instrument string       `json:"instrument"`
	Stage      scores.Stage `json:"stage"`
	Load       Effort       `json:"load"`
	Over       []Over       `json:"over" nullable:"false"`
	Waits      []string     `json:"waits" nullable:"false" doc:"keys of the items that are not for it"`
}

// DayLoad adds a day up for everyone in the band, in the given order. minutes is the
// time there is; 0 is the usual.
func DayLoad(items []Item, b Band, at Place, minutesThere float64) ([]Section, error) {
	pieces, err := b.work(items, at)
	if err != nil {
		return nil, err
	}
	out := make([]Section, len(b.Players))
	for n, p := range b.Players {
		d := day{budgets: budgets(p.Stage, at, minutesThere), who: p.Instrument}
		out[n] = Section{Instrument: p.Instrument.Key, Stage: p.Stage, Waits: []string{}}
		for k := range items {
			d.add(pieces[k][n], together(pieces[k], n, at))
			if pieces[k][n].absent {
				out[n].Waits = append(out[n].Waits, items[k].Key)
			}
		}
		out[n].Load = d.load
		out[n].Over = d.over()
	}
	return out, nil
}

func budgets(s scores.Stage, at Place, minutesThere float64) Budgets {
	if at == AtHome {
		return ForHome(s, minutesThere)
	}
	return ForClass(s, minutesThere)
}

// work lays every item out for every player: [item][player].
func (b Band) work(items []Item, at Place) ([][]piece, error) {
	out := make([][]piece, len(items))
	for k, i := range items {
		out[k] = make([]piece, len(b.Players))
		for n, p := range b.Players {
			var err error
			if out[k][n], err = work(i, p, b.Conventions, at); err != nil {
				return nil, err
			}
		}
	}
	return out, nil
}

// together is how long an item takes player n: in class everyone waits for the
// slowest, at home nobody waits for what is not theirs.
func together(pieces []piece, n int, at Place) music.Seconds {
	if at == AtHome {
		if pieces[n].absent {
			return 0
		}
		return pieces[n].seconds
	}
	var longest music.Seconds
	for _, p := range pieces {
		if !p.absent {
			longest = max(longest, p.seconds)
		}
	}
	return longest
}
