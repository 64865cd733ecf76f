package intake

import (
	"bufio"
	"bytes"
	"errors"
	"fmt"
	"io"

	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/server/problem"
)

const flacMark = "fLaC"

// asWAV returns a file as WAV: FLAC is unpacked, without loss; anything else is left as it
// is, for WAV's reader to judge. The same FLAC gives the same WAV, so that a file that is
// sent again is the same file.
func asWAV(file io.Reader, longest float64) (io.Reader, error) {
	peeked := bufio.NewReader(file)
	if head, _ := peeked.Peek(len(flacMark)); string(head) != flacMark {
		return peeked, nil
	}
	sound, err := flac.Decode(peeked, longest)
	switch {
	case errors.Is(err, flac.ErrTooLong):
		return nil, problem.Of(
			problem.TooLarge,
			fmt.Sprintf("The recording is longer than %.0f seconds. Record just the step.", longest),
			err,
		)
	case err != nil:
		return nil, problem.Of(
			problem.Unusable, "The FLAC file is damaged or was cut short. Hand it in again. ("+err.Error()+")", err,
		)
	}
	return bytes.NewReader(wav.Encode(sound)), nil
}
