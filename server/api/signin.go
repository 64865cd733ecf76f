package api

import (
	"context"
	"errors"
	"sync"

	"golang.org/x/crypto/bcrypt"

	"earlychorus/core/instrument"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// Me is who is signed in.
type Me struct {
	Role  string `json:"role" enum:"nobody,director,player"`
	Name  string `json:"name"`
	Class string `json:"class" doc:"a player's class"`
	ID    string `json:"id,omitempty" doc:"a player's"`
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
		out.Body = Me{Role: "director", Name: d.Name}
	case store.RolePlayer:
		p, err := a.Store.Player(ctx, who.Subject)
		if errors.Is(err, store.ErrNotFound) {
			return out, nil
		} else if err != nil {
			return nil, err
		}
		out.Body = Me{
			Role:  "player",
			Name:  p.ShortName(),
			Class: p.Class.Name,
			ID:    p.ID,
		}
	}
	return out, nil
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
	if !matches(d.PasswordHash, in.Body.Password) {
		return nil, problem.Of(problem.NotSignedIn, "The email or the password is not right.", nil)
	}
	if err := a.signIn(ctx, store.Asker{Role: store.RoleDirector, Subject: d.ID}); err != nil {
		return nil, err
	}
	return &meOutput{Body: Me{Role: "director", Name: d.Name}}, nil
}

// matches takes as long for nobody as for somebody, so that time does not tell which
// emails have accounts.
func matches(hash, secret string) bool {
	if hash == "" {
		_ = bcrypt.CompareHashAndPassword(nobodysHash(), []byte(secret))
		return false
	}
	return bcrypt.CompareHashAndPassword([]byte(hash), []byte(secret)) == nil
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

// openClass shows a class's names to whoever has its code. It is counted, for codes
// can be guessed.
func (a *API) openClass(ctx context.Context, in *classCode) (*namesOutput, error) {
	class, err := a.Store.ClassByCode(ctx, in.Body.Code)
	if errors.Is(err, store.ErrNotFound) {
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
	}
}

// signInPlayer says the same whatever was wrong. Tries are counted for each player
// and for the class.
func (a *API) signInPlayer(ctx context.Context, in *playerSignIn) (*meOutput, error) {
	p, err := a.Store.Player(ctx, in.Body.PlayerID)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	class, err := a.Store.ClassByCode(ctx, in.Body.Code)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	hash := p.PINHash
	// A number of another class is treated as a wrong PIN, and takes as long.
	if class.ID != p.ClassID {
		hash = ""
	}
	if !matches(hash, in.Body.PIN) {
		return nil, problem.Of(problem.NotSignedIn, "That PIN is not right. Try again, or ask your director.", nil)
	}
	if err := a.signIn(ctx, store.Asker{Role: store.RolePlayer, Subject: p.ID}); err != nil {
		return nil, err
	}
	return &meOutput{Body: Me{
		Role:  "player",
		Name:  p.ShortName(),
		Class: class.Name,
		ID:    p.ID,
	}}, nil
}
