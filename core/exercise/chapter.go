package exercise

// Group is a chapter of the catalogue.
type Group string

const (
	SettingUp Group = "Setting up"
	Breathing Group = "Breath"
	Buzzing   Group = "Buzz"
	LongTones Group = "Long tones"
	Registers Group = "Registers"
	Patterns  Group = "Patterns"
	Ear       Group = "Ear and tune"
	Caring    Group = "Care"
)
