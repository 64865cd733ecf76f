package main

import (
	"math"

	"earlychorus/benches/lessons/lesson"
	"earlychorus/core/explain"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// ways of finding the story behind a take, to be compared on the same lessons.
var ways = map[string]lesson.Way{
	"joint":   explain.Solve,
	"windows": byWindows,
	"apart":   apart,
}

// byWindows looks at each target by itself: what sounds longest within its beats is
// what came of it.
func byWindows(sounds []explain.Sound, p explain.Part) explain.Story {
	targets := p.Score.Targets()
	out := empty(len(sounds), len(targets))
	for k, t := range targets {
		begin := p.Start + p.Score.TempoBPM.Seconds(t.StartBeat)
		end := begin + p.Score.TempoBPM.Seconds(t.Beats)
		best, longest := -1, music.Seconds(0)
		for n, s := range sounds {
			if inside := min(end, s.Release) - max(begin, s.Onset); inside > longest {
				best, longest = n, inside
			}
		}
		switch {
		case best < 0 || longest < (end-begin)/4:
			out.Accounts[k] = explain.Account{Kind: explain.NeverCame}
		case out.Owners[best] >= 0:
			out.Accounts[k] = heldOver(out, sounds[best], t, targets[out.Owners[best]], p)
		default:
			out.Owners[best] = k
			out.Accounts[k] = accountOf(sounds[best], t, p)
			out.Accounts[k].Late = sounds[best].Onset - begin
		}
	}
	return out
}

// apart lays sounds against targets first, by pitch and time, as the program did
// before there were accounts, and says afterwards what each sound is.
func apart(sounds []explain.Sound, p explain.Part) explain.Story {
	targets := p.Score.Targets()
	out := empty(len(sounds), len(targets))
	const skip, stray = 0.9, 2.4
	cost := make([][]float64, len(sounds)+1)
	from := make([][]int, len(sounds)+1)
	for n := range cost {
		cost[n], from[n] = make([]float64, len(targets)+1), make([]int, len(targets)+1)
		for k := range cost[n] {
			switch {
			case n == 0:
				cost[n][k], from[n][k] = skip*float64(k), -1
			case k == 0:
				cost[n][k], from[n][k] = cost[n-1][k]+stray, 0
			default:
				cost[n][k], from[n][k] = cost[n-1][k]+stray, 0
				if c := cost[n][k-1] + skip; c < cost[n][k] {
					cost[n][k], from[n][k] = c, -1
				}
				if c := cost[n-1][k-1] + fit(sounds[n-1], targets[k-1], p); c < cost[n][k] {
					cost[n][k], from[n][k] = c, 1
				}
			}
		}
	}
	for k := range targets {
		out.Accounts[k] = explain.Account{Kind: explain.NeverCame}
	}
	for n, k := len(sounds), len(targets); n > 0; {
		switch from[n][k] {
		case 1:
			t := targets[k-1]
			out.Owners[n-1], out.Accounts[k-1] = k-1, accountOf(sounds[n-1], t, p)
			out.Accounts[k-1].Late = sounds[n-1].Onset - p.Start - p.Score.TempoBPM.Seconds(t.StartBeat)
			n, k = n-1, k-1
		case -1:
			k--
		default:
			n--
		}
	}
	return out
}

func empty(sounds, targets int) explain.Story {
	out := explain.Story{
		Explanation: explain.Explanation{Accounts: make([]explain.Account, targets)},
		Owners:      make([]int, sounds),
	}
	for n := range out.Owners {
		out.Owners[n] = -1
	}
	return out
}

func off(s explain.Sound, t scores.Segment, a4 music.Hertz) float64 {
	cents := float64(s.Pitch - music.Between(music.StandardA4, t.Target.Frequency(a4)))
	if t.Phase == scores.Sing {
		cents -= 1200 * math.Round(cents/1200)
	}
	return cents
}

// fit is what a sound costs as a target: half a unit a half step, one a beat.
func fit(s explain.Sound, t scores.Segment, p explain.Part) float64 {
	begin := p.Start + p.Score.TempoBPM.Seconds(t.StartBeat)
	late := math.Abs(float64(p.Score.TempoBPM.Beats(s.Onset - begin)))
	return min(2, 0.5*max(0, math.Abs(off(s, t, p.Score.A4Hz))-70)/100) + max(0, late-0.25)
}

func accountOf(s explain.Sound, t scores.Segment, p explain.Part) explain.Account {
	cents := off(s, t, p.Score.A4Hz)
	came, _ := music.Nearest(s.Pitch.Above(music.StandardA4), p.Score.A4Hz)
	switch {
	case math.Abs(cents) <= 70 || t.GlideTo != 0:
		return explain.Account{Kind: explain.Played, Came: t.Target}
	case p.Instrument != nil:
		for _, other := range p.Instrument.Partials(t.Tube()) {
			if other.Note == came {
				return explain.Account{Kind: explain.OtherPartial, Came: came, Partial: other.Number}
			}
		}
	}
	if math.Abs(cents) <= 250 {
		return explain.Account{Kind: explain.OtherFingering, Came: came}
	}
	return explain.Account{Kind: explain.OtherNote, Came: came}
}

func heldOver(
	story explain.Story, s explain.Sound, t, before scores.Segment, p explain.Part,
) explain.Account {
	a := accountOf(s, t, p)
	switch {
	case a.Kind == explain.Played && t.Target == before.Target:
		a.Kind = explain.NotTongued
	case a.Kind != explain.Played:
		a.Kind = explain.HeldOver
	}
	return a
}
