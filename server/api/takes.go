package api

import (
	"context"
	"errors"
	"time"

	"earlychorus/core/contour/packed"
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/outcome"
	"earlychorus/core/ribbon"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/server/growth"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// TakeDetail is one take, as its player and its director see it.
type TakeDetail struct {
	ID         string         `json:"id"`
	Player     string         `json:"player"`
	Instrument string         `json:"instrument"`
	Class      string         `json:"class"`
	ClassID    string         `json:"class_id"`
	Day        string         `json:"day" format:"date"`
	ReceivedAt string         `json:"received_at" format:"date-time"`
	Source     string         `json:"source" enum:"microphone,file,simulated"`
	State      view.TakeState `json:"state" enum:"waiting,done,failed"`
	Failure    string         `json:"failure,omitempty"`

	Trial     bool               `json:"trial" doc:"tried out with a simulated player: it counts for nothing"`
	Private   bool               `json:"private" doc:"the home did not agree to have it played to others"`
	SoundGone bool               `json:"sound_gone" doc:"the recording was let go of; what was measured stays"`
	Score     scores.Score       `json:"score"`
	Start     float64            `json:"score_start_s" doc:"where the score's first click lies in the recording"`
	Verdict   *say.Said          `json:"verdict,omitempty"`
	Overruled verdict.Result     `json:"overruled,omitempty" doc:"the director's word; the measured one stays beside it" enum:"clean,nearly,not-yet,cant-tell"`
	Device    verdict.Result     `json:"device_result,omitempty" doc:"what the player's device said at once" enum:"clean,nearly,not-yet,cant-tell"`
	Ribbon    *ribbon.Ribbon     `json:"ribbon,omitempty"`
	Tuning    string             `json:"tuning,omitempty" doc:"of a tuning note: what to move, and how far"`
	Tone      *say.SaidTone      `json:"tone,omitempty" doc:"against the player's own of the weeks before"`
	Recording *ear.Recording     `json:"recording,omitempty"`
	Events    []ear.Event        `json:"events" nullable:"false"`
	Comments  []view.CommentView `json:"comments" nullable:"false"`
}

// TakePath names a take. It is exported because embedded parameters must be.
type TakePath struct {
	Take string `path:"take" format:"uuid"`
}

// takeOutput is a take with everything heard of it.
type takeOutput struct{ Body TakeDetail }

// showTake is for the player, with first name and initial, and for whoever may see
// the class, with the whole name.
func (a *API) showTake(ctx context.Context, in *TakePath) (*takeOutput, error) {
	t, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err != nil {
		return nil, err
	}
	out, err := a.takeDetail(ctx, t, a.who(ctx).May(store.SeeFullNames))
	if err != nil {
		return nil, err
	}
	return &takeOutput{out}, nil
}

// LargeRibbon is how many points the take view's drawing has: about one a
// pixel across a wide screen.
const LargeRibbon = 1200

// takeDetail joins the take, the score it was played from and what the ear heard.
// The score is that of the take's own day, whatever the step asks now.
func (a *API) takeDetail(ctx context.Context, t store.Take, fullName bool) (TakeDetail, error) {
	i, err := instrument.Get(t.Score.Instrument)
	if err != nil {
		return TakeDetail{}, err
	}
	out := TakeDetail{
		ID:         t.ID,
		Player:     t.Player.ShortName(),
		Instrument: i.Name,
		Class:      t.Player.Class.Name,
		ClassID:    t.Player.ClassID,
		Day:        t.Day.Format(time.DateOnly),
		ReceivedAt: t.ReceivedAt.UTC().Format(time.RFC3339),
		Source:     string(t.Source),
		Failure:    t.Failure,
		Trial:      t.Trial,
		SoundGone:  t.SoundGoneAt != nil,
		Score:      t.Score,
		Device:     t.DeviceResult,
		Start:      float64(t.Start()),
		Events:     []ear.Event{},
		Comments:   []view.CommentView{},
	}
	may, err := a.Store.MayOf(ctx, t.PlayerID)
	if err != nil {
		return out, err
	}
	out.Private = !may.Show
	if fullName {
		out.Player = t.Player.FullName()
	}
	comments, err := a.Store.CommentsOf(ctx, t.ID)
	if err != nil {
		return out, err
	}
	for _, c := range comments {
		out.Comments = append(out.Comments, view.CommentOf(c))
	}
	if word, ok, err := a.Store.ReviewOf(ctx, t.ID); err != nil {
		return out, err
	} else if ok {
		out.Overruled = word
	}
	analysis, err := a.Store.AnalysisOf(ctx, t.ID)
	// No analysis is no error: it is still being listened to, or the ear failed and says why.
	out.State = view.StateOf(t.Failure, err == nil)
	if errors.Is(err, store.ErrNotFound) {
		return out, nil
	} else if err != nil {
		return out, err
	}
	tone, err := growth.ToneOf(ctx, a.Store, t)
	if err != nil {
		return out, err
	}
	out.Tone = &tone
	teller := say.For(i, t.Player.Class.Conventions(), t.Player.Class.Tips)
	if a.who(ctx).Subject == t.PlayerID {
		teller = teller.ToPlayer(t.Score, analysis.Verdict)
	}
	return out, out.addAnalysis(analysis, teller)
}

// addAnalysis draws the large ribbon anew from the stored contour.
func (t *TakeDetail) addAnalysis(a store.Analysis, teller say.Teller) error {
	i := teller.Instrument
	c, err := packed.Unpack(a.Contour)
	if err != nil {
		return err
	}
	a.Measured.Contour = c
	// Drawn from the contour each time, at the page's size; what the board shows small is kept
	// ready.
	drawing := ribbon.Draw(a.Measured, t.Score, i, LargeRibbon)
	said := teller.Verdict(a.Verdict)
	t.Ribbon, t.Verdict, t.Recording, t.Events = &drawing, &said, &a.Measured.Recording, a.Measured.Events
	t.Start = float64(a.Measured.Start)
	t.Tuning = outcome.Tuning(a.Measured, t.Score, i)
	return nil
}

// reviewInput is the director's word; "measured" takes it back.
type reviewInput struct {
	TakePath
	Body struct {
		Result verdict.Result `json:"result" enum:"clean,nearly,not-yet,cant-tell,measured" doc:"measured lets the measured verdict stand again"`
	}
}

// overrule sets the director's word over the ear's. Both are kept, so that the
// measured one can stand again.
func (a *API) overrule(ctx context.Context, in *reviewInput) (*takeOutput, error) {
	t, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err != nil {
		return nil, err
	}
	if in.Body.Result == "measured" {
		err = a.Store.TakeBackReview(ctx, t.ID)
	} else {
		err = a.Store.Overrule(ctx, store.Review{
			ID:         store.NewID(),
			TakeID:     t.ID,
			DirectorID: a.who(ctx).Subject,
			Result:     in.Body.Result,
			ReviewedAt: a.Now().UTC(),
		})
	}
	if err != nil {
		return nil, err
	}
	return a.showTake(ctx, &in.TakePath)
}
