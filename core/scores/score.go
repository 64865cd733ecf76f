// Package scores is what a step asks of one instrument: timed targets, the
// limits they are judged within, and the rules that say by which measures.
// Everything downstream (notation, click, recorder, ear, verdict) reads it.
package scores

import (
	"slices"
	"strings"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Phase is what a player does in a segment of a score.
type Phase string

const (
	Ready   Phase = "ready"   // posture, fingers; count-in
	Breathe Phase = "breathe" // in
	Hold    Phase = "hold"    // the breath
	Out     Phase = "out"     // air alone, in bursts or a stream
	Buzz    Phase = "buzz"    // lips on the mouthpiece or the tube
	Play    Phase = "play"
	Sing    Phase = "sing"   // in any octave
	Finger  Phase = "finger" // fingers only, without sound
	Listen  Phase = "listen" // to the note, which the page sounds
	Free    Phase = "free"   // play what you like
	Strike  Phase = "strike" // on a pad or a drum, without pitch
	Rest    Phase = "rest"
)

// Sounds reports whether a pitch is heard in the phase.
func (p Phase) Sounds() bool { return p == Buzz || p == Play || p == Sing }

// Active reports whether the player sounds or blows in the phase.
func (p Phase) Active() bool { return p.Sounds() || p == Out || p == Free || p == Strike }

// Score is a step worked out for one instrument. Beat 0 is the first click of
// the count-in, which is also where a recording begins. Everything downstream
// (notation, click, recorder, measuring) reads it, and it is the file format
// of `analyze --score` (docs/formats.md).
type Score struct {
	Kind       string      `json:"kind" doc:"exercise kind, a key of the catalogue"`
	Title      string      `json:"title"`
	Instrument string      `json:"instrument" doc:"instrument key"`
	TempoBPM   music.Tempo `json:"tempo_bpm"`
	A4Hz       music.Hertz `json:"a4_hz"`
	Stage      Stage       `json:"stage" minimum:"1" maximum:"4"`
	Clef       string      `json:"clef" enum:"treble,bass"`
	KeyFifths  music.Key   `json:"key_fifths" doc:"written key: sharps, or minus the flats"`
	Segments   []Segment   `json:"segments" nullable:"false"`
	Rules      []Rule      `json:"rules" doc:"what the step is judged by" nullable:"false"`
	Items      []string    `json:"items" doc:"what is ticked in a step that is not recorded" nullable:"false"`
	Pictures   []Picture   `json:"pictures" doc:"what is drawn beside each item" nullable:"false"`
	Ticked     bool        `json:"ticked,omitempty" doc:"done and ticked, not recorded"`
	Metered    bool        `json:"metered,omitempty" doc:"blown into an air meter"`
	Crossing   bool        `json:"crossing,omitempty" doc:"it crosses the register break"`
	Ladder     string      `json:"ladder,omitempty" doc:"key of the ladder it is a rung of"`
	Rung       int         `json:"rung,omitempty" doc:"from 1"`
	Growing    bool        `json:"growing,omitempty" doc:"each note is held against the player's own longest"`
	Alternates bool        `json:"alternates,omitempty" doc:"the next time through is another: fingers or starts take turns"`
	EarsFirst  bool        `json:"ears_first,omitempty" doc:"nothing is shown of the pitch until the take is over"`
	Limits     Limits      `json:"limits"`
	HardLimits Limits      `json:"hard_limits" doc:"what hard notes are judged by"`
	Notices    []string    `json:"notices" doc:"what was put in another octave or on another note, and why" nullable:"false"`
	Cautions   []string    `json:"cautions" nullable:"false"`
	Load       Load        `json:"load"`
}

// Segment is a stretch of a score in which one thing is done.
type Segment struct {
	Phase        Phase                 `json:"phase" enum:"ready,breathe,hold,out,buzz,play,sing,finger,listen,free,strike,rest"`
	StartBeat    music.Beats           `json:"start_beat"`
	Beats        music.Beats           `json:"beats"`
	Text         string                `json:"text,omitempty" doc:"what to do, in the player's words"`
	Target       music.MIDI            `json:"target_midi,omitempty" doc:"sounding note; segments that sound only"`
	GlideTo      music.MIDI            `json:"glide_to_midi,omitempty" doc:"the pitch slides to this note"`
	Goal         *Goal                 `json:"goal,omitempty" doc:"the note at the end of a slide, as it is read"`
	Concert      string                `json:"concert,omitempty" doc:"sounding note's name"`
	Written      *music.Spelling       `json:"written,omitempty"`
	Accidental   string                `json:"accidental,omitempty" enum:"sharp,flat,natural" doc:"to be drawn where the note stands alone in its key"`
	WrittenName  string                `json:"written_name,omitempty"`
	Called       string                `json:"called,omitempty" doc:"as its player says it: without an octave, or low and high where its name is there twice"`
	Fingering    *instrument.Fingering `json:"fingering,omitempty"`
	Fingered     music.MIDI            `json:"fingered_midi,omitempty" doc:"the note whose fingering is held, where another of its partials is asked"`
	Changes      []int                 `json:"changes,omitempty" doc:"which marks of the fingering's diagram differ from the note before"`
	Articulation Articulation          `json:"articulation,omitempty" enum:"tongued,breath,slurred"`
	Mark         Mark                  `json:"mark,omitempty" enum:"staccato,tenuto,accent" doc:"how it is tongued, where the music says so"`
	Dynamic      Dynamic               `json:"dynamic,omitempty" enum:"pp,p,mp,mf,f,ff"`
	DynamicTo    Dynamic               `json:"dynamic_to,omitempty" enum:"pp,p,mp,mf,f,ff" doc:"grows or fades to this"`
	Bursts       int                   `json:"bursts,omitempty" doc:"air: how many bursts; 0 is one even stream"`
	Leader       music.MIDI            `json:"leader_midi,omitempty" doc:"another note that sounds at the same time, for the player to follow"`
	Ending       Ending                `json:"ending,omitempty" enum:"taper,stopped" doc:"how the note ends, where that is asked"`
	Side         string                `json:"side,omitempty" enum:"left,right" doc:"which little finger begins a run that this note is in"`
	Pulses       int                   `json:"pulses,omitempty" doc:"pulses of air to a beat, under a tone"`
	Sounds       bool                  `json:"sounds,omitempty" doc:"a pitch is heard in it: measured notes count these segments"`
	Hard         bool                  `json:"hard,omitempty" doc:"counted as tried, judged one stage lower"`
	New          bool                  `json:"new,omitempty" doc:"new to the player this week"`
}

// Goal is the note a slide ends on, as its player reads it.
type Goal struct {
	Written music.Spelling `json:"written"`
	Called  string         `json:"called" doc:"as its player says it"`
}

// Tube returns the sounding note whose fingering is held.
func (s Segment) Tube() music.MIDI {
	if s.Fingered > 0 {
		return s.Fingered
	}
	return s.Target
}

// Follows reports whether nothing lies between target n and the one before.
func Follows(targets []Segment, n int) bool {
	return n > 0 && targets[n].StartBeat <= targets[n-1].StartBeat+targets[n-1].Beats+slack
}

// GoesOn reports whether target n is the note before, held on: it has no start of its own.
func GoesOn(targets []Segment, n int) bool {
	return Follows(targets, n) && targets[n].Articulation == Slurred && targets[n].Target == targets[n-1].Target &&
		targets[n-1].GlideTo == 0
}

// slack is what sums of beats may be off by.
const slack music.Beats = 0.001

// Articulation is how a note starts.
type Articulation string

const (
	Tongued     Articulation = "tongued"
	BreathStart Articulation = "breath"
	Slurred     Articulation = "slurred" // on from the note before, without the tongue
)

// Mark is how a note is tongued and held, as music writes it over or under the note.
type Mark string

const (
	Staccato Mark = "staccato" // short
	Tenuto   Mark = "tenuto"   // its whole length
	Accent   Mark = "accent"   // with more air at its start
)

// Known reports whether a mark is one of ours, or none.
func (m Mark) Known() bool { return m == "" || m == Staccato || m == Tenuto || m == Accent }

// Ending is how a note ends, where a step asks for it.
type Ending string

const (
	Taper   Ending = "taper"   // the air fades, without the tongue
	Stopped Ending = "stopped" // at once, on the beat
)

// Dynamic is how loud, as music writes it.
type Dynamic string

// dynamics from very soft to very loud.
var dynamics = []Dynamic{"pp", "p", "mp", "mf", "f", "ff"}

// Step returns how many steps a dynamic lies above mezzoforte (-3 to 2); 0 for
// none written.
func (d Dynamic) Step() int {
	for n, v := range dynamics {
		if v == d {
			return n - 3
		}
	}
	return 0
}

// Louder returns the dynamic so many steps above d, or below it; the outermost where there
// are no more. None written is a mezzoforte.
func (d Dynamic) Louder(steps int) Dynamic {
	return dynamics[min(len(dynamics)-1, max(0, d.Step()+3+steps))]
}

// Known reports whether a dynamic is one of ours, or none.
func (d Dynamic) Known() bool { return d == "" || slices.Contains(dynamics, d) }

// Marked returns the score with every segment saying whether it sounds, so that
// who draws it need not know the phases. A score that was kept before segments
// said so is marked when it is read.
func (s Score) Marked() Score {
	segments := make([]Segment, len(s.Segments))
	for n, seg := range s.Segments {
		seg.Sounds = seg.Phase.Sounds()
		segments[n] = seg
	}
	s.Segments = segments
	return s
}

// CountIn is the clicks before the first note of every score; a recording
// begins with the first of them.
const CountIn music.Beats = 4

// Beats returns the length of the score from the first click to the last rest.
func (s Score) Beats() music.Beats {
	if len(s.Segments) == 0 {
		return 0
	}
	last := s.Segments[len(s.Segments)-1]
	return last.StartBeat + last.Beats
}

// Seconds returns how long a take of the score lasts.
func (s Score) Seconds() music.Seconds { return s.TempoBPM.Seconds(s.Beats()) }

// IsFree reports whether the score asks for no notes but leaves time to play
// one's own.
func (s Score) IsFree() bool {
	free := false
	for _, seg := range s.Segments {
		if seg.Phase.Sounds() {
			return false
		}
		free = free || seg.Phase == Free
	}
	return free
}

// Targets returns the segments that sound, in order.
func (s Score) Targets() []Segment {
	var out []Segment
	for _, seg := range s.Segments {
		if seg.Phase.Sounds() {
			out = append(out, seg)
		}
	}
	return out
}

// Strokes returns the segments that are struck, in order.
func (s Score) Strokes() (out []Segment) {
	for _, seg := range s.Segments {
		if seg.Phase == Strike {
			out = append(out, seg)
		}
	}
	return out
}

// Reads lists the notes of the score as the player reads them: "C4 G4".
func (s Score) Reads() string {
	var names []string
	for _, seg := range s.Targets() {
		names = append(names, seg.WrittenName)
	}
	return strings.Join(names, " ")
}

// LongestBreath returns the longest stretch of sound or air in a score with no
// breath and no rest in it.
func (s Score) LongestBreath() music.Seconds {
	var longest, now music.Beats
	for _, seg := range s.Segments {
		switch {
		case seg.Phase.Sounds() || seg.Phase == Out:
			now += seg.Beats
		case seg.Phase == Breathe || seg.Phase == Rest:
			now = 0
		}
		longest = max(longest, now)
	}
	return s.TempoBPM.Seconds(longest)
}
