package ask

import (
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/practice"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// WorkRequest is a step for a player.
type WorkRequest struct {
	Setting practice.Setting   `json:"setting"`
	Step    practice.AskedStep `json:"step"`
	Tempo   music.Tempo        `json:"tempo" doc:"of the player's choice; 0 is the step's own"`
}

func work(in WorkRequest, _ *Sound) (practice.Worked, error) {
	step, err := in.Step.Step()
	if err != nil {
		return practice.Worked{}, err
	}
	return practice.Work(in.Setting, step, in.Tempo)
}

// PartRequest is a step as it was worked out, and the part of it to practice.
type PartRequest struct {
	Score scores.Score  `json:"score"`
	Part  practice.Part `json:"part"`
}

func part(in PartRequest, _ *Sound) (practice.Worked, error) {
	return practice.PartOf(in.Score, in.Part)
}

// ClimbRequest is a take of a rung, and the ladder before it.
type ClimbRequest struct {
	Setting practice.Setting `json:"setting"`
	Ladder  practice.Ladder  `json:"ladder"`
	Day     string           `json:"day" doc:"the school's date"`
	Rung    int              `json:"rung" doc:"that was played, from 1"`
	Verdict verdict.Verdict  `json:"verdict"`
	Seconds music.Seconds    `json:"seconds" doc:"length of the take"`
}

func climb(in ClimbRequest, _ *Sound) (practice.Ladder, error) {
	who, err := in.Setting.Player()
	if err != nil {
		return practice.Ladder{}, err
	}
	next, _ := practice.Climb(in.Ladder, who.Instrument, ladder.TriedOn(in.Day, in.Rung, in.Verdict, in.Seconds))
	return next, nil
}

// StepBackRequest is a ladder that its player goes back on.
type StepBackRequest struct {
	Setting practice.Setting `json:"setting"`
	Ladder  practice.Ladder  `json:"ladder"`
	Day     string           `json:"day" doc:"the school's date"`
}

func stepBack(in StepBackRequest, _ *Sound) (practice.Ladder, error) {
	who, err := in.Setting.Player()
	if err != nil {
		return practice.Ladder{}, err
	}
	return practice.StepBack(in.Ladder, who.Instrument, in.Day), nil
}

// HoldRequest is the step to come, and what was played today, latest first.
type HoldRequest struct {
	Next  scores.Score      `json:"next"`
	Today []practice.Played `json:"today" nullable:"false"`
}

func hold(in HoldRequest, _ *Sound) (practice.Hold, error) {
	return practice.Before(in.Next, in.Today), nil
}
