package scores

// Group is a chapter of the catalogue.
type Chapter string

const (
	SettingUp Chapter = "Setting up"
	Breathing Chapter = "Breath"
	Buzzing   Chapter = "Buzz"
	LongTones Chapter = "Long tones"
	Registers Chapter = "Registers"
	Patterns  Chapter = "Patterns"
	Ear       Chapter = "Ear and tune"
	Caring    Chapter = "Care"
)
