package api

import (
	"context"
	"strings"

	"earlychorus/core/verdict"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// actInput is something a director does to a take. The act's number is the page's
// own: an answer that was lost on the way is asked for again with the same number
// and done once.
type actInput struct {
	TakePath
	Act  string `path:"act" format:"uuid" doc:"made by the page, so that it can be sent again and undone"`
	Body struct {
		Kind   string         `json:"kind" enum:"accept,overrule,comment,praise,again"`
		Result verdict.Result `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell" doc:"of overrule"`
		Words  string         `json:"words,omitempty" maxLength:"1000" doc:"of comment, praise and again"`
		At     *float64       `json:"at_s,omitempty" doc:"where in the recording a comment is pinned"`
		Phrase bool           `json:"phrase,omitempty" doc:"keep the words among the director's own phrases"`
	}
}

// usualWords are what praise and another try say when nothing else is written.
var usualWords = map[string]string{
	"praise": "Well done. I heard it.",
	"again":  "Please record this one once more for me.",
}

// actOnTake is a director's answer to a take: accept the measured word, give
// another, say something. Every act has a number and can be undone.
func (a *API) actOnTake(ctx context.Context, in *actInput) (*takeOutput, error) {
	t, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err != nil {
		return nil, err
	}
	director, now := a.who(ctx).Subject, a.Now().UTC()
	switch in.Body.Kind {
	case "accept", "overrule":
		word := in.Body.Result
		if in.Body.Kind == "accept" {
			// Kept as a word of the director's, so that a later version of the ear does not change it.
			word = t.Result
		}
		if word == "" {
			return nil, problem.Input(
				"result",
				"say clean, nearly, not-yet or cant-tell; a take that is not heard yet cannot be accepted",
			)
		}
		err = a.Store.Overrule(ctx, store.Review{
			ID:         in.Act,
			TakeID:     t.ID,
			DirectorID: director,
			Result:     word,
			ReviewedAt: now,
		})
	default:
		words := strings.TrimSpace(in.Body.Words)
		if words == "" {
			words = usualWords[in.Body.Kind]
		}
		if words == "" {
			return nil, problem.Input("words", "write the comment first")
		}
		err = a.Store.AddComment(ctx, store.Comment{
			ID:         in.Act,
			TakeID:     t.ID,
			DirectorID: director,
			Body:       words,
			WrittenAt:  now,
			Kind:       in.Body.Kind,
			AtS:        in.Body.At,
		})
		if err == nil && in.Body.Phrase {
			err = a.Store.UsePhrase(ctx, director, words)
		}
	}
	if err != nil {
		return nil, err
	}
	return a.showTake(ctx, &in.TakePath)
}

// undoInput names the act, not the take's latest: two directors may be at one take,
// and each takes back only what they did.
type undoInput struct {
	TakePath
	Act string `path:"act" format:"uuid"`
}

// undoAct takes back an act of the asker's own. The take comes back as it is then,
// so that the page need not work out what undoing left.
func (a *API) undoAct(ctx context.Context, in *undoInput) (*takeOutput, error) {
	t, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err != nil {
		return nil, err
	}
	voice, err := a.Store.TakeBackAct(ctx, t.ID, in.Act, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	if voice != "" {
		if err := a.Recordings.Delete(ctx, voice); err != nil {
			return nil, err
		}
	}
	return a.showTake(ctx, &in.TakePath)
}

// phrasePath is a phrase of the director's own; phrases are not the class's, since
// words are personal.
type phrasePath struct {
	Phrase string `path:"phrase" format:"uuid"`
}

// dropPhrase forgets a phrase. Comments that were made from it keep their words.
func (a *API) dropPhrase(ctx context.Context, in *phrasePath) (*struct{}, error) {
	return nil, a.Store.DropPhrase(ctx, in.Phrase, a.who(ctx).Subject)
}
