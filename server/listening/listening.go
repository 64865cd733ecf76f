// Package listening is a director's minutes with a class: whom to hear, and what is
// shown of it.
package listening

import (
	"context"
	"errors"
	"time"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/progress"
	"earlychorus/core/ribbon"
	"earlychorus/core/say"
	"earlychorus/core/verdict"
	"earlychorus/server/schooldays"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// ListeningView is a director's minutes with a class.
type ListeningView struct {
	Class    view.ClassName   `json:"class"`
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
	Name       string                   `json:"name"`
	Instrument string                   `json:"instrument"`
	Title      string                   `json:"title"`
	Day        string                   `json:"day" format:"date"`
	Start      float64                  `json:"score_start_s"`
	Verdict    say.Said                 `json:"verdict"`
	Word       verdict.Result           `json:"word,omitempty" enum:"clean,nearly,not-yet,cant-tell" doc:"the director's, once there is one"`
	Ribbon     view.Kept[ribbon.Ribbon] `json:"ribbon"`
	Comments   []view.CommentView       `json:"comments" nullable:"false"`
	HasSound   bool                     `json:"has_sound"`
}

// PhraseView is one of a director's own phrases.
type PhraseView struct {
	ID    string `json:"id"`
	Words string `json:"words"`
}

// back is how many days back takes are still worth hearing.
const back = 4

// Ask is a director who has some minutes for a class.
type Ask struct {
	Director string // id
	Class    store.Class
	Minutes  int
	Afresh   bool // choose anew, even when a listening of today is under way
}

// Of goes on with the day's listening, or chooses what to hear.
func Of(ctx context.Context, s *store.Store, ask Ask, now time.Time) (ListeningView, error) {
	day := ask.Class.Day(now)
	kept, err := s.ListeningOf(ctx, ask.Director, ask.Class.ID, day)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return ListeningView{}, err
	}
	// What was chosen this morning stays chosen until the director asks again.
	if ask.Afresh || err != nil {
		if kept, err = chosen(ctx, s, ask, day); err != nil {
			return ListeningView{}, err
		}
	}
	return viewOf(ctx, s, ask.Class, kept)
}

// chosen weighs what was played and nobody has listened to, and keeps the choice.
func chosen(ctx context.Context, s *store.Store, ask Ask, day time.Time) (store.Listening, error) {
	out := store.Listening{
		DirectorID: ask.Director,
		ClassID:    ask.Class.ID,
		Day:        day,
		Minutes:    ask.Minutes,
	}
	takes, err := s.TakesToHear(ctx, ask.Class.ID, day.AddDate(0, 0, -back), day)
	if err != nil {
		return out, err
	}
	stuck, err := s.StuckPlayers(ctx, ask.Class)
	if err != nil {
		return out, err
	}
	// A player may be stuck on one ladder and well on another.
	tries := map[rung]int{}
	for _, p := range stuck {
		tries[rung{p.PlayerID, p.Ladder}] = p.Tries // there, be it 0
	}
	// The class's own weights in place of ours, where there are any.
	weights := progress.StandardWeights().With(ask.Class.Weights)
	candidates := candidatesOf(ask.Class, takes, tries, day)
	out.Excerpts = progress.ListenIn(candidates, music.Seconds(60*ask.Minutes), weights)
	// Said to the director: what could not be heard is not hidden.
	out.LeftOver = progress.WithReason(candidates, weights) - len(out.Excerpts)
	return out, s.SaveListening(ctx, out)
}

// rung is a player on a ladder.
type rung struct{ player, ladder string }

// wordsOf says what decided a take.
func wordsOf(class store.Class, t store.ToHear) string {
	teller, err := view.TellerOf(class, t.Instrument)
	if err != nil {
		return t.Short // an instrument of a newer program: what was kept in words
	}
	return view.Short(teller, t.Conclusion, t.Short)
}

// candidatesOf puts what happened lately into the core's words; which of it is worth
// a director's minutes the core says.
func candidatesOf(class store.Class, takes []store.ToHear, stuck map[rung]int, day time.Time) []progress.Candidate {
	flagged := flaggedTakes(takes)
	out := make([]progress.Candidate, 0, len(takes))
	for _, t := range takes {
		tries, isStuck := stuck[rung{t.PlayerID, t.Ladder}]
		c := progress.Candidate{
			Take:        t.TakeID,
			Player:      t.PlayerID,
			Step:        t.StepID,
			Result:      t.Result,
			Words:       wordsOf(class, t),
			Cut:         t.Cut(),
			FirstClean:  t.FirstClean,
			WasClean:    t.WasClean,
			DaysUnheard: schooldays.Between(t.UnheardSince(), day),
			Stuck:       isStuck,
			StuckTries:  tries,
		}
		if flagged[t.PlayerID] == t.TakeID {
			c.Flag, c.FlagWords = progress.Pain, t.FlagWords
			// Pain comes before everything; a question is only a question.
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

// viewOf shows a listening with everything that is shown of its takes.
func viewOf(ctx context.Context, s *store.Store, class store.Class, l store.Listening) (ListeningView, error) {
	out := ListeningView{
		Class:    view.ClassNameOf(class),
		Minutes:  l.Minutes,
		Place:    l.Place,
		Spent:    l.SpentS,
		Left:     l.LeftOver,
		Excerpts: []ExcerptView{},
		Phrases:  []PhraseView{},
		Weights:  progress.StandardWeights().With(class.Weights),
	}
	// With the listening, for the keys that say them have to be there at once.
	phrases, err := s.Phrases(ctx, l.DirectorID)
	if err != nil {
		return out, err
	}
	for _, p := range phrases {
		out.Phrases = append(out.Phrases, PhraseView{p.ID, p.Words})
	}
	shown, err := loadShown(ctx, s, class, l)
	if err != nil {
		return out, err
	}
	for _, e := range l.Excerpts {
		v, there, err := shown.excerpt(e)
		if err != nil {
			return out, err
		}
		if there { // not deleted since
			out.Excerpts = append(out.Excerpts, v)
		}
	}
	return out, nil
}

// shown is what is shown of a listening's takes, asked for at once.
type shown struct {
	class    store.Class
	takes    map[string]store.Take
	judged   map[string]store.Judged
	reviews  map[string]store.Review
	comments []store.Comment
}

// loadShown asks for everything that is shown of the excerpts with one query for
// each kind of it.
func loadShown(
	ctx context.Context, s *store.Store, class store.Class, l store.Listening,
) (out shown, err error) {
	out.class = class
	ids := make([]string, len(l.Excerpts))
	for n, e := range l.Excerpts {
		ids[n] = e.Take
	}
	if out.takes, err = s.TakesByID(ctx, ids); err != nil {
		return out, err
	}
	if out.judged, err = s.JudgedOf(ctx, ids); err != nil {
		return out, err
	}
	if out.reviews, err = s.ReviewsOf(ctx, ids); err != nil {
		return out, err
	}
	out.comments, err = s.CommentsOf(ctx, ids...)
	return out, err
}

// excerpt shows one excerpt; there is false when its take is gone.
func (s shown) excerpt(e progress.Excerpt) (v ExcerptView, there bool, err error) {
	t, known := s.takes[e.Take]
	found, judged := s.judged[e.Take]
	if !known || !judged {
		return v, false, nil
	}
	i, err := instrument.Get(t.Score.Instrument)
	if err != nil {
		return v, false, err
	}
	said, err := view.Said(say.For(i, s.class.Conventions(), s.class.Tips), found.Verdict)
	if err != nil {
		return v, false, err
	}
	v = ExcerptView{
		Excerpt:    e,
		Name:       t.Player.FullName(),
		Instrument: i.Name,
		Title:      t.Score.Title,
		Day:        view.Date(t.Day),
		Start:      found.Start,
		Verdict:    said,
		Word:       s.reviews[e.Take].Result,
		Ribbon:     view.Kept[ribbon.Ribbon](found.Ribbon),
		Comments:   []view.CommentView{},
		HasSound:   t.SoundGoneAt == nil,
	}
	for _, c := range s.comments {
		if c.TakeID == e.Take {
			v.Comments = append(v.Comments, view.CommentOf(c))
		}
	}
	return v, true, nil
}
