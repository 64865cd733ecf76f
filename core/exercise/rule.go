package exercise

// MeasureKey names a measure that a step may be judged by.
type MeasureKey string

const (
	Speaks      MeasureKey = "speaks"       // every note speaks
	RightNote   MeasureKey = "right-note"   // and is the one asked for
	NoBreak     MeasureKey = "break"        // s: shortest jump away that counts
	NoGap       MeasureKey = "gap"          // s: shortest silence that counts
	Centre      MeasureKey = "centre"       // cents either way
	Steadiness  MeasureKey = "steadiness"   // cents
	Held        MeasureKey = "held"         // share of the beats
	HoldTime    MeasureKey = "hold"         // s to reach
	Drift       MeasureKey = "drift"        // cents a second
	Response    MeasureKey = "response"     // s after the beat
	Scoop       MeasureKey = "scoop"        // cents
	Taper       MeasureKey = "taper"        // s to fade at least
	EndBend     MeasureKey = "end-bend"     // cents down at the end
	Change      MeasureKey = "change"       // s from note to note
	Landing     MeasureKey = "landing"      // cents, once settled
	Settle      MeasureKey = "settle"       // s until settled
	Timing      MeasureKey = "timing"       // s either way from the beat
	TempoDrift  MeasureKey = "tempo-drift"  // per cent over the step
	Evenness    MeasureKey = "evenness"     // spread of the notes' lengths, share
	NoTongue    MeasureKey = "tongue"       // extra touches in a slur
	SwellRange  MeasureKey = "swell-range"  // dB between soft and loud
	SwellOrder  MeasureKey = "swell-order"  // grows and fades where it should
	PitchShift  MeasureKey = "pitch-shift"  // cents from soft to loud
	DeadSpot    MeasureKey = "dead-spot"    // s of silence in a slide
	Travel      MeasureKey = "travel"       // share of the way
	Plateaus    MeasureKey = "plateaus"     // notes of a scale found
	HighAbove   MeasureKey = "high-above"   // cents from the low to the high one
	OwnCentre   MeasureKey = "own-centre"   // cents around itself
	Undertone   MeasureKey = "undertone"    // s of a lower note first
	PulseRate   MeasureKey = "pulse-rate"   // share off the rate asked for
	Sung        MeasureKey = "sung"         // cents, in any octave
	AirBursts   MeasureKey = "air-bursts"   // how many
	AirEven     MeasureKey = "air-even"     // spread of the bursts' energy
	AirLength   MeasureKey = "air-length"   // beats either way
	MeterDelay  MeasureKey = "meter-delay"  // s to the ball's top
	MeterSteady MeasureKey = "meter-steady" // spread of the flow, share
	TickedItems MeasureKey = "ticked"       // every item
)

// Rule is one measure of a step's pass rule and its limit, in the measure's
// own unit.
type Rule struct {
	Measure MeasureKey `json:"measure"`
	Limit   float64    `json:"limit"`
}
