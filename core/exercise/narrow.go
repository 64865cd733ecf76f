package exercise

// fingersFirst opens a score with its first phrase fingered without sound, to
// the click.
func (s Score) fingersFirst() Score {
	var before, phrase, after []Segment
	for n, seg := range s.Segments {
		switch {
		case seg.Phase == Play && len(after) == 0:
			seg.Phase, seg.Text = Finger, phaseVerbs[Finger]+" "+seg.WrittenName
			phrase = append(phrase, seg)
		case len(phrase) == 0:
			before = append(before, seg)
		default:
			after = append(after, s.Segments[n])
		}
	}
	if len(phrase) == 0 {
		return s
	}
	// The breath comes after the fingers, before the sound.
	breath := len(before)
	if breath > 0 && before[breath-1].Phase == Breathe {
		breath--
	}
	return s.with(before[:breath], phrase, s.Segments[breath:])
}

// Isolated narrows a score to some of its notes, the first and the last given
// as indices of its targets: one note or one change, to be worked on alone. Its
// rules stay, but for those about the whole step. It returns the score itself
// when the indices are not its own.
func (s Score) Isolated(first, last int) Score {
	if first < 0 || last < first || last >= len(s.Targets()) {
		return s
	}
	var inside []Segment
	n := 0
	for _, seg := range s.Segments {
		if !seg.Phase.Sounds() {
			continue
		}
		if n >= first && n <= last {
			inside = append(inside, seg)
		}
		n++
	}
	if inside[0].Articulation == Slurred {
		inside[0].Articulation = Tongued // nothing is before it now
	}
	var rules []Rule
	for _, r := range s.Rules {
		if !ofTheWhole[r.Measure] {
			rules = append(rules, r)
		}
	}
	s.Rules = rules
	return s.with(
		[]Segment{
			{Phase: Ready, Beats: countIn - breathBeats, Text: readyText},
			{Phase: Breathe, Beats: breathBeats, Text: breathText},
		},
		inside,
		[]Segment{{Phase: Rest, Beats: 1, Text: "Done."}},
	)
}

// with returns the score with other segments, one after the other.
func (s Score) with(parts ...[]Segment) Score {
	s.Segments = nil
	for _, part := range parts {
		for _, seg := range part {
			seg.StartBeat = s.Beats()
			s.Segments = append(s.Segments, seg)
		}
	}
	return s
}

// ofTheWhole are the measures that need every note of a step.
var ofTheWhole = map[MeasureKey]bool{
	TempoDrift: true,
	Evenness:   true,
	SwellRange: true,
	SwellOrder: true,
	PitchShift: true,
	Plateaus:   true,
	HighAbove:  true,
	AirBursts:  true,
	AirEven:    true,
	AirLength:  true,
	Sung:       true,
}
