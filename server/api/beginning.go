package api

import (
	"context"
	"errors"
	"strings"
	"time"

	"earlychorus/server/classcode"
	"earlychorus/server/password"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// Beginning says whether a school has still to be set up here.
type Beginning struct {
	Needed bool `json:"needed" doc:"there is no school yet: whoever started the program has a code for it"`
	Mail   bool `json:"mail" doc:"who forgot a password is sent a letter"`

	SignOn []SchoolName `json:"sign_on" nullable:"false" doc:"schools whose people sign in with the accounts they have"`
}

type beginningOutput struct{ Body Beginning }

// showBeginning tells the sign-in page that nobody can sign in yet.
func (a *API) showBeginning(ctx context.Context, _ *struct{}) (*beginningOutput, error) {
	needed, err := a.Store.NoSchoolYet(ctx)
	if err != nil {
		return nil, err
	}
	schools, err := a.Store.SignOns(ctx)
	out := &beginningOutput{Beginning{Needed: needed, Mail: a.Mail, SignOn: []SchoolName{}}}
	for _, s := range schools {
		out.Body.SignOn = append(out.Body.SignOn, SchoolName{s.ID, s.Name})
	}
	return out, err
}

// beginInput sets the first school up, and its administrator.
type beginInput struct {
	Body struct {
		Code     string `json:"code" maxLength:"60" doc:"the one-time code that the program printed when it started"`
		School   string `json:"school" minLength:"1" maxLength:"100"`
		TimeZone string `json:"time_zone" maxLength:"60" doc:"such as Europe/Lisbon: decides what today is"`
		Name     string `json:"name" minLength:"1" maxLength:"80" doc:"the administrator's"`
		Email    string `json:"email" format:"email" maxLength:"200"`
		Password string `json:"password" maxLength:"200"`
	}
}

// beginSchool makes the first school for whoever has the code, and signs its administrator
// in. Wrong codes cost growing waits, and nothing else is looked at before the code.
func (a *API) beginSchool(ctx context.Context, in *beginInput) (*meOutput, error) {
	if err := a.mayBegin(ctx, in.Body.Code); err != nil {
		return nil, err
	}
	school, admin, err := in.people()
	if err != nil {
		return nil, err
	}
	if err := a.Store.BeginSchool(ctx, classcode.Key(in.Body.Code), school, admin); err != nil {
		return nil, err
	}
	who := store.Asker{Role: store.RoleDirector, Subject: admin.ID}
	if err := a.begins(ctx, who, false); err != nil {
		return nil, err
	}
	return a.meOf(ctx, admin)
}

// mayBegin counts a try at the code. A right one is given back at once: whoever has it may
// mistype the rest.
func (a *API) mayBegin(ctx context.Context, code string) error {
	try, wait, err := a.guard().Code(ctx, addressOf(ctx), a.Now())
	if err != nil {
		return err
	}
	if wait > 0 {
		return tooEarly(ctx, wait)
	}
	err = a.Store.MayBegin(ctx, classcode.Key(code))
	if errors.Is(err, store.ErrNotFound) {
		return problem.Input("code", "this is not the code that the program printed when it started last")
	}
	if err != nil {
		return err
	}
	return try.Right(ctx)
}

// people reads the school and its administrator.
func (in *beginInput) people() (school store.School, admin store.Director, err error) {
	b := in.Body
	school = store.School{ID: store.NewID(), Name: strings.TrimSpace(b.School), TimeZone: b.TimeZone}
	if err := checkSchool(school); err != nil {
		return school, admin, err
	}
	admin = store.Director{ID: store.NewID(), Name: strings.TrimSpace(b.Name), Email: store.EmailKey(b.Email)}
	if admin.Name == "" {
		return school, admin, problem.Input("name", "say your name, as players and families know you")
	}
	if err := password.Check(b.Password, admin.Name, admin.Email, school.Name); err != nil {
		return school, admin, err
	}
	admin.PasswordHash, err = password.Hash(b.Password)
	return school, admin, err
}

// checkSchool refuses a school without a name or in no known time zone.
func checkSchool(s store.School) error {
	if s.Name == "" {
		return problem.Input("school", "say the school's name")
	}
	if _, err := time.LoadLocation(s.TimeZone); err != nil || s.TimeZone == "" || s.TimeZone == "Local" {
		return problem.Input("time_zone", "choose a time zone such as Europe/Lisbon")
	}
	return nil
}

// newPasswordInput changes one's own password; the old one again keeps a borrowed screen
// from it.
type newPasswordInput struct {
	Body struct {
		Now      string `json:"now" maxLength:"72"`
		Password string `json:"password" maxLength:"200"`
	}
}

// ownerBy is the asker, who gave the password once more: a borrowed screen must not change how
// its owner signs in. Wrong ones cost waits as at the door.
func (a *API) ownerBy(ctx context.Context, word string) (store.Director, error) {
	d, err := a.Store.Director(ctx, a.who(ctx).Subject)
	if err != nil {
		return d, err
	}
	try, wait, err := a.guard().Director(ctx, d.ID, fromOf(ctx).device, addressOf(ctx), a.Now())
	if err != nil {
		return d, err
	}
	if wait > 0 {
		return d, tooEarly(ctx, wait)
	}
	right, err := matches(ctx, d.PasswordHash, word)
	if err != nil {
		return d, err
	}
	if !right {
		return d, problem.Input("now", "this is not your password as it is now")
	}
	return d, try.Right(ctx)
}

// changePassword gives the asker another password, and ends every other session of theirs.
func (a *API) changePassword(ctx context.Context, in *newPasswordInput) (*struct{}, error) {
	who := a.who(ctx)
	d, err := a.ownerBy(ctx, in.Body.Now)
	if err != nil {
		return nil, err
	}
	if err := password.Check(in.Body.Password, d.Name, d.Email); err != nil {
		return nil, err
	}
	hash, err := password.Hash(in.Body.Password)
	if err != nil {
		return nil, err
	}
	if err := a.Store.SetPassword(ctx, d.ID, hash); err != nil {
		return nil, err
	}
	if _, err := a.endOtherSessions(ctx, nil); err != nil {
		return nil, err
	}
	return nil, a.audit(ctx, store.Audited{Role: who.Role, Subject: &who.Subject, Action: "changed their password"})
}
