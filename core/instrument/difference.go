package instrument

import (
	"strings"

	"earlychorus/core/music"
)

// Mend says how to come from the fingering that was played to the one that was
// asked, as one says it to a beginner: "Add the E♭ key", "Use valves 1 and 2",
// "Move to position 3". It is empty where the tables do not tell or too much
// differs.
func (i Instrument) Mend(asked, came music.MIDI, h Hands) string {
	want, ok := i.Fingering(asked, h)
	if !ok {
		return ""
	}
	if i.tube != nil {
		return i.tube.mend(want.Text)
	}
	had, ok := i.Fingering(came, h)
	if !ok {
		return ""
	}
	return mendFingers(want.Diagram, had.Diagram)
}

func (t tube) mend(text string) string {
	switch {
	case t.valves == 0:
		return "Move to " + text
	case text == "open":
		return "Use no valves"
	case strings.Contains(text, "-"):
		parts := strings.Split(text, "-")
		last := len(parts) - 1
		return "Use valves " + strings.Join(parts[:last], ", ") + " and " + parts[last]
	}
	return "Use valve " + text
}

// mostMended is how many fingers a beginner can be told of at once.
const mostMended = 2

// mendFingers names the fingers to put down and to lift, and the keys.
func mendFingers(want, had Diagram) string {
	var says []string
	for _, m := range want.Marks {
		before := had.at(m)
		switch {
		case before.State == m.State:
		case m.Shape == "key":
			says = append(says, "add "+m.key())
		case m.State == closed:
			says = append(says, "put down "+m.finger())
		case m.State == half:
			says = append(says, "half open "+m.finger())
		default:
			says = append(says, "lift "+m.finger())
		}
	}
	for _, m := range had.Marks {
		if m.Shape == "key" && want.at(m).State == "" {
			says = append(says, "let go of "+m.key())
		}
	}
	if len(says) == 0 || len(says) > mostMended {
		return ""
	}
	out := strings.Join(says, " and ")
	return strings.ToUpper(out[:1]) + out[1:]
}

// at returns the diagram's mark of the same finger or key; the zero Mark for none.
func (d Diagram) at(m Mark) Mark {
	for _, other := range d.Marks {
		if m.Shape == "key" && other.Shape == "key" && other.Label == m.Label && other.Finger == m.Finger ||
			m.Shape != "key" && other.Shape != "key" && other.X == m.X && other.Y == m.Y {
			return other
		}
	}
	return Mark{}
}

// key names a key as a beginner finds it: "the G♯ key (left little finger)".
func (m Mark) key() string {
	name := "the " + strings.TrimSuffix(m.Label, " key") + " key"
	if m.Finger != "" {
		name += " (" + m.Finger + ")"
	}
	return name
}

// finger names the finger of a hole.
func (m Mark) finger() string {
	if m.Label == "T" {
		return "the thumb"
	}
	hand, row := "left", int((m.Y-leftY)/rowStep+0.5)
	if m.Y >= rightY-rowStep/2 {
		hand, row = "right", int((m.Y-rightY)/rowStep+0.5)
	}
	return "the " + hand + " " + [...]string{"first", "second", "third", "fourth"}[max(0, min(3, row))] + " finger"
}
