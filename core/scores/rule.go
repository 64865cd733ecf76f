package scores

// MeasureKey names a measure that a step may be judged by; package measure has
// them all.
type MeasureKey string

// TaperKey is the one measure that the ear has to know of: where an end is to fade, what
// fades is the player's.
const TaperKey MeasureKey = "taper"

// Rule is one measure of a step's pass rule and its limit, in the measure's
// own unit.
type Rule struct {
	Measure MeasureKey `json:"measure"`
	Limit   float64    `json:"limit"`
}
