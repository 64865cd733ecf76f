package ask

import (
	"earlychorus/core/chart"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
)

// ChartRequest is an instrument as it is built, in a class.
type ChartRequest struct {
	Instrument  string               `json:"instrument"`
	Variant     string               `json:"variant" doc:"how it is built; empty is the usual way"`
	Conventions exercise.Conventions `json:"conventions"`
}

func book(in ChartRequest, _ *Sound) (chart.Chart, error) {
	i, err := instrument.Get(in.Instrument)
	if err != nil {
		return chart.Chart{}, err
	}
	if i, err = i.As(in.Variant); err != nil {
		return chart.Chart{}, err
	}
	return chart.Of(i, in.Conventions), nil
}
