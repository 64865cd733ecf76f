package api

import (
	"context"
	"time"

	"earlychorus/server/jobs"
	"earlychorus/server/store"
)

// DirectorOfClass is somebody who directs a class.
type DirectorOfClass struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	You  bool   `json:"you"`
}

// Invited is somebody who was asked to, and has not answered.
type Invited struct {
	Email string    `json:"email"`
	At    time.Time `json:"at"`
}

// directorsOf lists who directs a class, by name, and who was asked to.
func (a *API) directorsOf(ctx context.Context, class store.Class) ([]DirectorOfClass, []Invited, error) {
	directors, err := a.Store.DirectorsOf(ctx, class.ID)
	if err != nil {
		return nil, nil, err
	}
	out := []DirectorOfClass{}
	for _, d := range directors {
		out = append(out, DirectorOfClass{d.ID, d.Name, d.ID == a.who(ctx).Subject})
	}
	asked, err := a.Store.InvitationsOf(ctx, class.ID)
	invited := []Invited{}
	for _, i := range asked {
		invited = append(invited, Invited{i.Email, i.At})
	}
	return out, invited, err
}

// inviteInput names a colleague by email.
type inviteInput struct {
	ClassPath
	Body struct {
		Email string `json:"email" format:"email" maxLength:"200"`
	}
}

// inviteDirector asks a colleague to direct a class too. The answer is the same whether
// the address has an account or not: that is nobody else's to know.
func (a *API) inviteDirector(ctx context.Context, in *inviteInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := a.Store.Invite(ctx, class.ID, in.Body.Email, a.who(ctx).Subject, a.Now()); err != nil {
		return nil, err
	}
	err = a.write(ctx, jobs.SendLetter{
		Letter:   jobs.LetterInvitation,
		Director: a.who(ctx).Subject,
		Email:    store.EmailKey(in.Body.Email),
		Class:    class.ID,
	})
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

type withdrawInput struct {
	ClassPath
	Email string `query:"email" maxLength:"200" required:"true"`
}

// withdrawInvitation takes an invitation back.
func (a *API) withdrawInvitation(ctx context.Context, in *withdrawInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.TakeBackInvitation(ctx, class.ID, in.Email)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

type directorPath struct {
	ClassPath
	Director string `path:"director" format:"uuid"`
}

// removeDirector ends a director's right to a class, one's own included. The last one
// stays.
func (a *API) removeDirector(ctx context.Context, in *directorPath) (*struct{}, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	return nil, a.Store.RemoveDirector(ctx, class.ID, in.Director)
}

// InvitationView is a class that somebody is asked to direct.
type InvitationView struct {
	Class  string `json:"class" doc:"its number"`
	Name   string `json:"name"`
	School string `json:"school"`
	By     string `json:"by"`
}

type invitationsOutput struct {
	Body struct {
		Invitations []InvitationView `json:"invitations" nullable:"false"`
	}
}

// listInvitations tells a director which classes they are asked to direct.
func (a *API) listInvitations(ctx context.Context, _ *struct{}) (*invitationsOutput, error) {
	asked, err := a.Store.InvitationsTo(ctx, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	out := &invitationsOutput{}
	out.Body.Invitations = []InvitationView{}
	for _, i := range asked {
		out.Body.Invitations = append(out.Body.Invitations, InvitationView{i.ClassID, i.Class, i.School, i.By})
	}
	return out, nil
}

// acceptInvitation lets the asker direct the class.
func (a *API) acceptInvitation(ctx context.Context, in *ClassPath) (*invitationsOutput, error) {
	return a.answerInvitation(ctx, in, true)
}

// declineInvitation leaves the class to others.
func (a *API) declineInvitation(ctx context.Context, in *ClassPath) (*invitationsOutput, error) {
	return a.answerInvitation(ctx, in, false)
}

func (a *API) answerInvitation(ctx context.Context, in *ClassPath, accept bool) (*invitationsOutput, error) {
	if err := a.Store.AnswerInvitation(ctx, in.Class, a.who(ctx).Subject, accept); err != nil {
		return nil, err
	}
	return a.listInvitations(ctx, nil)
}
