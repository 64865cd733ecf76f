package api

import (
	"context"
	"crypto/rand"
	"math/big"

	"earlychorus/server/classcode"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// ClassPath names a class.
type ClassPath struct {
	Class string `path:"class" format:"uuid"`
}

// newClassInput begins a class. With Like it is the next year of another one the
// asker directs; players who are not in Keep stay behind with their takes.
type newClassInput struct {
	Body struct {
		Name   string   `json:"name" minLength:"1" maxLength:"80"`
		Beside string   `json:"beside,omitempty" format:"uuid" doc:"a class of the asker's: the new one is in its school"`
		Like   string   `json:"like,omitempty" doc:"a class whose conventions, and some of whose players, it takes over: the next year of it"`
		Keep   []string `json:"keep" nullable:"false" doc:"players of that class who come along"`
	}
}

// createClass makes a class; the next year of one when it is like another.
func (a *API) createClass(ctx context.Context, in *newClassInput) (*setUpOutput, error) {
	who := a.who(ctx).Subject
	school, err := a.schoolFor(ctx, in.Body.Beside, in.Body.Like)
	if err != nil {
		return nil, err
	}
	class := store.Class{
		ID:           store.NewID(),
		SchoolID:     school,
		Name:         in.Body.Name,
		ClassMinutes: 6,
	}
	if class.Code, err = a.freeCode(ctx); err != nil {
		return nil, err
	}
	var along []store.Player
	// The door is asked for that class too: its conventions are not everybody's.
	if in.Body.Like != "" {
		before, err := a.Store.ClassFor(ctx, a.who(ctx), in.Body.Like)
		if err != nil {
			return nil, err
		}
		// What was agreed with players and parents goes on into the next year.
		class.OwnConventions, class.Tips = before.OwnConventions, before.Tips
		class.ClassMinutes, class.HomeMinutes = before.ClassMinutes, before.HomeMinutes
		class.Remedies, class.KeepDays = before.Remedies, before.KeepDays
		class.KeepVoiceDays, class.KeepMeasuresDays = before.KeepVoiceDays, before.KeepMeasuresDays
		if along, err = a.along(ctx, before, class.ID, in.Body.Keep); err != nil {
			return nil, err
		}
	}
	if err := a.Store.AddClass(ctx, class, who); err != nil {
		return nil, err
	}
	if err := a.Store.SaveRoster(ctx, along, nil); err != nil {
		return nil, err
	}
	for n, p := range along {
		// What a home agreed to goes on with the child.
		if err := a.Store.CopyConsents(ctx, in.Body.Keep[n], p.ID); err != nil {
			return nil, err
		}
	}
	return a.showSetUp(ctx, &ClassPath{class.ID})
}

// schoolFor is the school of a new class: that of the class it stands beside or goes on
// from. Without either it is the asker's only one.
func (a *API) schoolFor(ctx context.Context, beside, like string) (id string, err error) {
	if beside == "" {
		beside = like
	}
	if beside != "" {
		class, err := a.Store.ClassFor(ctx, a.who(ctx), beside)
		return class.SchoolID, err
	}
	schools, err := a.Store.SchoolsOfDirector(ctx, a.who(ctx).Subject)
	if err != nil {
		return "", err
	}
	if len(schools) != 1 {
		return "", problem.Input("beside", "you direct in several schools, or in none: say beside which class")
	}
	return schools[0].ID, nil
}

// along copies players into the next year's class, with their PINs.
func (a *API) along(
	ctx context.Context,
	before store.Class,
	classID string,
	keep []string,
) (out []store.Player, err error) {
	for _, id := range keep {
		p, err := a.Store.PlayerOfClass(ctx, before.ID, id)
		if err != nil {
			return nil, err
		}
		// A player of the new class: takes of the year before stay with the class they were played
		// in.
		p.ID, p.ClassID = store.NewID(), classID
		out = append(out, p)
	}
	return out, nil
}

// freeCode makes a code that no class has.
func (a *API) freeCode(ctx context.Context) (string, error) {
	for {
		code := classcode.New()
		taken, err := a.Store.CodeTaken(ctx, code)
		if err != nil || !taken {
			return code, err
		}
	}
}

// renewCode gives a class a new code, for when the old one is in the wrong hands. Who is
// signed in stays so.
func (a *API) renewCode(ctx context.Context, in *ClassPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	code, err := a.freeCode(ctx)
	if err == nil {
		err = a.Store.SetCode(ctx, class.ID, code)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, in)
}

// randomBelow cannot be foreseen: codes and PINs open doors.
func randomBelow(n int) int {
	v, err := rand.Int(rand.Reader, big.NewInt(int64(n)))
	if err != nil {
		panic(err) // the system has no randomness
	}
	return int(v.Int64())
}

// archiveClass takes a class's code out of use and ends its players' sessions. Nothing is
// deleted, and its director still reads all of it.
func (a *API) archiveClass(ctx context.Context, in *ClassPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := a.Store.ArchiveClass(ctx, class.ID, a.Now().UTC()); err != nil {
		return nil, err
	}
	if err := a.Store.EndSessionsOfClass(ctx, class.ID); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, in)
}

// openClassAgain takes a class out of the archive: its code works again, and everybody who
// was in it signs in as before.
func (a *API) openClassAgain(ctx context.Context, in *ClassPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.OpenClassAgain(ctx, class.ID)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, in)
}
