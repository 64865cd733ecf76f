package plan

// Way is one way to play an item, for whoever checks a fit.
type Way struct {
	Item    Item
	Dropped bool
	Worth   int
}

// Ways lists the ways to play an item that Fit chooses from.
func Ways(i Item) []Way {
	var out []Way
	for _, o := range optionsOf(i) {
		out = append(out, Way{o.item, o.dropped, o.worth()})
	}
	return out
}
