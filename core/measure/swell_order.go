package measure

// SwellOrder is whether a swell is soft, growing, loud, fading and soft in that order.
var SwellOrder = Measure{
	Key:     "swell-order",
	Meaning: "soft, growing, loud, fading and soft come in that order",
	Take:    swellOrder,
	Fault:   &flatSwell,
}

func swellOrder(c Case, _ float64) []Reading {
	n, distrust, ok := swellOf(c)
	if !ok {
		return nil
	}
	wrong := ""
	count := 0
	for _, s := range []struct {
		right bool
		says  string
	}{
		{n[0].Level < n[2].Level, "does not begin softer"},
		{n[1].LevelTo > n[1].LevelFrom, "does not grow"},
		{n[3].LevelTo < n[3].LevelFrom, "does not fade"},
		{n[4].Level < n[2].Level, "does not end softer"},
	} {
		if !s.right {
			count++
			wrong = s.says
		}
	}
	m := Reading{
		Label:     "Shape",
		Value:     float64(count),
		Text:      "grows and fades where it should",
		Wanted:    "soft, growing, loud, fading, soft",
		Excess:    countOf(count),
		Trust:     distrust,
		Direction: -1,
	}
	if count > 0 {
		m.Text = wrong
	}
	return whole(m)
}
