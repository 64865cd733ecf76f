package notation

import (
	"fmt"
	"io"
	"strings"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// WriteText writes a sheet as plain text, for a page or a terminal. The error is
// the writer's.
func WriteText(out io.Writer, s Sheet) error {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n%s\n", s.Title, s.Player)
	for n, step := range s.Steps {
		fmt.Fprintf(&b, "\n%d. %s\n", n+1, step.Heading)
		if step.Why != "" {
			fmt.Fprintf(&b, "   %s\n", step.Why)
		}
		textOf(&b, step)
	}
	_, err := io.WriteString(out, b.String())
	return err
}

func textOf(b *strings.Builder, step StepPart) {
	s := step.Score
	if s.Ticked {
		for _, item := range s.Items {
			fmt.Fprintf(b, "   [ ] %s\n", item)
		}
	} else {
		fmt.Fprintf(b, "   tempo %.0f, %.0f s", s.TempoBPM, s.Seconds())
		if step.Times > 1 {
			fmt.Fprintf(b, ", %d times", step.Times)
		}
		b.WriteString("\n")
		lines(b, s)
	}
	for _, n := range s.Notices {
		fmt.Fprintf(b, "   * %s\n", n)
	}
	for _, c := range s.Cautions {
		fmt.Fprintf(b, "   ! %s\n", c)
	}
}

// lines writes a score a phrase a line: what is done between two rests.
func lines(b *strings.Builder, s scores.Score) {
	var words []string
	flush := func() {
		if len(words) > 0 {
			fmt.Fprintf(b, "   | %s\n", strings.Join(words, "  "))
		}
		words = nil
	}
	for _, seg := range s.Segments {
		switch seg.Phase {
		case scores.Rest:
			words = append(words, fmt.Sprintf("rest %s", count(seg.Beats)))
			flush()
		case scores.Ready:
			words = append(words, fmt.Sprintf("%s (%s)", strings.TrimSuffix(seg.Text, "."), count(seg.Beats)))
		case scores.Breathe, scores.Hold, scores.Out, scores.Free:
			words = append(words, fmt.Sprintf("%s %s", seg.Phase, count(seg.Beats)))
		default:
			words = append(words, tone(seg))
		}
	}
	flush()
}

func tone(seg scores.Segment) string {
	out := fmt.Sprintf("%s %s", seg.WrittenName, count(seg.Beats))
	if seg.Phase != scores.Play {
		out = string(seg.Phase) + " " + out
	}
	if seg.Articulation == scores.Slurred {
		out = "~" + out
	}
	if seg.Fingering != nil && seg.Phase != scores.Listen {
		out += " [" + seg.Fingering.Text + "]"
	}
	if seg.Dynamic != "" {
		out += " " + string(seg.Dynamic)
		if seg.DynamicTo != "" {
			out += ">" + string(seg.DynamicTo)
		}
	}
	return out
}

// count writes beats as a director counts them.
func count(b music.Beats) string {
	if whole := int(b); music.Beats(whole) == b {
		return fmt.Sprint(whole)
	}
	return fmt.Sprintf("%.2g", float64(b))
}
