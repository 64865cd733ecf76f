package api

import (
	"context"

	"earlychorus/server/growth"
)

// growthInput looks twelve weeks back unless told otherwise: about a school term.
type growthInput struct {
	ClassPath
	Player string `path:"player" format:"uuid"`
	Weeks  int    `query:"weeks" minimum:"1" maximum:"53" default:"12"`
}

// growthOutput is one player's growth against their own past and nobody else's.
type growthOutput struct{ Body growth.GrowthView }

// showGrowth is for whoever may see the class. The joining is done in package
// growth, which is tested without a server.
func (a *API) showGrowth(ctx context.Context, in *growthInput) (*growthOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	// Days are the school's: a take of eleven at night belongs to its own evening, wherever
	// the server stands.
	page, err := growth.Of(ctx, a.Store, class, in.Player, in.Weeks, class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	return &growthOutput{page}, nil
}

// sectionInput names the section as the class does; it is not a key, and goes
// through the address escaped.
type sectionInput struct {
	ClassPath
	Section string `path:"section"`
	Days    int    `query:"days" minimum:"1" maximum:"370" default:"14"`
}

// sectionOutput counts notes, not players: what the section cannot play yet, and who
// stands on which rung.
type sectionOutput struct{ Body growth.SectionView }

// sectionToneOutput is how each player's tone went, against the player's own.
type sectionToneOutput struct{ Body growth.SectionTone }

// sectionToneInput names the section as the class does.
type sectionToneInput struct {
	ClassPath
	Section string `path:"section"`
}

// showSectionTone is asked for beside the section, which does not wait for it.
func (a *API) showSectionTone(ctx context.Context, in *sectionToneInput) (*sectionToneOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	page, err := growth.ToneOfSection(ctx, a.Store, class, in.Section, class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	return &sectionToneOutput{page}, nil
}

// showSection counts the takes of the last days, today's included.
func (a *API) showSection(ctx context.Context, in *sectionInput) (*sectionOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	page, err := growth.SectionOf(ctx, a.Store, class, in.Section, in.Days, class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	return &sectionOutput{page}, nil
}
