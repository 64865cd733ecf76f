package api

import (
	"context"
	"strings"
	"time"

	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// FlagView is what a player told, as the director sees it.
type FlagView struct {
	ID       string         `json:"id"`
	Player   string         `json:"player"`
	PlayerID string         `json:"player_id"`
	Kind     store.FlagKind `json:"kind" enum:"hurts,dizzy,tired,question"`
	Words    string         `json:"words"`
	RaisedAt string         `json:"raised_at" format:"date-time"`
}

// flagInput is a player's call. It may have been made hours ago without a network,
// so it says how long ago and not when: children's clocks are wrong more often than
// their counting.
type flagInput struct {
	Flag string `path:"flag" format:"uuid" doc:"made by the client, so that it can be sent again"`
	Body struct {
		Kind  store.FlagKind `json:"kind" enum:"hurts,dizzy,tired,question"`
		Words string         `json:"words" maxLength:"500"`
		Step  string         `json:"step,omitempty"`
		AgoMS int            `json:"ago_ms,omitempty" minimum:"0" doc:"how long ago it was said, on a device without a network"`
	}
}

// raiseFlag tells the director that something hurts, or asks a question.
func (a *API) raiseFlag(ctx context.Context, in *flagInput) (*struct{}, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	if in.Body.Kind == store.Question && in.Body.Words == "" {
		return nil, problem.Input("words", "write your question first")
	}
	f := store.Flag{
		ID:       in.Flag,
		PlayerID: player.ID,
		Kind:     in.Body.Kind,
		Words:    in.Body.Words,
		RaisedAt: ago(a.Now(), in.Body.AgoMS).UTC(),
	}
	if in.Body.Step != "" {
		// A step of the player's own class: its number comes from the client.
		step, err := a.Store.StepOfClass(ctx, player.ClassID, in.Body.Step)
		if err != nil {
			return nil, err
		}
		f.StepID = &step.ID
	}
	if err := a.Store.RaiseFlag(ctx, f); err != nil {
		return nil, err
	}
	return nil, nil
}

// flagsOutput is what is still to be seen, the gravest first.
type flagsOutput struct {
	Body struct {
		Flags []FlagView `json:"flags" nullable:"false"`
	}
}

// listFlags lists what a class's players told and nobody has seen yet.
func (a *API) listFlags(ctx context.Context, in *ClassPath) (*flagsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	open, err := a.Store.OpenFlags(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := &flagsOutput{}
	out.Body.Flags = []FlagView{}
	for _, f := range open {
		out.Body.Flags = append(
			out.Body.Flags,
			FlagView{f.ID, f.Player.FullName(), f.PlayerID, f.Kind, f.Words, f.RaisedAt.UTC().Format(time.RFC3339)},
		)
	}
	return out, nil
}

// answerInput is a director's answer to what a player told.
type answerInput struct {
	FlagPath
	Body struct {
		Words string `json:"words" minLength:"1" maxLength:"500"`
	}
}

// answerFlag answers a player, who reads it on the practice page.
func (a *API) answerFlag(ctx context.Context, in *answerInput) (*flagsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	words := strings.TrimSpace(in.Body.Words)
	if words == "" {
		return nil, problem.Input("words", "write your answer first")
	}
	err = a.Store.AnswerFlag(ctx, in.Flag, class.ID, a.who(ctx).Subject, words, a.Now().UTC())
	if err != nil {
		return nil, err
	}
	return a.listFlags(ctx, &in.ClassPath)
}

// FlagPath is a flag of the class in the address; one of another class is not found.
type FlagPath struct {
	ClassPath
	Flag string `path:"flag" format:"uuid"`
}

// seeFlag says that a director has seen it. It is kept with when, since somebody may
// have to account for it.
func (a *API) seeFlag(ctx context.Context, in *FlagPath) (*flagsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.SeeFlag(ctx, in.Flag, class.ID, a.Now().UTC())
	}
	if err != nil {
		return nil, err
	}
	return a.listFlags(ctx, &in.ClassPath)
}
