package api

import (
	"context"
	"errors"
	"time"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/progress"
	"earlychorus/core/ribbon"
	"earlychorus/core/verdict"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// ListeningView is a director's minutes with a class.
type ListeningView struct {
	Class    ClassName        `json:"class"`
	Minutes  int              `json:"minutes"`
	Place    int              `json:"place" doc:"which excerpt is next, from 0"`
	Spent    float64          `json:"spent_s"`
	Excerpts []ExcerptView    `json:"excerpts" nullable:"false"`
	Phrases  []PhraseView     `json:"phrases" doc:"the director's own, most used first" nullable:"false"`
	Weights  progress.Weights `json:"weights" doc:"how much each reason counts, the director's own in place of ours"`
	Left     int              `json:"left" doc:"takes with a reason that did not fit into the time"`
}

// ExcerptView is one excerpt with everything that is shown of it.
type ExcerptView struct {
	progress.Excerpt
	Name       string                `json:"name"`
	Instrument string                `json:"instrument"`
	Title      string                `json:"title"`
	Day        string                `json:"day" format:"date"`
	Start      float64               `json:"score_start_s"`
	Verdict    Kept[verdict.Verdict] `json:"verdict"`
	Word       verdict.Result        `json:"word,omitempty" enum:"clean,nearly,not-yet,cant-tell" doc:"the director's, once there is one"`
	Ribbon     Kept[ribbon.Ribbon]   `json:"ribbon"`
	Comments   []CommentView         `json:"comments" nullable:"false"`
	HasSound   bool                  `json:"has_sound"`
}

// PhraseView is one of a director's own phrases.
type PhraseView struct {
	ID    string `json:"id"`
	Words string `json:"words"`
}

// listenBack is how many days back takes are still worth hearing.
const listenBack = 4

type listenInput struct {
	ClassPath
	Minutes int  `query:"minutes" minimum:"1" maximum:"60" default:"5"`
	Afresh  bool `query:"afresh" doc:"choose anew, even when a listening of today is under way"`
}

type listenOutput struct{ Body ListeningView }

// showListening goes on with the day's listening, or chooses what to hear.
func (a *API) showListening(ctx context.Context, in *listenInput) (*listenOutput, error) {
	director := a.who(ctx).Subject
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	day := class.Day(a.Now())
	kept, err := a.Store.ListeningOf(ctx, director, class.ID, day)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	if in.Afresh || err != nil {
		kept = store.Listening{
			DirectorID: director,
			ClassID:    class.ID,
			Day:        day,
			Minutes:    in.Minutes,
		}
		if kept.Excerpts, kept.LeftOver, err = a.chooseToHear(ctx, class, day, in.Minutes); err != nil {
			return nil, err
		}
		if err := a.Store.SaveListening(ctx, kept); err != nil {
			return nil, err
		}
	}
	out, err := a.listeningView(ctx, class, kept)
	if err != nil {
		return nil, err
	}
	return &listenOutput{out}, nil
}

// chooseToHear weighs what was played and nobody has listened to.
func (a *API) chooseToHear(
	ctx context.Context,
	class store.Class,
	day time.Time,
	minutes int,
) ([]progress.Excerpt, int, error) {
	takes, err := a.Store.TakesToHear(ctx, class.ID, day.AddDate(0, 0, -listenBack), day)
	if err != nil {
		return nil, 0, err
	}
	stuck, err := a.Store.StuckPlayers(ctx, class)
	if err != nil {
		return nil, 0, err
	}
	tries := map[rung]int{}
	for _, s := range stuck {
		tries[rung{s.PlayerID, s.Ladder}] = s.Tries // there, be it 0
	}
	weights := progress.StandardWeights().With(class.Weights)
	candidates := candidatesOf(takes, tries, day)
	chosen := progress.ListenIn(candidates, music.Seconds(60*minutes), weights)
	return chosen, progress.WithReason(candidates, weights) - len(chosen), nil
}

// rung is a player on a ladder.
type rung struct{ player, ladder string }

func candidatesOf(takes []store.ToHear, stuck map[rung]int, day time.Time) []progress.Candidate {
	flagged := flaggedTakes(takes)
	out := make([]progress.Candidate, 0, len(takes))
	for _, t := range takes {
		tries, isStuck := stuck[rung{t.PlayerID, t.Ladder}]
		c := progress.Candidate{
			Take:        t.TakeID,
			Player:      t.PlayerID,
			Step:        t.StepID,
			Result:      t.Result,
			Words:       t.Short,
			Cut:         t.Cut(),
			FirstClean:  t.FirstClean,
			WasClean:    t.WasClean,
			DaysUnheard: schoolDays(t.UnheardSince(), day),
			Stuck:       isStuck,
			StuckTries:  tries,
		}
		if flagged[t.PlayerID] == t.TakeID {
			c.Flag, c.FlagWords = progress.Pain, t.FlagWords
			if store.FlagKind(t.Flag) == store.Question {
				c.Flag = progress.Question
			}
		}
		out = append(out, c)
	}
	return out
}

// flaggedTakes says with which take of a player a flag is heard: the one of the step
// it is about, or any.
func flaggedTakes(takes []store.ToHear) map[string]string {
	out := map[string]string{}
	for _, t := range takes {
		if _, there := out[t.PlayerID]; t.Flag != "" && (!there || t.StepID == t.FlagStep) {
			out[t.PlayerID] = t.TakeID
		}
	}
	return out
}

func (a *API) listeningView(ctx context.Context, class store.Class, l store.Listening) (ListeningView, error) {
	out := ListeningView{
		Class:    classNameOf(class),
		Minutes:  l.Minutes,
		Place:    l.Place,
		Spent:    l.SpentS,
		Left:     l.LeftOver,
		Excerpts: []ExcerptView{},
		Phrases:  []PhraseView{},
		Weights:  progress.StandardWeights().With(class.Weights),
	}
	phrases, err := a.Store.Phrases(ctx, l.DirectorID)
	if err != nil {
		return out, err
	}
	for _, p := range phrases {
		out.Phrases = append(out.Phrases, PhraseView{p.ID, p.Words})
	}
	ids := make([]string, len(l.Excerpts))
	for n, e := range l.Excerpts {
		ids[n] = e.Take
	}
	takes, err := a.Store.TakesByID(ctx, ids)
	if err != nil {
		return out, err
	}
	words, err := a.Store.JudgedOf(ctx, ids)
	if err != nil {
		return out, err
	}
	reviews, err := a.Store.ReviewsOf(ctx, ids)
	if err != nil {
		return out, err
	}
	comments, err := a.Store.CommentsOf(ctx, ids...)
	if err != nil {
		return out, err
	}
	for _, e := range l.Excerpts {
		t, known := takes[e.Take]
		found, judged := words[e.Take]
		if !known || !judged {
			continue // deleted since
		}
		i, err := instrument.Get(t.Score.Instrument)
		if err != nil {
			return out, err
		}
		v := ExcerptView{
			Excerpt:    e,
			Name:       t.Player.FullName(),
			Instrument: i.Name,
			Title:      t.Score.Title,
			Day:        t.Day.Format(time.DateOnly),
			Start:      found.Start,
			Verdict:    Kept[verdict.Verdict](found.Verdict),
			Word:       reviews[e.Take].Result,
			Ribbon:     Kept[ribbon.Ribbon](found.Ribbon),
			Comments:   []CommentView{},
			HasSound:   t.SoundGoneAt == nil,
		}
		for _, c := range comments {
			if c.TakeID == e.Take {
				v.Comments = append(v.Comments, commentView(c))
			}
		}
		out.Excerpts = append(out.Excerpts, v)
	}
	return out, nil
}

type placeInput struct {
	ClassPath
	Body struct {
		Place    int     `json:"place" minimum:"0"`
		Spent    float64 `json:"spent_s" minimum:"0"`
		Listened string  `json:"listened,omitempty" doc:"the take that was listened to"`
	}
}

// keepPlace remembers where the listening stands, for every device.
func (a *API) keepPlace(ctx context.Context, in *placeInput) (*struct{}, error) {
	director := a.who(ctx).Subject
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if in.Body.Listened != "" {
		if _, err := a.Store.TakeFor(ctx, a.who(ctx), in.Body.Listened); err != nil {
			return nil, err
		}
	}
	l := store.Listening{
		DirectorID: director,
		ClassID:    class.ID,
		Day:        class.Day(a.Now()),
		Place:      in.Body.Place,
		SpentS:     in.Body.Spent,
	}
	return nil, a.Store.KeepPlace(ctx, l, in.Body.Listened, a.Now().UTC())
}

type weightsInput struct {
	ClassPath
	Body struct {
		Weights progress.Weights `json:"weights"`
	}
}

// weighReasons keeps how much each reason to hear somebody counts in a class.
func (a *API) weighReasons(ctx context.Context, in *weightsInput) (*struct{}, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := in.Body.Weights.Check(); err != nil {
		return nil, problem.Input("weights", err.Error())
	}
	return nil, a.Store.SaveWeights(ctx, class.ID, in.Body.Weights)
}
