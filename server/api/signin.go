package api

import (
	"context"
	"errors"
	"log/slog"
	"sync"
	"time"

	"golang.org/x/crypto/bcrypt"

	"earlychorus/core/instrument"
	"earlychorus/server/guessing"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// Me is who is signed in.
type Me struct {
	Role     string `json:"role" enum:"nobody,director,player,assistant,substitute,family"`
	Name     string `json:"name"`
	Class    string `json:"class" doc:"a player's, or that of a pass"`
	ID       string `json:"id,omitempty" doc:"a player's, or of a pass"`
	ClassID  string `json:"class_id,omitempty" doc:"where an assistant or a substitute goes"`
	PlayerID string `json:"player_id,omitempty" doc:"a family's child"`
	Hears    bool   `json:"hears,omitempty" doc:"recordings are in reach of a pass"`

	Schools []SchoolName `json:"schools,omitempty" doc:"that a director administers"`
}

// SchoolName is a school by its name.
type SchoolName struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// meOutput is who is asking, or nobody.
type meOutput struct{ Body Me }

// showMe answers "nobody" for a session whose director or player is gone, and is no
// error: the page asks it before anybody has signed in.
func (a *API) showMe(ctx context.Context, _ *struct{}) (*meOutput, error) {
	who := a.who(ctx)
	out := &meOutput{Body: Me{Role: "nobody"}}
	switch who.Role {
	case store.RoleDirector:
		d, err := a.Store.Director(ctx, who.Subject)
		if errors.Is(err, store.ErrNotFound) {
			// A session may outlive the person.
			return out, nil // deleted since
		} else if err != nil {
			return nil, err
		}
		return a.meOf(ctx, d)
	case store.RolePlayer:
		p, err := a.Store.Player(ctx, who.Subject)
		if errors.Is(err, store.ErrNotFound) {
			return out, nil
		} else if err != nil {
			return nil, err
		}
		out.Body = meOfPlayer(p)
	case store.RoleAssistant, store.RoleSubstitute, store.RoleFamily:
		p, err := a.Store.Pass(ctx, who.Subject)
		if errors.Is(err, store.ErrNotFound) {
			return out, nil // it has ended
		} else if err != nil {
			return nil, err
		}
		out.Body = meOfPass(p)
	}
	return out, nil
}

// meOfPlayer is a player, with the class, as the page knows them.
func meOfPlayer(p store.Player) Me {
	return Me{
		Role:  "player",
		Name:  p.ShortName(),
		Class: p.Class.Name,
		ID:    p.ID,
	}
}

// meOf is a director as the page knows them.
func (a *API) meOf(ctx context.Context, d store.Director) (*meOutput, error) {
	out := Me{Role: "director", Name: d.Name}
	schools, err := a.Store.SchoolsFor(ctx, store.Asker{Role: store.RoleDirector, Subject: d.ID})
	for _, s := range schools {
		out.Schools = append(out.Schools, SchoolName{s.ID, s.Name})
	}
	return &meOutput{Body: out}, err
}

// signOut destroys the session on the server; forgetting the cookie alone would
// leave it open to whoever copied it.
func (a *API) signOut(ctx context.Context, _ *struct{}) (*struct{}, error) {
	if err := a.sessions.Destroy(ctx); err != nil {
		return nil, err
	}
	return nil, nil
}

// directorSignIn has 72 bytes of password at most: bcrypt reads no more.
type directorSignIn struct {
	Body struct {
		Email    string `json:"email" maxLength:"200"`
		Password string `json:"password" maxLength:"72"`
		Code     string `json:"code,omitempty" maxLength:"10" doc:"of the device, where it is asked for"`
		Shared   bool   `json:"shared,omitempty" doc:"others use this device too: it signs out by itself"`
	}
}

// nobodysHash is compared with when there is no such account, so that the
// answer takes as long. Made when first needed: it is slow on purpose, and the
// command line has no use for it.
var nobodysHash = sync.OnceValue(func() []byte {
	hash, _ := bcrypt.GenerateFromPassword([]byte("nobody"), bcrypt.DefaultCost) // short enough
	return hash
})

// signInDirector says the same for an unknown email as for a wrong password.
func (a *API) signInDirector(ctx context.Context, in *directorSignIn) (*meOutput, error) {
	d, err := a.Store.DirectorByEmail(ctx, in.Body.Email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	var try guessing.Try
	var wait time.Duration
	if d.ID == "" {
		try, wait, err = a.guard().Nobody(ctx, store.EmailKey(in.Body.Email), addressOf(ctx), a.Now())
	} else {
		try, wait, err = a.guard().Director(ctx, d.ID, fromOf(ctx).device, addressOf(ctx), a.Now())
	}
	if err != nil {
		return nil, err
	}
	who := store.Asker{Role: store.RoleDirector, Subject: d.ID}
	if wait > 0 {
		return nil, a.turnedAway(ctx, who, "", tooEarly(ctx, wait))
	}
	right, err := matches(ctx, d.PasswordHash, in.Body.Password)
	if err != nil {
		return nil, err
	}
	if !right {
		return nil, a.turnedAway(
			ctx, who, "", problem.Of(problem.NotSignedIn, "The email or the password is not right.", nil),
		)
	}
	if d.TOTPSecret != "" && in.Body.Code == "" {
		// The password is right, and costs nothing: the page asks for the code, and sends both.
		if err := try.Right(ctx); err != nil {
			return nil, err
		}
		return nil, problem.Input("code", "type the six digits that your device shows now")
	}
	if right, err = a.codeIsRight(ctx, d, in.Body.Code); err != nil {
		return nil, err
	}
	if !right {
		return nil, a.turnedAway(
			ctx, who, "", problem.Input("code", "this is not the code it shows now, or it was used: wait for the next"),
		)
	}
	if err := a.letIn(ctx, try, who, in.Body.Shared); err != nil {
		return nil, err
	}
	return a.meOf(ctx, d)
}

// letIn begins a session for somebody who gave the right secret.
func (a *API) letIn(ctx context.Context, try guessing.Try, who store.Asker, shared bool) error {
	if err := try.Right(ctx); err != nil {
		return err
	}
	return a.begins(ctx, who, shared)
}

// begins begins a session of somebody who showed who they are.
func (a *API) begins(ctx context.Context, who store.Asker, shared bool) error {
	if err := a.remember(ctx, who.Subject); err != nil {
		return err
	}
	if err := a.signIn(ctx, who, shared); err != nil {
		return err
	}
	return a.audit(ctx, store.Audited{Role: who.Role, Subject: &who.Subject, Action: "signed in"})
}

// turnedAway writes down that somebody did not get in, and says why. Who it is to be is
// known where the account is.
func (a *API) turnedAway(ctx context.Context, who store.Asker, classID string, why error) error {
	line := store.Audited{Role: who.Role, Action: "failed to sign in"}
	if who.Subject != "" {
		line.Subject = &who.Subject
	}
	if classID != "" {
		line.ClassID = &classID
	}
	slog.Warn("somebody failed to sign in", "role", string(who.Role), "subject", who.Subject)
	return errors.Join(why, a.audit(ctx, line))
}

// classCode is what stands on the card, as a child types it.
type classCode struct {
	Body struct {
		Code string `json:"code" maxLength:"40"`
	}
}

// Names is what a class code opens: enough to find oneself, no more.
type Names struct {
	Class   string       `json:"class"`
	Players []PickedName `json:"players" nullable:"false"`
}

// PickedName is a player as the sign-in page shows them.
type PickedName struct {
	ID         string `json:"id"`
	Name       string `json:"name" doc:"first name and initial"`
	Instrument string `json:"instrument"`
}

// namesOutput is first names and an initial: enough to find oneself, and no list of
// children.
type namesOutput struct{ Body Names }

// openClass shows a class's names to whoever has its code. Codes that no class has are
// counted.
func (a *API) openClass(ctx context.Context, in *classCode) (*namesOutput, error) {
	class, err := a.Store.ClassByCode(ctx, in.Body.Code)
	if errors.Is(err, store.ErrNotFound) {
		_, wait, counted := a.guard().Code(ctx, addressOf(ctx), a.Now())
		if counted != nil {
			return nil, counted
		}
		if wait > 0 {
			return nil, tooEarly(ctx, wait)
		}
		return nil, problem.Of(problem.Missing, "No class has this code. Look at your card again.", nil)
	} else if err != nil {
		return nil, err
	}
	// The list is not kept by the device: a name that was taken off is gone at once.
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := Names{Class: class.Name, Players: []PickedName{}}
	for _, p := range players {
		i, err := instrument.Get(p.Instrument)
		if err != nil {
			return nil, err
		}
		out.Players = append(out.Players, PickedName{ID: p.ID, Name: p.ShortName(), Instrument: i.Name})
	}
	return &namesOutput{out}, nil
}

// playerSignIn has the class's code again: a player's number alone opens nothing.
type playerSignIn struct {
	Body struct {
		Code     string `json:"code" maxLength:"40"`
		PlayerID string `json:"player_id" format:"uuid"`
		PIN      string `json:"pin" maxLength:"12"`
		Shared   bool   `json:"shared,omitempty" doc:"others use this device too: it signs out by itself"`
	}
}

// signInPlayer says the same whatever was wrong. A number of another class, or of
// somebody who left, is nobody's.
func (a *API) signInPlayer(ctx context.Context, in *playerSignIn) (*meOutput, error) {
	wrong := problem.Of(problem.NotSignedIn, "That PIN is not right. Try again, or ask your director.", nil)
	id := store.ID(in.Body.PlayerID)
	class, err := a.Store.ClassByCode(ctx, in.Body.Code)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	p, err := a.Store.PlayerOfClass(ctx, class.ID, id)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	if err != nil || class.ID == "" || p.PINHash == "" {
		// Numbers cannot be guessed, and the class's names are told to whoever has its code: there
		// is nothing to hide here, and no core to spend.
		_, wait, err := a.guard().Nobody(ctx, "player "+id, addressOf(ctx), a.Now())
		if err != nil {
			return nil, err
		}
		if wait > 0 {
			return nil, tooEarly(ctx, wait)
		}
		return nil, wrong
	}
	who := store.Asker{Role: store.RolePlayer, Subject: p.ID}
	try, wait, err := a.guard().Player(ctx, p, fromOf(ctx).device, addressOf(ctx), a.Now())
	if err != nil {
		return nil, err
	}
	if wait > 0 {
		return nil, a.turnedAway(ctx, who, class.ID, tooEarly(ctx, wait))
	}
	right, err := matches(ctx, p.PINHash, in.Body.PIN)
	if err != nil {
		return nil, err
	}
	if !right {
		return nil, a.turnedAway(ctx, who, class.ID, wrong)
	}
	if err := a.letIn(ctx, try, who, in.Body.Shared); err != nil {
		return nil, err
	}
	p.Class = class
	return &meOutput{meOfPlayer(p)}, nil
}
