package store

import (
	"encoding/json"
	"time"

	"gorm.io/gorm"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/playtest"
	"earlychorus/core/progress"
	"earlychorus/core/ribbon"
	"earlychorus/core/roster"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// The models mirror migrations/*.sql: there every column is explained, its
// constraints named, its unit given. A day is a school's date at midnight UTC; an
// instant is UTC.

// School is where classes are; its time zone says when its day begins.
type School struct {
	ID       string
	Name     string
	TimeZone string

	ConsentNeeded bool // homes are asked before anything is recorded
}

// Director is a teacher with an account; the password is kept as a bcrypt hash only.
type Director struct {
	ID           string
	Name         string
	Email        string
	PasswordHash string

	WeeklySummary bool
	TOTPSecret    string `gorm:"column:totp_secret"` // of the device that makes codes; "" for none
	TOTPUsed      int64  `gorm:"column:totp_used"`   // the step of the last code
}

// Class is a group with its plan and its answers to the questions on which teachers
// differ. An archived one is read, not played for.
type Class struct {
	ID             string
	SchoolID       string
	School         School
	Name           string
	Code           string
	OwnConventions json.RawMessage `gorm:"column:conventions;type:jsonb"` // what differs from the usual conventions
	Tips           verdict.Book    `gorm:"serializer:json"`
	Remedies       plan.RemedyBook `gorm:"serializer:json"` // the class's own, where they are not ours
	FirstLesson    *time.Time      `gorm:"type:date"`
	ClassMinutes   float64
	HomeMinutes    float64          // 0 is the stage's usual
	FeedToken      string           `gorm:"default:gen_random_uuid()"`
	Weights        progress.Weights `gorm:"serializer:json"` // of the reasons to hear somebody, where they are the director's own
	KeepDays       int              `gorm:"default:365"`     // how long recordings are kept

	KeepVoiceDays    int // 0: as long as recordings
	KeepMeasuresDays int // 0: as long as the class
	// SimulatedPlayers says who may hand simulated players in.
	SimulatedPlayers Simulating `gorm:"default:no"`
	Known            known.Book `gorm:"serializer:json"` // the notes known, by instrument
	ArchivedAt       *time.Time
}

// Simulating says who may hand in a simulated player in a class.
type Simulating string

const (
	SimulatingNo    Simulating = "no"    // nobody: a real class
	SimulatingTried Simulating = "tried" // pupils who try the program: marked, and never counted
	SimulatingDemo  Simulating = "demo"  // everybody: the class itself is invented
)

// NotesOn returns the sounding notes that players of an instrument know on a day, and those
// that are new then. known is nil where every note that the stage reaches counts.
func (c Class) NotesOn(i instrument.Instrument, own known.Own, day time.Time) (known, fresh []music.MIDI) {
	return c.Known.For(i, own, Monday(day).Format(time.DateOnly))
}

// Conventions returns the schools and references the class follows.
func (c Class) Conventions() exercise.Conventions {
	out := exercise.StandardConventions()
	if len(c.OwnConventions) > 0 {
		_ = json.Unmarshal(c.OwnConventions, &out) // what was checked when it was saved
	}
	return out
}

// StageOn returns the stage of the class on a day, by the weeks since its first
// lesson.
func (c Class) StageOn(day time.Time) scores.Stage {
	if c.FirstLesson == nil {
		return 1
	}
	weeks := int(Monday(day).Sub(Monday(*c.FirstLesson)).Hours() / (24 * 7))
	return scores.StageOfWeek(weeks + 1)
}

// Monday returns the first day of a date's week.
func Monday(day time.Time) time.Time { return day.AddDate(0, 0, -((int(day.Weekday()) + 6) % 7)) }

// zone is the school's. One that this machine does not know counts as UTC: a day
// that begins an hour off is better than no board.
func (c Class) zone() *time.Location {
	zone, err := time.LoadLocation(c.School.TimeZone)
	if err != nil {
		return time.UTC
	}
	return zone
}

// Day returns the school's date at an instant, at midnight UTC as dates are stored.
func (c Class) Day(at time.Time) time.Time {
	y, m, d := at.In(c.zone()).Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

// Midnight returns the instant at which the school's day began.
func (c Class) Midnight(at time.Time) time.Time {
	y, m, d := at.In(c.zone()).Date()
	return time.Date(y, m, d, 0, 0, 0, 0, c.zone())
}

// Ends returns the instant at which a day of the school's is over.
func (c Class) Ends(day time.Time) time.Time {
	y, m, d := day.Date()
	return time.Date(y, m, d+1, 0, 0, 0, 0, c.zone())
}

// Player is somebody on a class's list: what the list says, and what is kept here.
type Player struct {
	ID      string
	ClassID string
	Class   Class
	roster.Person
	PINHash string    `gorm:"column:pin_hash"`
	Knows   known.Own `gorm:"serializer:json"` // notes known before the class, or not yet
	LeftAt  *time.Time
}

// Plays returns the player's instrument as it is built.
func (p Player) Plays() (instrument.Instrument, error) {
	i, err := instrument.Get(p.Instrument)
	if err != nil {
		return i, err
	}
	return i.As(p.Variant)
}

// NotesOn returns the sounding notes the player knows on a day, and those that are new then.
// known is nil where every note that the stage reaches counts.
func (p Player) NotesOn(day time.Time) (known, fresh []music.MIDI) {
	i, err := instrument.Get(p.Instrument)
	if err != nil || !i.IsPitched() {
		return nil, nil
	}
	return p.Class.NotesOn(i, p.Knows, day)
}

// StageOn returns the player's stage on a day: their own, or by the weeks since the
// class's first lesson.
func (p Player) StageOn(day time.Time) scores.Stage {
	if p.Stage != 0 {
		return p.Stage
	}
	return p.Class.StageOn(day)
}

// Step is an exercise placed on days. What it asks for is in its versions: a version
// that was played is never changed, only followed by the next.
type Step struct {
	ID       string
	ClassID  string
	Position int
	Kind     string
	FirstDay time.Time `gorm:"type:date"`
	LastDay  time.Time `gorm:"type:date"`
	Days     plan.Days
	Place    plan.Place
	Times    int
	For      []string `gorm:"column:for_instruments;serializer:json"`
	Why      string
	Called   string // the director's own name for it
	PlanID   *string
	Wanted   plan.Wanted
	Pinned   bool
	Test     *playtest.Test `gorm:"serializer:json"` // of a step that is a test
	Removed  bool           // taken off the plan after it was played

	Version    int             `gorm:"-"` // of the version below
	Parameters json.RawMessage `gorm:"-"`
}

// Exercise returns what the step asks for.
func (s Step) Exercise() (exercise.Step, error) { return exercise.Kept(s.Kind, s.Parameters) }

// Item returns the step as the planner knows it.
func (s Step) Item() (plan.Item, error) {
	x, err := s.Exercise()
	return plan.Item{
		Key:    s.ID,
		Step:   x,
		Times:  s.Times,
		Days:   s.Days,
		At:     s.Place,
		Wanted: s.Wanted,
		Pinned: s.Pinned,
		For:    s.For,
		Why:    s.Why,
		Called: s.Called,
		Test:   s.Test,
	}, err
}

// Plan is a class's week, at its newest revision.
type Plan struct {
	ID       string
	ClassID  string
	Monday   time.Time `gorm:"type:date"`
	Name     string
	Revision int
}

// PlanRevision is a plan as one change left it.
type PlanRevision struct {
	PlanID     string
	Revision   int
	Items      []plan.Item `gorm:"serializer:json"`
	DirectorID string
	Director   Director
	ChangedAt  time.Time
	Changes    string
}

// PlanTemplate is a director's own week to begin from.
type PlanTemplate struct {
	ID         string
	DirectorID string
	Name       string
	Items      []plan.Item `gorm:"serializer:json"`
	MadeAt     time.Time
}

// Exception is days on which a player is asked for nothing, or not for one step.
type Exception struct {
	ID       string
	PlayerID string
	StepID   *string
	FirstDay time.Time `gorm:"type:date"`
	LastDay  time.Time `gorm:"type:date"`
	Why      string
}

// StepVersion is what a step asked for from an instant on.
type StepVersion struct {
	StepID     string
	Version    int
	Parameters json.RawMessage `gorm:"type:jsonb"`
	CreatedAt  time.Time
}

// Source is where a take's sound came from.
type Source string

const (
	Microphone Source = "microphone"
	File       Source = "file"
	Simulated  Source = "simulated"
)

// Take is one recording of one version of a step, with what lists show of the word
// on it; the whole word is its Analysis. Its id is made by the client, so that an
// upload may be repeated.
type Take struct {
	ID          string
	PlayerID    string
	Player      Player
	StepID      string
	StepVersion int
	Day         time.Time `gorm:"type:date"`
	Source      Source
	ReceivedAt  time.Time
	PlayedAt    time.Time // when it was recorded
	DurationMS  int       `gorm:"column:duration_ms"`
	RateHz      int
	StartMS     int          `gorm:"column:start_ms"`
	SHA256      []byte       `gorm:"column:sha256"` // of the file as it came
	Sound       string       // its name among the recordings
	SoundSHA256 []byte       `gorm:"column:sound_sha256"` // of the file as it is kept; nil: not known
	Trial       bool         // tried out with a simulated player: never counted
	ScoreID     []byte       // of the sheet below
	Sheet       ScoreSheet   `gorm:"foreignKey:ScoreID"`
	Score       scores.Score `gorm:"-"` // the sheet's, where it was asked for
	Failure     string

	Result      verdict.Result // measured; "" while it waits
	Cause       measure.Cause
	Short       string
	Conclusion  json.RawMessage `gorm:"type:jsonb"` // the verdict without its measures; null while it waits
	CutFromS    float64         // where it is cut when somebody listens; both 0: not known
	CutToS      float64
	CutAt       string
	SoundGoneAt *time.Time // the recording was let go of

	DeviceResult verdict.Result // what the device told the player at once
	Through      string         // the microphone, by an opaque name; "" not known
}

// Start returns where the score's first click lies in the recording.
func (t Take) Start() music.Seconds { return music.Seconds(t.StartMS) / 1000 }

// FreeStart reports whether the take was recorded without our click.
func (t Take) FreeStart() bool { return t.Source == File }

// ScoreSheet is a score as it is kept: once, for all the takes that were played
// from it.
type ScoreSheet struct {
	ID      []byte
	Body    scores.Score `gorm:"serializer:json"`
	Written string       // the notes in order, as the player reads them
	Ladder  string       // whose rung it is; "" for none
}

// TableName is the trade's word: the sheet is its file.
func (ScoreSheet) TableName() string { return "score" }

// AfterFind puts the sheet's score where it is used.
func (t *Take) AfterFind(*gorm.DB) error {
	t.Score = t.Sheet.Body.Marked()
	return nil
}

// Analysis is everything that was measured and said of a take by one version of the
// ear; a newer version's stands beside it.
type Analysis struct {
	TakeID    string
	Version   int
	CreatedAt time.Time
	Result    verdict.Result
	TipKey    string
	Measured  ear.Analysis    `gorm:"serializer:json"`
	Verdict   verdict.Verdict `gorm:"serializer:json"`
	Ribbon    ribbon.Ribbon   `gorm:"serializer:json"`
	Contour   []byte
}

// Tick is a player's word on a step that is done, not recorded.
type Tick struct {
	PlayerID    string `gorm:"primaryKey"`
	StepID      string `gorm:"primaryKey"`
	StepVersion int
	Day         time.Time `gorm:"type:date;primaryKey"`
	Done        []bool    `gorm:"serializer:json"`
	Result      verdict.Result
	Short       string          // of ticks from before conclusions were kept
	Conclusion  json.RawMessage `gorm:"type:jsonb"`
	TickedAt    time.Time
}

// Review is a director's word on a take. It stands beside the measured one, and the
// latest counts; taking it back deletes the row.
type Review struct {
	ID         string
	TakeID     string
	DirectorID string
	Result     verdict.Result
	ReviewedAt time.Time
}

// Comment is what a director said of a take, in words or as a voice note whose sound
// is kept with the recordings.
type Comment struct {
	ID         string
	TakeID     string
	DirectorID string
	Director   Director
	Body       string
	WrittenAt  time.Time
	Kind       string   `gorm:"default:comment"`
	AtS        *float64 `gorm:"column:at_s"` // where in the recording it is pinned

	Sound       string     // a voice note's name among the recordings
	SoundGoneAt *time.Time // it was let go of
}
