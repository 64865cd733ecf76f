package measure

// SwellOrder is whether a swell is soft, growing, loud, fading and soft in that order.
var SwellOrder = Measure{
	Key:     "swell-order",
	Meaning: "soft, growing, loud, fading and soft come in that order",
	Take:    swellOrder,
	Fault:   &flatSwell,
}

func swellOrder(c Case, _ float64) []Reading {
	n, doubt, ok := swellOf(c)
	if !ok {
		return nil
	}
	count, last := 0, 0
	for k, right := range []bool{
		n[0].Level < n[2].Level, n[1].LevelTo > n[1].LevelFrom, n[3].LevelTo < n[3].LevelFrom, n[4].Level < n[2].Level,
	} {
		if !right {
			count, last = count+1, k+1
		}
	}
	m := Reading{
		Count:  last, // which is wrong: 1 begins, 2 grows, 3 fades, 4 ends
		Value:  float64(count),
		Excess: countOf(count),
		Way:    -1,
	}
	m.Trust = doubt.of(m)
	return whole(m)
}
