package scores

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

// ToneRules are what held tones are judged by: the rules of a score written by
// hand that brings none.
func (l Limits) ToneRules() []Rule {
	return []Rule{
		{Speaks, 0},
		{RightNote, 0},
		{NoBreak, float64(l.Break)},
		{NoGap, float64(l.Gap)},
		{Centre, float64(l.Centre)},
		{Steadiness, float64(l.Waver)},
		{Held, l.HeldRatio},
	}
}

// MeasureInfo explains a measure.
type MeasureInfo struct {
	Key     MeasureKey `json:"key"`
	Unit    string     `json:"unit" doc:"of its limit"`
	Meaning string     `json:"meaning"`
}

// Measures lists the measures a step may be judged by.
func Measures() []MeasureInfo {
	return []MeasureInfo{
		{Speaks, "", "every note sounds"},
		{RightNote, "", "it is the note asked for; in the first weeks, no other partial is nearer"},
		{NoBreak, "s", "no jump away from the note this long"},
		{NoGap, "s", "no silence inside a note this long"},
		{
			Centre,
			"cents",
			"the middle of the steady part lies this near, either way; what the tube itself does is allowed for",
		},
		{Steadiness, "cents", "half the 5–95 % range of the pitch, its drift taken off, is at most this"},
		{Held, "share", "this share of the beats sounds"},
		{HoldTime, "s", "the note sounds at least this long"},
		{Drift, "cents/s", "the pitch climbs or sinks at most this fast"},
		{Response, "s", "the note speaks within this of its beat"},
		{Scoop, "cents", "the first 60 ms lie this near to the note's own centre"},
		{Taper, "s", "the end fades for at least this long"},
		{EndBend, "cents", "the last 150 ms fall at most this far"},
		{Change, "s", "from one note to the next takes at most this"},
		{Landing, "cents", "a note that another leads to lies this near"},
		{Settle, "s", "and stays within 20 cents of itself after this"},
		{Timing, "s", "every note begins within this of its beat"},
		{TempoDrift, "per cent", "the notes grow longer or shorter by at most this over the step"},
		{Evenness, "share", "the notes' lengths spread by at most this"},
		{NoTongue, "", "the tongue does not touch a slur"},
		{SwellRange, "dB", "loud lies at least this far above soft"},
		{SwellOrder, "", "soft, growing, loud, fading and soft come in that order"},
		{PitchShift, "cents", "the pitch goes with the loudness by at most this"},
		{DeadSpot, "s", "a slide is never silent this long"},
		{Travel, "share", "a slide goes at least this much of its way"},
		{Plateaus, "", "every degree of a scale is found"},
		{HighAbove, "cents", "the high sound lies at least this far above the low one"},
		{OwnCentre, "cents", "a buzz strays at most this far from itself"},
		{Undertone, "s", "no lower note sounds under the start this long"},
		{PulseRate, "share", "the pulses' rate is off by at most this"},
		{Sung, "cents", "the sung note lies this near, in any octave"},
		{AirBursts, "", "as many bursts as asked for; a stream without a stop"},
		{AirEven, "share", "the bursts' energies spread by at most this"},
		{AirLength, "beats", "the air lasts as long as asked for, give or take this"},
		{MeterDelay, "s", "the ball is up this long after the breath begins"},
		{MeterSteady, "share", "and then stands still to this share of its height"},
		{TickedItems, "", "every item is ticked"},
	}
}
