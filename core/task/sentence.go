package task

import (
	"slices"
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// sentence says what to do in a child's words, by the kind; of a kind that has none, by
// what sounds.
func sentence(s scores.Score) string {
	if says, ok := sentences[s.Kind]; ok && (s.Ticked || s.Metered || hasWork(s)) {
		return says(s)
	}
	return playOf(s)
}

// hasWork reports whether there is anything to sound or blow: a player who does not buzz
// listens while others do.
func hasWork(s scores.Score) bool {
	return slices.ContainsFunc(s.Segments, func(seg scores.Segment) bool { return seg.Phase.Active() })
}

func fixed(text string) func(scores.Score) string { return func(scores.Score) string { return text } }

// sentences say each kind. Under fourteen words, the verb first; a second short sentence
// where there is a how to it.
var sentences = map[string]func(scores.Score) string{
	"set-up":   fixed("Sit and hold, then tick each one."),
	"assembly": fixed("Do one thing at a time, in this order. Tick each one."),
	"care":     fixed("Do one thing at a time. Tick each one."),
	"air-off":  fixed("Blow, then rest. Tick each round."),
	"air-meter": func(s scores.Score) string {
		return fmt.Sprintf("Blow for %s beats. Get the ball up at once and keep it up.", beats(longest(s, scores.Out)))
	},
	"breath-pattern": breathing,
	"air-then-buzz": func(s scores.Score) string {
		return fmt.Sprintf("Blow for %s beats, then let your lips join in and buzz for %s.",
			beats(longest(s, scores.Out)), beats(longest(s, scores.Buzz)))
	},
	"buzz-at-once": func(s scores.Score) string {
		return fmt.Sprintf("Buzz right away, for %s beats. Then rest as long.", beats(longest(s, scores.Buzz)))
	},
	"high-low-buzz": func(s scores.Score) string {
		t := s.Targets()
		if t[0].Target > t[len(t)-1].Target {
			return "Buzz high, rest, then buzz low."
		}
		return "Buzz low, rest, then buzz high."
	},
	"buzz-slide": buzzSlide,
	"buzz-to-a-target": func(s scores.Score) string {
		return "Hear the next note in your head. Then buzz " + line(s) + "."
	},
	"tube-buzz-scale": func(s scores.Score) string { return "Buzz " + line(s) + " on the tube." },
	"tuning-note": func(s scores.Score) string {
		t := s.Targets()[0]
		return fmt.Sprintf("Hold %s still for %s beats. We see how you are tuned.", t.Called, beats(t.Beats))
	},
	"long-tone-counted": held,
	"long-tone-longest": func(s scores.Score) string {
		return "Hold " + line(s) + " as long as it sounds good. Then stop."
	},
	"long-tone-chain": held,
	"swell": func(s scores.Score) string {
		return "Start " + s.Targets()[0].Called + " very soft, grow very loud, fade to very soft."
	},
	"starts-and-ends": startsAndEnds,
	"air-pulses":      airPulses,
	"register-pair":   joined,
	"slur-across-partials": func(s scores.Score) string {
		return "Slur " + line(s) + ". Lips and air do it, not the tongue."
	},
	"overtones": func(s scores.Score) string { return "Keep the low fingers. Find " + line(s) + "." },
	"wide-leap": func(s scores.Score) string { return "Hear the far note first. Then leap: " + line(s) + "." },
	"ladder":    joined,
	"neighbour-return": func(s scores.Score) string {
		return "Go " + line(s) + ". Move fingers and air together."
	},
	"five-note-walk":   walk,
	"new-note":         newNote,
	"growing-walk":     fixed("Add one new note each time. Always come back home."),
	"rhythm-on-a-note": rhythm,
	"scale": func(s scores.Score) string {
		return "Play each note " + each(s) + " long. Keep them even."
	},
	"chromatic-loop": func(s scores.Score) string {
		return "Go up and down by half steps. Keep your fingers even."
	},
	"sing-first":  singFirst,
	"echo":        fixed("Listen. Then play back what you heard."),
	"excerpt":     threeWays,
	"make-a-tune": func(s scores.Score) string { return "Make up a tune with " + list(s.Items) + "." },
}

// walk says which way a walk goes.
func walk(s scores.Score) string {
	t := s.Targets()
	way := "up and down"
	switch first, last := t[0].Target, t[len(t)-1].Target; {
	case last > first:
		way = "up"
	case last < first:
		way = "down"
	}
	return "Walk " + way + ", one note after the other. Make each as good as the first."
}

// newNote says which notes are new: each is heard first.
func newNote(s scores.Score) string {
	var names []string
	for _, seg := range s.Segments {
		if seg.Phase == scores.Listen && !slices.Contains(names, seg.Called) {
			names = append(names, seg.Called)
		}
	}
	if len(names) == 1 {
		return names[0] + " is new. Hear it, finger it, then play it."
	}
	return strings.Join(names, " and ") + " are new. Hear them, finger them, then play them."
}

func breathing(s scores.Score) string {
	var parts []string
	for _, seg := range s.Segments[phraseOf(s).from:phraseOf(s).to] {
		switch seg.Phase {
		case scores.Breathe:
			parts = append(parts, "in "+beats(seg.Beats))
		case scores.Hold:
			parts = append(parts, "hold "+beats(seg.Beats))
		case scores.Out:
			out := "out " + beats(seg.Beats)
			if seg.Bursts > 1 {
				out += fmt.Sprintf(" in %d puffs", seg.Bursts)
			}
			parts = append(parts, out)
		case scores.Rest:
			parts = append(parts, "wait "+beats(seg.Beats))
		}
	}
	return capital(strings.Join(parts, ", ")) + "."
}

func buzzSlide(s scores.Score) string {
	t := s.Targets()[0]
	if t.Goal == nil {
		return "Buzz " + line(s) + ", straight to each note."
	}
	way := "up"
	if t.GlideTo < t.Target {
		way = "down"
	}
	return fmt.Sprintf("Slide your buzz from %s %s to %s in %s beats.", t.Called, way, t.Goal.Called, beats(t.Beats))
}

// held says long tones: the notes, and how long each is.
func held(s scores.Score) string {
	if l := line(s); l == manyNotes {
		return fmt.Sprintf("Hold each note for %s. Rest in between.", each(s))
	}
	if breaths(s) > 1 {
		return fmt.Sprintf("Hold %s for %s each. Rest in between.", line(s), each(s))
	}
	return fmt.Sprintf("Hold %s for %s.", line(s), each(s))
}

func startsAndEnds(s scores.Score) string {
	t := s.Targets()[0]
	how := "with your tongue"
	if t.Articulation == scores.BreathStart {
		how = "with just your breath"
	}
	out := fmt.Sprintf("Start %s right on the beat, %s.", t.Called, how)
	switch t.Ending {
	case scores.Taper:
		out += " Let the end fade."
	case scores.Stopped:
		out += " Stop right on the beat."
	}
	return out
}

func airPulses(s scores.Score) string {
	targets := s.Targets()
	if len(targets) == 0 {
		bursts := 0
		for _, seg := range s.Segments {
			bursts = max(bursts, seg.Bursts)
		}
		return fmt.Sprintf("Push the air %d times in %s beats.", bursts, beats(longest(s, scores.Out)))
	}
	most := 0
	for _, t := range targets {
		most = max(most, t.Pulses)
	}
	if most == 1 {
		return fmt.Sprintf("Hold %s. Push the air once on each beat, with no tongue.", line(s))
	}
	return fmt.Sprintf("Hold %s. Push the air %d times on each beat, with no tongue.", line(s), most)
}

// joined says a few notes by how each comes from the one before.
func joined(s scores.Score) string {
	p := phraseOf(s)
	var out []string
	for _, seg := range s.Segments[p.from:p.to] {
		switch {
		case seg.Phase == scores.Rest && len(out) > 0 && p.times == 1:
			continue
		case !seg.Phase.Sounds():
			continue
		case len(out) > 0 && seg.Articulation == scores.Slurred:
			out = append(out, "slur to "+seg.Called)
		default:
			out = append(out, strings.ToLower(wayOf(seg.Phase, "play"))+" "+seg.Called)
		}
	}
	if len(out) > mostNamed {
		return capital(strings.Join(out[:2], ", then ")) + ". Go on in the same way."
	}
	return capital(strings.Join(out, ", then ")) + "."
}

// wayOf is the verb of a phase; of a note that is played, the one given.
func wayOf(p scores.Phase, played string) string {
	switch p {
	case scores.Buzz:
		return "Buzz"
	case scores.Sing:
		return "Sing"
	}
	return capital(played)
}

func rhythm(s scores.Score) string {
	if targets := s.Targets(); len(targets) > 0 {
		return "Play this rhythm on " + line(s) + ". Keep the air going."
	}
	return "Play this rhythm. Keep the beat."
}

func singFirst(s scores.Score) string {
	if !has(s, scores.Sing) {
		return "Listen. Then play " + line(s) + "."
	}
	return "Listen, sing " + line(s) + ", then play it."
}

// threeWays says in which ways an excerpt is done, in their order.
func threeWays(s scores.Score) string {
	var ways []string
	for _, way := range []struct {
		phase scores.Phase
		says  string
	}{
		{scores.Finger, "with the fingers only"},
		{scores.Out, "on air"},
		{scores.Sing, "sing it"},
		{scores.Buzz, "buzz it"},
		{scores.Play, "play it"},
	} {
		if has(s, way.phase) {
			ways = append(ways, way.says)
		}
	}
	if len(ways) == 1 {
		return "Play this line."
	}
	return "Do this line " + strings.Join(ways, ", then ") + "."
}

// playOf says what sounds, where a kind has no sentence of its own.
func playOf(s scores.Score) string {
	if len(s.Targets()) == 0 {
		return "Listen while the others play."
	}
	return "Play " + line(s) + "."
}

// mostNamed notes are named one by one; more are read from the music.
const mostNamed = 5

// manyNotes stands for notes that are too many to name.
const manyNotes = "the notes"

// line names the notes in the order they come: "C, then G", "C, D, E", "the line".
func line(s scores.Score) string {
	p := phraseOf(s)
	var names []string
	for _, seg := range s.Segments[p.from:p.to] {
		if seg.Phase.Sounds() && (len(names) == 0 || names[len(names)-1] != seg.Called) {
			names = append(names, seg.Called)
		}
	}
	names = half(names)
	switch {
	case len(names) == 0:
		return "it"
	case len(names) == 2:
		return names[0] + ", then " + names[1]
	case len(names) > mostNamed:
		return manyNotes
	}
	return strings.Join(names, ", ")
}

// half takes a line that is sung and then played, or tried two ways, once.
func half(names []string) []string {
	n := len(names)
	if n > 1 && n%2 == 0 && slices.Equal(names[:n/2], names[n/2:]) {
		return names[:n/2]
	}
	return names
}

// each says how long the notes are: "8 beats".
func each(s scores.Score) string {
	t := s.Targets()
	if len(t) == 0 {
		return "1 beat"
	}
	return forBeats(t[0].Beats)
}

// breaths counts the stretches of sound that a breath parts.
func breaths(s scores.Score) (n int) {
	sounding := false
	for _, seg := range s.Segments {
		if seg.Phase.Sounds() && !sounding {
			n++
		}
		sounding = seg.Phase.Sounds()
	}
	return n
}

func has(s scores.Score, p scores.Phase) bool {
	return slices.ContainsFunc(s.Segments, func(seg scores.Segment) bool { return seg.Phase == p })
}

func longest(s scores.Score, p scores.Phase) (most music.Beats) {
	for _, seg := range s.Segments {
		if seg.Phase == p {
			most = max(most, seg.Beats)
		}
	}
	return most
}

// list says some names: "C, D and E".
func list(names []string) string {
	if len(names) < 2 {
		return strings.Join(names, "")
	}
	return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
}

// capital writes a sentence's first letter large.
func capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}
