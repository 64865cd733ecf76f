package roster

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Person is what a list says of a player; a class keeps the same of each.
type Person struct {
	FirstName  string       `json:"first"`
	LastName   string       `json:"last"`
	Instrument string       `json:"instrument" doc:"key; empty when it is not known"`
	Variant    string       `json:"variant" doc:"how it is built; empty is the usual way"`
	Stage      scores.Stage `json:"stage" doc:"0: by the weeks since the first lesson"`
	ExternalID string       `json:"external_id" doc:"the school's own number"`
}

// Field is one thing that a list says of a player. Reading, checking, comparing,
// keeping, exporting and the form all walk Fields: a new one is a field of Person,
// a row here and a column in the database.
type Field struct {
	Key      string `json:"key" doc:"as it is written in a row"`
	Label    string `json:"label" doc:"on the form"`
	Form     string `json:"form" enum:"text,instrument,variant,stage" doc:"how it is asked for"` // "" it is not
	Most     int    `json:"most,omitempty" doc:"letters"`
	Required bool   `json:"required,omitempty"`

	// Column is where the database keeps it, and what exports call it.
	Column string `json:"-"`
	// Says is what the export's column means, where its name does not say.
	Says string `json:"-"`
	// headings are what lists call it, in plain small letters.
	headings []string
	// text is a field that is plain text.
	text func(*Person) *string
	// read sets it from a cell, where that is more than text.
	read func(p *Person, cell string)
	// wrong says how to mend it; "" where it is right.
	wrong func(p Person) string
	// unsaid reports that a list leaves it out, so that what a class knows stays;
	// nil: what a list says counts, be it nothing.
	unsaid func(list Person) bool
	// keep puts in what the class knows.
	keep func(p *Person, known Person)
}

// letters of a name; more is a mistake of the list.
const mostLetters = 60

// Fields lists what a list may say of a player, in the form's order.
func Fields() []Field {
	return []Field{
		{
			Key:      "first",
			Label:    "First name",
			Form:     "text",
			Most:     mostLetters,
			Required: true,
			Column:   "first_name",
			headings: []string{
				"first", "first name", "firstname", "given name", "given", "forename", "givenname",
				"preferred name", "vorname", "prénom",
			},
			text: func(p *Person) *string { return &p.FirstName },
		},
		{
			Key:    "last",
			Label:  "Last name",
			Form:   "text",
			Most:   mostLetters,
			Column: "last_name",
			headings: []string{
				"last",
				"last name",
				"lastname",
				"family name",
				"surname",
				"familyname",
				"nachname",
				"nom",
			},
			text: func(p *Person) *string { return &p.LastName },
		},
		{
			Key:      "instrument",
			Label:    "Instrument",
			Form:     "instrument",
			Required: true,
			Column:   "instrument",
			Says:     "its key in [instruments](instruments.md)",
			headings: []string{"instrument", "instr", "section", "plays", "instrument name", "part"},
			wrong:    wrongInstrument,
			unsaid:   func(list Person) bool { return list.Instrument == "" },
			keep:     func(p *Person, known Person) { p.Instrument = known.Instrument },
		},
		{
			Key:      "variant",
			Label:    "Built as",
			Form:     "variant",
			Column:   "variant",
			Says:     "how it is built; empty: the usual way",
			headings: []string{"variant", "valves", "built as"},
			read:     readVariant,
			unsaid:   func(list Person) bool { return list.Instrument == "" }, // it belongs to the instrument
			keep:     func(p *Person, known Person) { p.Variant = known.Variant },
		},
		{
			Key:      "stage",
			Label:    "Stage",
			Form:     "stage",
			Column:   "stage",
			Says:     "1 to 4; 0: by the weeks since the first lesson",
			headings: []string{"stage", "level"},
			read:     readStage,
			wrong:    wrongStage,
			unsaid:   func(list Person) bool { return list.Stage == 0 },
			keep:     func(p *Person, known Person) { p.Stage = known.Stage },
		},
		{
			Key:    "external_id",
			Label:  "School's own number",
			Most:   mostLetters,
			Column: "external_id",
			Says:   "the school's own number",
			headings: []string{
				"id",
				"student id",
				"external id",
				"sourcedid",
				"sis id",
				"number",
				"student number",
				"pupil number",
			},
			text:   func(p *Person) *string { return &p.ExternalID },
			unsaid: func(list Person) bool { return list.ExternalID == "" },
			keep:   func(p *Person, known Person) { p.ExternalID = known.ExternalID },
		},
	}
}

// OnForm lists the fields that the form asks for.
func OnForm() []Field {
	return slices.DeleteFunc(Fields(), func(f Field) bool { return f.Form == "" })
}

func wrongInstrument(p Person) string {
	if p.Instrument == "" {
		return "choose an instrument"
	}
	if _, err := instrument.Get(p.Instrument); err != nil {
		return "choose an instrument of the list"
	}
	return ""
}

func readVariant(p *Person, cell string) {
	if strings.Contains(cell, "4") {
		p.Variant = "4-valve"
	}
}

func readStage(p *Person, cell string) {
	stage, _ := strconv.Atoi(cell) // anything else is by the weeks
	p.Stage = scores.Stage(stage)
}

func wrongStage(p Person) string {
	if p.Stage < 0 || p.Stage > 4 {
		return "choose a stage from 1 to 4, or leave it to the weeks"
	}
	return ""
}

// wrongText is what is wrong with plain text.
func (f Field) wrongText(text string) string {
	switch {
	case f.Required && text == "":
		return "give a " + strings.ToLower(f.Label)
	case utf8.RuneCountInString(text) > f.Most:
		return fmt.Sprintf("use at most %d letters for a %s", f.Most, strings.ToLower(f.Label))
	}
	return ""
}

// Columns lists where the database keeps what a list says.
func Columns() []string {
	var out []string
	for _, f := range Fields() {
		out = append(out, f.Column)
	}
	return out
}

// Tidy returns the person without blanks around texts, and without a variant that
// the instrument is not built in.
func (p Person) Tidy() Person {
	for _, f := range Fields() {
		if f.text != nil {
			*f.text(&p) = strings.TrimSpace(*f.text(&p))
		}
	}
	if i, err := instrument.Get(p.Instrument); err == nil {
		if _, err := i.As(p.Variant); err != nil {
			p.Variant = ""
		}
	}
	return p
}

// Over returns what a list says laid over what a class knows: what the list leaves
// out stays.
func (p Person) Over(known Person) Person {
	list := p
	for _, f := range Fields() {
		if f.unsaid != nil && f.unsaid(list) {
			f.keep(&p, known)
		}
	}
	return p.Tidy()
}

// Means reports whether a list's person is one that a class knows: by the school's
// own number, else by name.
func (p Person) Means(known Person) bool {
	if p.ExternalID != "" && known.ExternalID != "" {
		return p.ExternalID == known.ExternalID
	}
	return strings.EqualFold(p.FirstName, known.FirstName) && strings.EqualFold(p.LastName, known.LastName)
}

// ShortName is how players appear to each other: first name and initial.
func (p Person) ShortName() string {
	if p.LastName == "" {
		return p.FirstName
	}
	return p.FirstName + " " + string([]rune(p.LastName)[:1]) + "."
}

// FullName is how a player appears to the director.
func (p Person) FullName() string { return p.FirstName + " " + p.LastName }
