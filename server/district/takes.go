package district

import (
	"context"
	"math/rand/v2"
	"time"

	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// made is one take, drawn by chance around what its player can do by then.
type made struct {
	class, player, step, week int
	day, at                   time.Time
	result                    verdict.Result
	cause                     measure.Cause
	centre, waver, held       float64
}

// take draws the n-th take: by day, then class, player and step, as they would come
// in.
func (s *seeding) take(n int) made {
	// Takes are numbered by day, class, player and step, slowest first: as a real table grows.
	perClass := s.Players * len(steps())
	perDay := s.Classes * perClass
	m := made{class: n % perDay / perClass, player: n % perClass / len(steps()), step: n % len(steps())}
	day := n / perDay
	m.week = day / daysAWeek
	m.day = s.monday.AddDate(0, 0, 7*m.week+day%daysAWeek)
	m.at = m.day.Add(16*time.Hour + time.Duration(n%perDay)*time.Millisecond*20)
	chance := rand.New(rand.NewPCG(uint64(n), 17))
	// Players differ, and grow over the year: flat data would hide what an index on results
	// costs.
	skill := float64((m.class*31+m.player*17)%10)/10 + 0.6*float64(day)/float64(s.Weeks*daysAWeek)
	// Cents, cents and seconds; the spread is what the demo's performed takes show.
	m.centre = (30 - 18*skill) * chance.NormFloat64()
	m.waver = 4 + (14-9*skill)*chance.Float64()
	m.held = 3 + 6*skill + chance.NormFloat64()
	switch {
	case m.centre > 25 || m.centre < -25:
		m.result, m.cause = verdict.NotYet, measure.CauseCentre
	case m.waver > 12:
		m.result, m.cause = verdict.Nearly, measure.CauseSteadiness
	// One recording in fifty is spoiled by something in the room.
	case chance.IntN(50) == 0:
		m.result, m.cause = verdict.CantTell, measure.CauseRecording
	default:
		m.result = verdict.Clean
	}
	return m
}

// takes copies the takes with their readings straight into the tables. Through the
// job queue it would take a month.
func (s *seeding) takes(ctx context.Context) error {
	all := s.Takes()
	tell := func(what string, n int) {
		if n%1_000_000 == 0 {
			s.say("%s: %d of %d", what, n, all)
		}
	}
	var hash [32]byte
	columns := []string{
		"id",
		"player_id",
		"step_id",
		"step_version",
		"day",
		"source",
		"received_at",
		"played_at",
		"duration_ms",
		"rate_hz",
		"start_ms",
		"sha256",
		"score_id",
		"result",
		"cause",
		"conclusion",
		"cut_from_s",
		"cut_to_s",
		"cut_at",
	}
	err := s.copy(ctx, "take", columns, all, func(n int) []any {
		tell("takes", n)
		m := s.take(n)
		sheet := s.sheets[m.step][m.player%len(band)]
		cut := sheet.of(m).cut
		return []any{
			id(aTake, n),
			s.player(m.class, m.player),
			s.step(m.class, m.week, m.step),
			1,
			m.day,
			// Nothing of it was played by anybody, and the table says so.
			"simulated",
			m.at,
			m.at,
			sheet.ms,
			48000,
			0,
			hash[:],
			sheet.id,
			m.result,
			m.cause,
			sheet.conclusion,
			cut.From,
			cut.To,
			cut.At,
		}
	})
	if err != nil {
		return err
	}
	return s.copy(
		ctx,
		"take_note",
		[]string{
			"take_id",
			"number",
			"player_id",
			"day",
			"sounding",
			"good",
			"trusted",
			"centre",
			"steadiness",
			"held",
		},
		all,
		func(n int) []any {
			tell("notes", n)
			m := s.take(n)
			return []any{
				id(aTake, n),
				0,
				s.player(m.class, m.player),
				m.day,
				s.sheets[m.step][m.player%len(band)].note,
				m.result == verdict.Clean,
				true,
				m.centre,
				m.waver,
				m.held,
			}
		},
	)
}

// kept writes the newest weeks' analyses: real ones of simulated takes, a few for
// each instrument and step, over and over.
func (s *seeding) kept(ctx context.Context) error {
	perWeek := s.Classes * s.Players * daysAWeek * len(steps())
	// Drawings and contours are most of the bytes; only the newest weeks have them, as after
	// letting go.
	count := min(s.KeptWeeks, s.Weeks) * perWeek
	first := s.Takes() - count
	s.say("%d analyses", count)
	return s.copy(
		ctx,
		"analysis",
		[]string{"take_id", "version", "created_at", "result", "tip_key", "measured", "verdict", "ribbon", "contour"},
		count,
		func(n int) []any {
			m := s.take(first + n)
			sheet := s.sheets[m.step][m.player%len(band)]
			a := sheet.of(m)
			return []any{id(aTake, first+n), 1, m.at, m.result, a.tip, a.measured, a.verdict, a.ribbon, a.contour}
		},
	)
}
