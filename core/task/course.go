package task

import (
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Link is one link of a step's course.
type Link struct {
	Says   string `json:"says"`
	Sounds bool   `json:"sounds,omitempty" doc:"something is heard in it"`
}

// verbs say what is done, as short as it can be said; playing is said by the note alone.
var verbs = map[scores.Phase]string{
	scores.Breathe: "breathe in",
	scores.Hold:    "hold your breath",
	scores.Out:     "blow",
	scores.Rest:    "rest",
	scores.Free:    "your tune",
	scores.Listen:  "listen",
	scores.Finger:  "fingers only",
	scores.Buzz:    "buzz",
	scores.Sing:    "sing",
	scores.Strike:  "strike",
}

// course says what comes after what. Equal links in a row are said once.
func course(segments []scores.Segment) []Link {
	out := []Link{}
	for _, seg := range segments {
		if seg.Phase == scores.Ready {
			continue
		}
		p := Link{Says: link(seg), Sounds: seg.Phase.Active()}
		out = append(out, p)
	}
	return together(out)
}

// together says links that are alike in a row once, with how often.
func together(parts []Link) []Link {
	out := []Link{}
	for n := 0; n < len(parts); {
		times := 1
		for n+times < len(parts) && parts[n+times] == parts[n] {
			times++
		}
		p := parts[n]
		if times > 1 {
			p.Says = fmt.Sprintf("%s, %d times", p.Says, times)
		}
		out = append(out, p)
		n += times
	}
	return out
}

// link says one segment: what to do, on which note, for how long, and how.
func link(seg scores.Segment) string {
	what := verbs[seg.Phase]
	if seg.Called != "" && seg.Phase != scores.Rest && seg.Phase != scores.Strike {
		what = strings.TrimSpace(what + " " + seg.Called)
	}
	if seg.Goal != nil {
		what += " sliding to " + seg.Goal.Called
	}
	out := []string{strings.TrimSpace(what + " " + forBeats(seg.Beats))}
	out = append(out, howLoud(seg)...)
	if seg.Bursts > 1 {
		out = append(out, fmt.Sprintf("%d puffs", seg.Bursts))
	}
	return strings.Join(append(out, manner(seg)...), ", ")
}

// beats says a length: "4", "½", "1½".
func beats(b music.Beats) string {
	quarters := map[int]string{0: "", 1: "¼", 2: "½", 3: "¾"}
	n := int(4*b + 0.5)
	if part := quarters[n%4]; n < 4 && part != "" {
		return part
	}
	return fmt.Sprintf("%d%s", n/4, quarters[n%4])
}

// forBeats says a length with its word: "4 beats", "½ beat".
func forBeats(b music.Beats) string {
	if b <= 1 {
		return beats(b) + " beat"
	}
	return beats(b) + " beats"
}

// loudWords say each dynamic as a child would.
var loudWords = map[scores.Dynamic]string{
	"pp": "very soft",
	"p":  "soft",
	"mp": "not too soft",
	"mf": "not too loud",
	"f":  "loud",
	"ff": "very loud",
}

func howLoud(seg scores.Segment) []string {
	switch {
	case seg.Dynamic == "":
		return nil
	case seg.DynamicTo == "" || seg.DynamicTo == seg.Dynamic:
		return []string{loudWords[seg.Dynamic]}
	case seg.DynamicTo.Step() > seg.Dynamic.Step():
		return []string{"growing"}
	}
	return []string{"fading"}
}

// manner says what the music asks of a note beside its pitch, length and loudness.
func manner(seg scores.Segment) (out []string) {
	if seg.Articulation == scores.BreathStart {
		out = append(out, "start with the breath")
	}
	switch seg.Mark {
	case scores.Staccato:
		out = append(out, "short")
	case scores.Tenuto:
		out = append(out, "full length")
	case scores.Accent:
		out = append(out, "with an accent")
	}
	switch {
	case seg.Pulses == 1:
		out = append(out, "a push of air on each beat")
	case seg.Pulses > 1:
		out = append(out, fmt.Sprintf("%d pushes of air on each beat", seg.Pulses))
	}
	switch seg.Ending {
	case scores.Taper:
		out = append(out, "let the end fade")
	case scores.Stopped:
		out = append(out, "stop on the beat")
	}
	return out
}
