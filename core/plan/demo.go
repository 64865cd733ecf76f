package plan

import "earlychorus/core/exercise"

// DemoWeek is the week of the demo's class, in the core's own terms: what the
// sheet command prints and the demo server plays.
func DemoWeek() Plan {
	each := func(key, kind string, params map[string]any, days Days, at Place, why string) Item {
		return Item{
			Key:    key,
			Step:   exercise.New(kind, params),
			Times:  1,
			Days:   days,
			At:     at,
			Wanted: 2,
			Why:    why,
		}
	}
	// The oboe's upper notes would be most of what it plays.
	pair := each("pair", "register-pair", nil, On(0, 2, 4), Both, "Use the same air for both notes.")
	pair.For = []string{"flute", "clarinet", "bass-clarinet", "bassoon", "alto-sax", "tenor-sax", "bari-sax"}
	ladder := each(
		"break",
		exercise.KindLadder,
		map[string]any{"ladder": "clarinet-break"},
		SchoolDays,
		AtHome,
		"Over the break, one rung at a time.",
	)
	ladder.For = []string{"clarinet"}
	return Plan{
		Name: "The week of the spring tide",
		Items: []Item{
			each("set-up", "set-up", nil, SchoolDays, InClass, "Half a minute here saves five later."),
			each("breath", "breath-pattern", map[string]any{"rounds": 4}, SchoolDays, InClass, "Air before sound."),
			each("buzz", "air-then-buzz", nil, On(0, 2, 4), Both, "Let the lips join the air."),
			each("slide", "buzz-slide", nil, On(1, 3), Both, "Keep the buzz going all the way."),
			each("tune", exercise.KindTuningNote, nil, On(0, 2, 4), InClass, "Pitch rises as the room warms."),
			each(
				"long",
				exercise.KindLongToneCounted,
				nil,
				SchoolDays,
				Both,
				"Keep it as steady on the last beat as on the first.",
			),
			each(
				"longest",
				exercise.KindLongToneLongest,
				map[string]any{"cap_s": 20},
				On(1, 3),
				AtHome,
				"One beat more than last time.",
			),
			each("swell", "swell", map[string]any{"beats": 3}, On(4), Both, "Listen: the pitch stays where it is."),
			each(
				"starts",
				"starts-and-ends",
				map[string]any{"loudness": "even"},
				On(1, 3),
				Both,
				"Start right away. Do not let the end fall.",
			),
			pair,
			each("slur", "slur-across-partials", nil, On(0, 2, 4), Both, "Tongue once. Then it is lips and air."),
			ladder,
			each("walk", "five-note-walk", nil, SchoolDays, Both, "The notes everyone has."),
			each("new", exercise.KindNewNote, nil, On(1, 3, 4), AtHome, "Hear it before you press it."),
			each("rhythm", "rhythm-on-a-note", nil, On(1), Both, "The tongue divides the air."),
			each(
				"sing",
				"sing-first",
				map[string]any{"notes": []int{0, 2, 4}},
				On(3),
				Both,
				"What you can sing, you can play.",
			),
			each("own", exercise.KindMakeATune, nil, On(4), AtHome, "Eight bars of your own."),
			each("care", "care", nil, SchoolDays, AtHome, "Dry before it goes in its case."),
		},
	}
}
