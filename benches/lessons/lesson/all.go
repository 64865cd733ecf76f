package lesson

import (
	"slices"
	"sync"

	"earlychorus/benches/sampled"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// steps are what the lessons play, a step or two of every recorded kind that has a
// pitch or air.
var steps = []struct {
	kind  string
	set   map[string]any
	own   bool // without recordings: buzzes have none
	stage scores.Stage
}{
	{
		kind: "long-tone-counted",
		set:  map[string]any{"notes": []int{0, 7}, "beats": 4, "rest_beats": 4, "tempo_bpm": 80},
	},
	{kind: "long-tone-counted", set: map[string]any{"notes": []int{4}, "beats": 8, "tempo_bpm": 60}},
	{kind: "long-tone-longest", set: map[string]any{}},
	{kind: "tuning-note", set: map[string]any{}, own: true}, // recordings are not in tune enough
	{kind: "five-note-walk", set: map[string]any{}},
	{kind: "neighbour-return", set: map[string]any{}},
	{kind: "rhythm-on-a-note", set: map[string]any{}},
	{kind: "register-pair", set: map[string]any{}, stage: 3},
	{kind: "register-pair", set: map[string]any{"how": "direct"}, stage: 3},
	{kind: "slur-across-partials", set: map[string]any{}},
	{kind: "scale", set: map[string]any{}, stage: 3},
	{kind: "wide-leap", set: map[string]any{}, stage: 3},
	{kind: "sing-first", set: map[string]any{}},
	{kind: "echo", set: map[string]any{}},
	{kind: "excerpt", set: map[string]any{}},
	{kind: "starts-and-ends", set: map[string]any{}},
	{kind: "starts-and-ends", set: map[string]any{"start": "breath"}, own: true},
	{kind: "swell", set: map[string]any{}},
	{kind: "overtones", set: map[string]any{}},
	{kind: "chromatic-loop", set: map[string]any{}, stage: 3},
	{kind: "chromatic-loop", set: map[string]any{"half": "throat", "way": "up"}, stage: 3},
	{kind: "growing-walk", set: map[string]any{}},
	{kind: "scale", set: map[string]any{"form": "mixed", "mode": "harmonic"}, stage: 3},
	{kind: "rhythm-on-a-note", set: map[string]any{"notes": []int{2, 4, 7}, "each": "turn"}},
	{kind: "register-pair", set: map[string]any{"how": "down"}, stage: 3},
	{kind: "register-pair", set: map[string]any{"how": "upper"}, stage: 3},
	{kind: "overtones", set: map[string]any{"from": "real"}},
	{kind: "echo", set: map[string]any{"how": "canon"}},
	{kind: "air-pulses", set: map[string]any{}, own: true},
	{kind: "air-pulses", set: map[string]any{"on": "arpeggio"}, own: true},
	{kind: "starts-and-ends", set: map[string]any{"wait": "three-step"}},
	{kind: "ladder", set: map[string]any{"ladder": "open-two"}},
	{kind: "ladder", set: map[string]any{"ladder": "sax-low"}, stage: 3},
	{kind: "ladder", set: map[string]any{"ladder": "bassoon-low"}, stage: 3},
	{kind: "ladder", set: map[string]any{"ladder": "tuba-low"}, stage: 3},
	{kind: "ladder", set: map[string]any{"ladder": "clarinet-break", "rung": 4}, stage: 3},
	{kind: "ladder", set: map[string]any{"ladder": "brass-partials"}, stage: 3},
	{kind: "buzz-at-once", set: map[string]any{}, own: true},
	{kind: "buzz-to-a-target", set: map[string]any{}, own: true},
}

// All returns every lesson: each step for each instrument it suits, right and with
// each mistake that can be made in it, each time in another room and by another
// source of sound, so that all meet all in the end. A round gives the steps and
// mistakes to other rooms and sources, by other players; round 0 is what is reported.
func All(round int) ([]Lesson, error) {
	read, err := checked()
	if err != nil {
		return nil, err
	}
	var out []Lesson
	rooms := Rooms()
	turn := round
	for _, i := range instrument.All() {
		for n, s := range steps {
			lesson, suits, err := of(i, read[n], s.stage)
			if err != nil {
				return nil, err
			}
			if !suits {
				continue
			}
			from := sourcesOf(i, lesson.Score.Rules)
			if s.own {
				from = []string{OwnPlayers}
			}
			add := func(l Lesson, count int) {
				for k := range count {
					l.Source, l.Room = from[(turn+k)%len(from)], rooms[(turn*5+k*4)%len(rooms)]
					l.round = round
					if !l.canBeTold() {
						continue
					}
					out = append(out, l)
				}
				turn++
			}
			add(lesson, len(rooms)) // a right take in every room
			for _, m := range synth.Mistakes() {
				at := m.At(lesson.Score, i)
				if len(at) == 0 || !judges(lesson.Score, m.Key) {
					continue
				}
				wrong := lesson
				wrong.Mistake, wrong.Target = m.Key, at[int(lesson.hash()%uint64(len(at)))]
				wrong.Expect = wrong.expectation()
				add(wrong, 2)
			}
		}
	}
	return out, nil
}

// canBeTold reports whether anybody could tell the mistake in this sound and room.
func (l Lesson) canBeTold() bool {
	switch l.Mistake {
	case "silent":
		return l.Room.Name != Practicing // the neighbor alone is a soft player
	case "breathes-starts", "tongues-starts":
		return l.Source == OwnPlayers && !l.Room.rings // recordings begin as they were played
	case "slurs-instead", "tongues-instead", "tongues-slurs":
		return !l.Room.rings // which hides the tongue
	}
	return true
}

// judges reports whether a step is judged by what would tell a mistake: a kind that
// does not ask for an even loudness is not a lesson in it.
func judges(s scores.Score, mistake string) bool {
	needs, ok := needs[mistake]
	return !ok || slices.ContainsFunc(s.Rules, func(r scores.Rule) bool { return slices.Contains(needs, r.Measure) })
}

var needs = map[string][]scores.MeasureKey{
	"sinks":           {measure.PitchEnds.Key},
	"climbs":          {measure.PitchEnds.Key},
	"fades":           {measure.LevelEnds.Key},
	"swells":          {measure.LevelEnds.Key},
	"wavers":          {measure.Steadiness.Key},
	"flat":            {measure.Centre.Key},
	"sharp":           {measure.Centre.Key},
	"gap":             {measure.NoGap.Key},
	"crack":           {measure.NoBreak.Key},
	"starts-high":     {measure.NoBreak.Key},
	"starts-low":      {measure.NoBreak.Key, measure.Undertone.Key},
	"chirps":          {measure.NoChirp.Key},
	"cut-off":         {measure.Held.Key},
	"starts-late":     {measure.Response.Key, measure.Timing.Key},
	"comes-late":      {measure.Response.Key, measure.Timing.Key},
	"rushes":          {measure.TempoDrift.Key},
	"too-fast":        {measure.Pace.Key},
	"too-slow":        {measure.Pace.Key},
	"tongues-slurs":   {measure.NoTongue.Key},
	"breathes-starts": {measure.Begins.Key},
	"tongues-starts":  {measure.Begins.Key},
	"slurs-instead":   {measure.Joins.Key},
	"tongues-instead": {measure.Joins.Key, measure.NoTongue.Key},
	"same-loudness":   {measure.Contrast.Key},
	"uneven":          {measure.Evenness.Key},
	"pushes-few":      {measure.PulseRate.Key},
	"pushes-many":     {measure.PulseRate.Key},
	"no-air-line":     {measure.Lines.Key},
	"no-buzz-line":    {measure.Lines.Key},
	"plays-instead":   {measure.Sung.Key},
	"does-not-sing":   {measure.Sung.Key},
}

// sourcesOf are the sounds in which an instrument can be right by some rules.
func sourcesOf(i instrument.Instrument, rules []scores.Rule) []string {
	out := []string{OwnPlayers}
	for _, f := range sampled.Fonts() {
		if f.Known(i.Key) && f.Fair(i.Key, rules) {
			out = append(out, f.Name)
		}
	}
	return out
}

// checked reads the steps, once: each is laid out for every instrument when it is read.
var checked = sync.OnceValues(func() ([]exercise.Step, error) {
	var out []exercise.Step
	for _, s := range steps {
		base, err := exercise.Parse(s.kind, nil)
		if err != nil {
			return nil, err
		}
		step, err := base.With(s.set)
		if err != nil {
			return nil, err
		}
		out = append(out, step)
	}
	return out, nil
})

// of lays a step out for an instrument, played right.
func of(i instrument.Instrument, step exercise.Step, stage scores.Stage) (Lesson, bool, error) {
	if !step.Suits(i) {
		return Lesson{}, false, nil
	}
	if stage == 0 {
		stage = 2
	}
	score, err := step.Score(exercise.Player{Instrument: i, Stage: stage}, exercise.StandardConventions())
	if err != nil {
		return Lesson{}, false, err
	}
	l := Lesson{
		Instrument: i,
		Step:       step,
		Stage:      stage,
		Score:      score,
	}
	l.Expect = l.expectation()
	return l, slices.ContainsFunc(score.Segments, func(s scores.Segment) bool { return s.Phase.Active() }), nil
}
