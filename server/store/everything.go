package store

import (
	"context"
	"database/sql"
	"fmt"
	"strings"

	"earlychorus/core/roster"
)

// Table is one kind of thing that is kept of a class, as it is taken out.
type Table struct {
	Name    string
	Says    string // what a line is
	Columns []Column
	from    string // tables, with the class's id as $1 and one player's as $2, '' for everybody
}

// Column is one column of it: its name, what it says, and where it comes from.
type Column struct {
	Name, Says, sql string
}

// KeptOfClass lists what is kept of a class, but for sounds and secrets.
func KeptOfClass() []Table {
	// Every table goes by the class, so that no line of another class can come along.
	theirs := " WHERE p.class_id = $1 AND ($2::text = '' OR p.id::text = $2)"
	players := "player p" + theirs
	ofTake := " JOIN take t ON t.id = x.take_id JOIN player p ON p.id = t.player_id" + theirs
	ofPlayer := " JOIN player p ON p.id = x.player_id" + theirs
	return []Table{
		{"players", "a player", playerColumns(), players + " ORDER BY p.last_name, p.first_name"},
		{"steps", "a version of a step of a plan", []Column{
			{"step_id", "", "x.id"},
			{"version", "from 1", "v.version"},
			{"kind", "as in the [catalogue](catalogue.md)", "x.kind"},
			{"parameters", "JSON, as in the catalogue", "v.parameters"},
			{"first_day", "date", "x.first_day"},
			{"last_day", "date", "x.last_day"},
			{"days", "of the week it is on: 1 Monday, 2 Tuesday, 4 Wednesday …, added", "x.days"},
			{"place", "`class`, `home` or `both`", "x.place"},
			{"times", "how often in a row", "x.times"},
			{"for_instruments", "JSON list of keys; empty: everybody", "x.for_instruments"},
			{"why", "the director's words", "x.why"},
			{"test", "JSON: due, takes, counts; empty: no test", "x.test"},
			{"removed", "taken off the plan after it was played", "x.removed"},
			{"written_at", "UTC", "v.created_at"},
		}, "step x JOIN step_version v ON v.step_id = x.id WHERE x.class_id = $1 AND $2::text IS NOT NULL " +
			"ORDER BY x.first_day, x.position, v.version"},
		{"takes", "a take", []Column{
			{"take_id", "", "x.id"},
			{"player_id", "", "x.player_id"},
			{"step_id", "", "x.step_id"},
			{"step_version", "that was played", "x.step_version"},
			{"day", "the school's date", "x.day"},
			{"played_at", "UTC", "x.played_at"},
			{"received_at", "UTC", "x.received_at"},
			{"source", "`microphone`, `file` or `simulated`", "x.source"},
			{"duration_ms", "ms", "x.duration_ms"},
			{"rate_hz", "samples a second", "x.rate_hz"},
			{"start_ms", "where the step's first click lies in the recording, ms", "x.start_ms"},
			{"written", "the notes in order, as the player reads them", "s.written"},
			{"result", "measured; empty while it waits", "x.result"},
			{"cause", "what decided", "x.cause"},
			{"conclusion", "the verdict's keys and numbers, JSON", "x.conclusion"},
			{"short", "in words, of takes from before there was a conclusion", "x.short"},
			{"device_result", "what the player's device said at once", "x.device_result"},
			{"through", "tells the player's microphones apart; empty where it is not known", "x.through"},
			{"floor_db", "loudness of the room when nobody plays, dB below full scale", "x.floor_db"},
			{"ring_s", "time by which the room's ring falls by 60 dB, s; 0 where it could not be heard", "x.ring_s"},
			{"failure", "why it could not be listened to", "x.failure"},
			{"sound_gone_at", "UTC; when the recording was let go of", "x.sound_gone_at"},
		}, "take x JOIN score s ON s.id = x.score_id" + ofPlayer + " ORDER BY x.day, x.received_at"},
		{"notes", "a note of a take", []Column{
			{"take_id", "", "x.take_id"},
			{"note", "of the step's notes, from 0", "x.number"},
			{"player_id", "", "x.player_id"},
			{"day", "the school's date", "x.day"},
			{"sounding_midi", "the note asked for", "x.sounding"},
			{"good", "it kept every limit it was judged by", "x.good"},
			{"trusted", "its pitch can be relied on; where not, leave the next two out", "x.trusted"},
			{"centre_cents", "", "x.centre"},
			{"steadiness_cents", "", "x.steadiness"},
			{"held_s", "s", "x.held"},
			{"level_db", "loudness, dB below full scale; as the next three, only where tone counts", "x.level_db"},
			{"clearness_db", "harmonics to noise, dB", "x.clearness"},
			{"brightness_harmonics", "centre of the spectrum, counted in harmonics", "x.brightness"},
			{"fullness_harmonics", "harmonics within 30 dB of the strongest", "x.fullness"},
		}, "take_note x" + ofPlayer + " ORDER BY x.day, x.take_id, x.number"},
		{"analyses", "everything measured in a take, and the verdict, by the ear's version", []Column{
			{"take_id", "", "x.take_id"},
			{"version", "of the ear and the rules", "x.version"},
			{"heard_at", "UTC", "x.created_at"},
			{"result", "", "x.result"},
			{"tip", "its key in [tips](tips.md)", "x.tip_key"},
			{"measured", "JSON, as `analyze` writes it", "x.measured"},
			{"verdict", "JSON, likewise", "x.verdict"},
		}, "analysis x" + ofTake + " ORDER BY t.day, x.take_id, x.version"},
		{"words", "a director's word on a take; the latest counts", []Column{
			{"take_id", "", "x.take_id"},
			{"by", "", "d.name"},
			{"result", "", "x.result"},
			{"at", "UTC", "x.reviewed_at"},
		}, "review x JOIN director d ON d.id = x.director_id" + ofTake + " ORDER BY x.reviewed_at"},
		{"comments", "something a director said of a take", []Column{
			{"comment_id", "of a voice note: the name of its sound, too", "x.id"},
			{"take_id", "", "x.take_id"},
			{"by", "", "d.name"},
			{"kind", "`comment`, `praise`, `again` or `voice`", "x.kind"},
			{"words", "", "x.body"},
			{"at_s", "where in the recording it is pinned, s", "x.at_s"},
			{"written_at", "UTC", "x.written_at"},
		}, "comment x JOIN director d ON d.id = x.director_id" + ofTake + " ORDER BY x.written_at"},
		{"ticks", "a player's word on a step that is not recorded", []Column{
			{"player_id", "", "x.player_id"},
			{"step_id", "", "x.step_id"},
			{"step_version", "", "x.step_version"},
			{"day", "the school's date", "x.day"},
			{"done", "JSON, a truth for each thing of the step", "x.done"},
			{"result", "", "x.result"},
			{"conclusion", "its keys and numbers, JSON", "x.conclusion"},
			{"short", "in words, of ticks from before there was a conclusion", "x.short"},
			{"ticked_at", "UTC", "x.ticked_at"},
		}, "tick x" + ofPlayer + " ORDER BY x.day, x.player_id"},
		{"ladders", "a line of a player's ladder", []Column{
			{"player_id", "", "x.player_id"},
			{"ladder", "its key", "x.ladder"},
			{"day", "the school's date", "x.day"},
			{"at", "UTC", "x.at"},
			{"what", "`tried`, `stepped-back` or `placed`", "x.what"},
			{"rung", "from 1", "x.rung"},
			{"result", "", "x.result"},
			{"hard", "only hard notes lay outside", "x.hard"},
			{"seconds", "s", "x.seconds"},
			{"take_id", "empty unless tried", "x.take_id"},
		}, "ladder_entry x" + ofPlayer + " ORDER BY x.at, x.id"},
		{"flags", "something a player told the director", []Column{
			{"player_id", "", "x.player_id"},
			{"step_id", "", "x.step_id"},
			{"kind", "`hurts`, `dizzy`, `tired` or `question`", "x.kind"},
			{"words", "", "x.words"},
			{"raised_at", "UTC", "x.raised_at"},
			{"seen_at", "UTC", "x.seen_at"},
			{"answer", "the director's", "x.answer"},
			{"answered_at", "UTC", "x.answered_at"},
		}, "flag x" + ofPlayer + " ORDER BY x.raised_at"},
		{"exceptions", "days on which a player is asked for nothing, or not for one step", []Column{
			{"player_id", "", "x.player_id"},
			{"step_id", "empty: every step", "x.step_id"},
			{"first_day", "date", "x.first_day"},
			{"last_day", "date", "x.last_day"},
			{"why", "", "x.why"},
		}, "exception x" + ofPlayer + " ORDER BY x.first_day"},
		{"consents", "what a home said of recordings; the latest counts", []Column{
			{"player_id", "", "x.player_id"},
			{"purpose", "`recording`, `keeping` or `showing`", "x.purpose"},
			{"given", "", "x.given"},
			{"said_by", "by whom, on which form", "x.said_by"},
			{"at", "UTC", "x.at"},
		}, "consent x" + ofPlayer + " ORDER BY x.at, x.id"},
		{"care", "care of an instrument that was done", []Column{
			{"player_id", "", "x.player_id"},
			{"every", "`weekly`, `monthly` or `termly`", "x.every"},
			{"day", "the school's date", "x.day"},
		}, "care_done x" + ofPlayer + " ORDER BY x.day"},
	}
}

// asText asks for a table's columns as text.
func (t Table) asText() string {
	values := make([]string, len(t.Columns))
	for n, c := range t.Columns {
		// As the database writes it: dates, numbers and JSON alike, without a reader of our own
		// for each.
		values[n] = c.sql + "::text"
	}
	return fmt.Sprintf("SELECT %s FROM %s", strings.Join(values, ", "), t.from)
}

// asJSON asks for each line as an object.
func (t Table) asJSON() string {
	pairs := make([]string, len(t.Columns))
	for n, c := range t.Columns {
		pairs[n] = fmt.Sprintf("'%s', %s", c.Name, c.sql)
	}
	return fmt.Sprintf("SELECT json_build_object(%s)::text FROM %s", strings.Join(pairs, ", "), t.from)
}

// Snapshot is the database as it was at one moment.
type Snapshot struct{ tx *sql.Tx }

// Whose says what is taken out: a class's, or of it one player's.
type Whose struct{ ClassID, PlayerID string }

// AtOneMoment runs do on a snapshot, so that what is taken out agrees with itself
// while takes keep coming in.
func (s *Store) AtOneMoment(ctx context.Context, do func(Snapshot) error) error {
	// One moment for all tables: takes that come while it is packed would be without their
	// notes.
	tx, err := s.SQL().BeginTx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // nothing was changed
	return do(Snapshot{tx})
}

// EachLine visits a class's lines of a table, without holding them all: its columns
// as text, empty where there is nothing.
func (s Snapshot) EachLine(ctx context.Context, t Table, of Whose, visit func(cells []string) error) error {
	return s.each(ctx, t, t.asText(), of, visit)
}

// EachObject visits them as JSON.
func (s Snapshot) EachObject(ctx context.Context, t Table, of Whose, visit func(object string) error) error {
	return s.each(ctx, t, t.asJSON(), of, func(cells []string) error { return visit(cells[0]) })
}

// each visits the rows of a table as text, one at a time: a class's takes of a year
// are not held in memory.
func (s Snapshot) each(ctx context.Context, t Table, query string, of Whose, visit func([]string) error) error {
	rows, err := s.tx.QueryContext(ctx, query, of.ClassID, of.PlayerID)
	if err != nil {
		return fmt.Errorf("take out %s: %w", t.Name, err)
	}
	defer rows.Close() //nolint:errcheck // read to the end below
	names, err := rows.Columns()
	if err != nil {
		return err
	}
	cells, line, into := make([]sql.NullString, len(names)), make([]string, len(names)), make([]any, len(names))
	for n := range cells {
		into[n] = &cells[n]
	}
	for rows.Next() {
		if err := rows.Scan(into...); err != nil {
			return err
		}
		for n, c := range cells {
			// Null is written as nothing; the columns say what nothing means.
			line[n] = c.String
		}
		if err := visit(line); err != nil {
			return err
		}
	}
	return rows.Err()
}

// playerColumns are what a list says of a player, between whose number here and
// when they left.
func playerColumns() []Column {
	out := []Column{{"player_id", "", "p.id"}}
	// From the roster's own table, so that a new column is taken out as soon as it is kept.
	for _, f := range roster.Fields() {
		out = append(out, Column{f.Column, f.Says, "p." + f.Column})
	}
	out = append(out, Column{"knows", "JSON: notes known before the class (ahead), or not yet (behind)", "p.knows"})
	return append(out, Column{"left_at", "UTC; empty while in the class", "p.left_at"})
}
