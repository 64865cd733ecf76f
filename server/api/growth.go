package api

import (
	"context"

	"earlychorus/server/growth"
)

type growthInput struct {
	ClassPath
	Player string `path:"player" format:"uuid"`
	Weeks  int    `query:"weeks" minimum:"1" maximum:"53" default:"12"`
}

type growthOutput struct{ Body growth.GrowthView }

func (a *API) showGrowth(ctx context.Context, in *growthInput) (*growthOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	page, err := growth.Of(ctx, a.Store, class, in.Player, in.Weeks, class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	return &growthOutput{page}, nil
}

type sectionInput struct {
	ClassPath
	Section string `path:"section"`
	Days    int    `query:"days" minimum:"1" maximum:"370" default:"14"`
}

type sectionOutput struct{ Body growth.SectionView }

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
