package exercise

import (
	"strings"

	"earlychorus/core/fmt"
)

// catalogue lists the kinds in the order a warm-up goes. A new kind is a file of
// its own and a line here.
var catalogue = []*Kind{
	&setUp, &assembly,
	&breathPattern, &airMeter, &airOff,
	&airThenBuzz, &buzzAtOnce, &highLowBuzz, &buzzSlide, &buzzTarget, &tubeScale,
	&tuningNote, &longToneCounted, &longToneLongest, &longToneChain, &swell, &startsAndEnds, &airPulses,
	&registerPair, &slurPartials, &overtones, &wideLeap, &ladderRung,
	&newNote, &neighbourReturn, &fiveNoteWalk, &growingWalk, &rhythmOnANote, &scale, &chromaticLoop,
	&singFirst, &echo, &excerpt, &makeATune,
	&care,
}

// Catalogue lists the kinds.
func Catalogue() []*Kind { return append([]*Kind(nil), catalogue...) }

// UnknownKindError reports a key that no kind has.
type UnknownKindError struct{ Key string }

func (e UnknownKindError) Error() string {
	return fmt.Sprintf(
		"exercise: the catalogue has no kind %q; the kinds are %s",
		e.Key,
		strings.Join(KindKeys(), ", "),
	)
}

// KindKeys lists the kinds' keys.
func KindKeys() []string {
	keys := make([]string, len(catalogue))
	for n, k := range catalogue {
		keys[n] = k.Key
	}
	return keys
}

// Get returns the kind with the given key, or an UnknownKindError.
func Get(key string) (*Kind, error) {
	for _, k := range catalogue {
		if k.Key == key {
			return k, nil
		}
	}
	return nil, UnknownKindError{key}
}

// The kinds that others ask about.
const (
	KindLongToneCounted = "long-tone-counted"
	KindLongToneLongest = "long-tone-longest"
	KindLadder          = "ladder"
	KindTuningNote      = "tuning-note"
	KindMakeATune       = "make-a-tune"
	KindCare            = "care"
	KindNewNote         = "new-note"
)
