package api

import (
	"context"
	"errors"
	"net/http"
	"net/mail"
	"strings"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/server/classcode"
	"earlychorus/server/growth"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// PassView is somebody who comes in without an account.
type PassView struct {
	ID     string     `json:"id"`
	Role   store.Role `json:"role" enum:"assistant,substitute,family"`
	Name   string     `json:"name" doc:"whose it is"`
	Player string     `json:"player,omitempty" doc:"a family's child"`
	Hears  bool       `json:"hears" doc:"recordings of the class, too"`
	Until  string     `json:"until" format:"date" doc:"its last day"`
	Email  string     `json:"email,omitempty" doc:"where a letter about each week goes"`
}

// ClassPasses is who comes into a class by a pass, and a new one's words, once.
type ClassPasses struct {
	Passes []PassView `json:"passes" nullable:"false"`
	Code   string     `json:"code,omitempty" doc:"of the pass that was just made: shown this once"`
	Link   string     `json:"link,omitempty" doc:"the same, to be opened"`
	For    string     `json:"for,omitempty"`
}

type passesOutput struct{ Body ClassPasses }

// listPasses says who comes in by a pass.
func (a *API) listPasses(ctx context.Context, in *ClassPath) (*passesOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	return a.passesOf(ctx, class)
}

func (a *API) passesOf(ctx context.Context, class store.Class) (*passesOutput, error) {
	passes, err := a.Store.PassesOf(ctx, class.ID, a.Now())
	out := &passesOutput{ClassPasses{Passes: []PassView{}}}
	for _, p := range passes {
		v := PassView{
			ID:    p.ID,
			Role:  p.Role,
			Name:  p.Name,
			Hears: p.Hears,
			Until: p.LastDay.Format(time.DateOnly),
			Email: p.Email,
		}
		if p.Player != nil {
			v.Player = p.Player.FullName()
		}
		out.Body.Passes = append(out.Body.Passes, v)
	}
	return out, err
}

// newPassInput lets somebody in until a day.
type newPassInput struct {
	ClassPath
	Body struct {
		Role   store.Role `json:"role" enum:"assistant,substitute,family"`
		Name   string     `json:"name" minLength:"1" maxLength:"80"`
		Player string     `json:"player,omitempty" doc:"a family's child"`
		Hears  bool       `json:"hears,omitempty" doc:"a substitute hears recordings, too; an assistant always does"`
		Until  string     `json:"until" format:"date" doc:"the last day it lets in"`
		Email  string     `json:"email,omitempty" maxLength:"200" doc:"a family's, for a letter about each week"`
	}
}

// longestPass is a school year and its holidays.
const longestPass = 400 // days

// addPass makes a pass. Its words are answered once, and kept nowhere.
func (a *API) addPass(ctx context.Context, in *newPassInput) (*passesOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	p, err := a.passAsked(ctx, class, in)
	if err != nil {
		return nil, err
	}
	there, err := a.passesOf(ctx, class)
	if err != nil {
		return nil, err
	}
	if len(there.Body.Passes) >= store.MostPasses {
		return nil, problem.Of(problem.Conflict, "The class has 600 passes. End some of them first.", nil)
	}
	code := classcode.New()
	if err := a.Store.AddPass(ctx, p, classcode.Key(code)); err != nil {
		return nil, err
	}
	out, err := a.passesOf(ctx, class)
	if err != nil {
		return nil, err
	}
	out.Body.Code, out.Body.For = code, p.Name
	// Behind the #, which no server's log sees.
	out.Body.Link = fromOf(ctx).site + "/pass#" + code
	return out, nil
}

// passAsked checks what a new pass is to be.
func (a *API) passAsked(ctx context.Context, class store.Class, in *newPassInput) (store.Pass, error) {
	by, today := a.who(ctx).Subject, class.Day(a.Now())
	p := store.Pass{
		ID:      store.NewID(),
		Role:    in.Body.Role,
		ClassID: class.ID,
		Name:    strings.TrimSpace(in.Body.Name),
		Hears:   in.Body.Role == store.RoleAssistant || in.Body.Role == store.RoleSubstitute && in.Body.Hears,
		MadeBy:  &by,
		MadeAt:  a.Now().UTC(),
	}
	if p.Name == "" {
		return p, problem.Input("name", "say whose pass it is")
	}
	var err error
	if p.LastDay, err = time.Parse(time.DateOnly, in.Body.Until); err != nil {
		return p, problem.Input("until", "choose its last day")
	}
	if p.LastDay.Before(today) || p.LastDay.After(today.AddDate(0, 0, longestPass)) {
		return p, problem.Input("until", "choose a day from today on, within a school year")
	}
	p.EndsAt = class.Ends(p.LastDay).UTC()
	if in.Body.Role == store.RoleFamily {
		player, err := a.Store.PlayerOfClass(ctx, class.ID, in.Body.Player)
		if errors.Is(err, store.ErrNotFound) {
			return p, problem.Input("player", "choose a player of the class")
		} else if err != nil {
			return p, err
		}
		p.PlayerID = &player.ID
		p.Email = store.EmailKey(in.Body.Email)
		if _, err := mail.ParseAddress(p.Email); p.Email != "" && err != nil {
			return p, problem.Input("email", "write an address such as home@quillmarsh.example, or leave it empty")
		}
	}
	return p, nil
}

type passPath struct {
	ClassPath
	Pass string `path:"pass" format:"uuid"`
}

// endPass ends a pass; whoever is signed in by it is out at once.
func (a *API) endPass(ctx context.Context, in *passPath) (*passesOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.EndPass(ctx, class.ID, in.Pass)
	}
	if err != nil {
		return nil, err
	}
	return a.passesOf(ctx, class)
}

type passSignIn struct {
	Body struct {
		Code   string `json:"code" maxLength:"60"`
		Shared bool   `json:"shared,omitempty" doc:"others use this device too: it signs out by itself"`
	}
}

// signInByPass lets an assistant, a substitute or a family in. Wrong codes are counted like
// those of classes.
func (a *API) signInByPass(ctx context.Context, in *passSignIn) (*meOutput, error) {
	try, wait, err := a.guard().Code(ctx, addressOf(ctx), a.Now())
	if err != nil {
		return nil, err
	}
	if wait > 0 {
		return nil, tooEarly(ctx, wait)
	}
	p, err := a.Store.PassByCode(ctx, classcode.Key(in.Body.Code))
	if errors.Is(err, store.ErrNotFound) {
		return nil, problem.Of(
			problem.Missing,
			"No pass has this code, or it has ended. Ask the director for a new one.",
			nil,
		)
	}
	if err != nil {
		return nil, err
	}
	if err := a.letIn(ctx, try, store.Asker{Role: p.Role, Subject: p.ID}, in.Body.Shared); err != nil {
		return nil, err
	}
	return &meOutput{meOfPass(p)}, nil
}

// meOfPass is whoever came in by a pass, as the page knows them.
func meOfPass(p store.Pass) Me {
	out := Me{
		Role:    string(p.Role),
		Name:    p.Name,
		Class:   p.Class.Name,
		ID:      p.ID,
		ClassID: p.ClassID,
		Hears:   p.Hears,
	}
	if p.PlayerID != nil {
		out.PlayerID = *p.PlayerID
	}
	return out
}

type followInput struct {
	Player string `path:"player" format:"uuid"`
	Weeks  int    `query:"weeks" minimum:"1" maximum:"60" default:"12"`
}

// followPlayer shows a family how its child has grown, and what was said: no take, and no
// other child.
func (a *API) followPlayer(ctx context.Context, in *followInput) (*growthOutput, error) {
	p, err := a.Store.PlayerFor(ctx, a.who(ctx), in.Player)
	if err != nil {
		return nil, err
	}
	page, err := growth.Of(ctx, a.Store, p.Class, p.ID, in.Weeks, p.Class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	page.Class.Code = "" // it would show the names of all
	return &growthOutput{page}, nil
}

// printFollowed answers the page for home to the home itself.
func (a *API) printFollowed(w http.ResponseWriter, r *http.Request) error {
	p, err := a.Store.PlayerFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "player"))
	if err != nil {
		return err
	}
	return a.serveReport(w, r, p.Class, p.ID)
}
