package plan

import "earlychorus/core/exercise"

// ReadyWeek is a week to begin from, for a class that has none yet.
type ReadyWeek struct {
	Key   string
	Name  string
	Items []Item
}

// ReadyWeeks lists the weeks that ship: what a first class does in its first weeks, and a
// whole warm-up for later ones (common practice, no published source). long is the class's
// own long tone.
func ReadyWeeks(long exercise.Step) []ReadyWeek {
	add := func(key, kind string, set map[string]any, at Place, why string) Item {
		return Item{
			Key:    key,
			Step:   exercise.New(kind, set),
			Times:  1,
			Days:   SchoolDays,
			At:     at,
			Wanted: 2,
			Why:    why,
		}
	}
	tone := Item{
		Key:    "long",
		Step:   long,
		Times:  1,
		Days:   SchoolDays,
		At:     Both,
		Wanted: 3,
		Why:    "One sound, every day.",
	}
	start := []Item{
		add("set-up", "set-up", nil, Both, "Half a minute here saves five later."),
		add("breath", "breath-pattern", map[string]any{"rounds": 4}, InClass, "Air before sound."),
		add("buzz", "air-then-buzz", nil, Both, "Brass: the lips join the air."),
		tone,
	}
	care := add("care", exercise.KindCare, nil, AtHome, "Dry before it goes in its case.")
	first := append(append([]Item{}, start...),
		add("echo", "echo", map[string]any{"notes": []int{0, 2, 0}}, Both, "Ears first."), care)
	whole := append(append([]Item{}, start...),
		add("tune", exercise.KindTuningNote, nil, InClass, "Pitch rises as the room warms."),
		add("walk", "five-note-walk", nil, Both, "The notes everyone has."),
		add("pair", "register-pair", nil, Both, "Woodwinds: the same air for both."),
		add("slur", "slur-across-partials", nil, Both, "Brass: one tongue, then lips and air."),
		add("rhythm", "rhythm-on-a-note", nil, Both, "The tongue divides the air."),
		care)
	return []ReadyWeek{
		{"ready-first", "First weeks: air, one sound, ears", first},
		{"ready-whole", "A whole warm-up: registers, five notes, rhythm", whole},
	}
}
