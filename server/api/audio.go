package api

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"io"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/audio/wav"
	"earlychorus/core/contour/packed"
	"earlychorus/core/music"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/problem"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// uploadTake accepts a WAV file: PUT /takes/{uuid}?step=&version=&source=&start_ms=.
// 201 the first time, 200 for the same bytes again.
func (a *API) uploadTake(w http.ResponseWriter, r *http.Request) error {
	upload, err := a.uploadFrom(r)
	if err != nil {
		return err
	}
	accepted, err := a.Intake.File(r.Context(), upload, r.Body)
	if err != nil {
		return err
	}
	answerTake(w, upload.ID, accepted)
	return nil
}

const (
	latestStart = 60_000 // ms
	mostTempo   = 400
	mostRepeats = 1000
	// longestThrough is letters of a microphone's opaque name.
	longestThrough = 32
)

// uploadFrom reads who played, when and on what step from the address; the body is
// the recording alone. A client whose clock is wrong says how long ago it was
// played, and the server's clock says when that was.
func (a *API) uploadFrom(r *http.Request) (intake.Upload, error) {
	player, err := a.Store.Oneself(r.Context(), a.who(r.Context()))
	if err != nil {
		return intake.Upload{}, err
	}
	q := r.URL.Query()
	h := intake.Upload{
		ID:     store.ID(chi.URLParam(r, "take")),
		Player: player,
		StepID: store.ID(q.Get("step")),
		Source: store.Source(q.Get("source")),
		At:     a.Now(),
	}
	if !store.IsID(h.ID) || !store.IsID(h.StepID) {
		return h, problem.Input("take", "number takes and steps with UUIDs")
	}
	if !slices.Contains([]store.Source{store.Microphone, store.File, store.Simulated}, h.Source) {
		return h, problem.Input("source", "say microphone, file or simulated")
	}
	if h.StepVersion, err = strconv.Atoi(q.Get("version")); err != nil {
		return h, problem.Input("version", "say which version of the step was played")
	}
	if h.StartMS, err = wholeIn(
		q,
		"start_ms",
		-latestStart,
		latestStart,
		"say in whole milliseconds where the first click lies",
	); err != nil {
		return h, err
	}
	err = a.asRecorded(&h, q)
	return h, err
}

// asRecorded reads how things stood when a take was recorded, which may be days
// before it is handed in: on which rung, at what tempo, against which best, and
// what the device said of it.
func (a *API) asRecorded(h *intake.Upload, q url.Values) error {
	ago, err := wholeIn(q, "ago_ms", 0, math.MaxInt32*1000, "say in whole milliseconds how long ago it was recorded")
	if err != nil {
		return err
	}
	// By our clock and the device's counting: a tablet that thinks it is 1970 is common.
	h.PlayedAt = intake.Credible(h.Player.Class, h.At, time.Duration(ago)*time.Millisecond)
	if h.Rung, err = wholeIn(q, "rung", 0, 100, "say which rung was played"); err != nil {
		return err
	}
	if h.Repeat, err = wholeIn(q, "repeat", 0, mostRepeats, "say how often it was played before"); err != nil {
		return err
	}
	tempo, err := wholeIn(q, "tempo", 0, mostTempo, "say at what tempo it was played, in beats a minute")
	if err != nil {
		return err
	}
	h.Tempo = music.Tempo(tempo)
	best, err := wholeIn(q, "best_ms", 0, 1000*intake.LongestSeconds, "say in whole milliseconds what the best was")
	if err != nil {
		return err
	}
	h.Best = music.Seconds(best) / 1000
	// Only told apart, never read: longer is no name that a device of ours makes.
	if h.Through = q.Get("through"); len(h.Through) > longestThrough {
		return problem.Input("through", "name the microphone in at most 32 letters")
	}
	h.DeviceResult = verdict.Result(q.Get("heard"))
	if known := []verdict.Result{
		"",
		verdict.Clean,
		verdict.Nearly,
		verdict.NotYet,
		verdict.CantTell,
	}; !slices.Contains(
		known,
		h.DeviceResult,
	) {
		return problem.Input("heard", "say clean, nearly, not-yet or cant-tell")
	}
	return nil
}

// wholeIn reads a whole number that may be left out, within bounds.
func wholeIn(q url.Values, name string, least, most int, remedy string) (int, error) {
	// Left out is nought, which every one of these takes for "not known".
	if !q.Has(name) {
		return 0, nil
	}
	v, err := strconv.Atoi(q.Get(name))
	if err != nil || v < least || v > most {
		return 0, problem.Input(name, remedy)
	}
	return v, nil
}

// playTake answers a take's sound as WAV, in parts when asked, so that a
// player can seek.
func (a *API) playTake(w http.ResponseWriter, r *http.Request) error {
	t, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "take"))
	if err != nil {
		return err
	}
	return a.serveSound(w, r, t.Sound, t.SoundGoneAt, t.ReceivedAt)
}

// gone says that a sound was let go of, which is no error of anybody's.
func gone(at *time.Time) error {
	if at == nil {
		return nil
	}
	return problem.Of(
		problem.Gone,
		"This recording was let go of on "+at.Format("2 January 2006")+". What was measured is still here.",
		nil,
	)
}

// serveSound answers a sound as WAV, which every browser plays; FLAC would halve it and
// is not played everywhere.
func (a *API) serveSound(w http.ResponseWriter, r *http.Request, name string, goneAt *time.Time, from time.Time) error {
	if err := gone(goneAt); err != nil {
		return err
	}
	if recordings.IsPacked(name) {
		sound, err := a.Recordings.Get(r.Context(), name)
		if err != nil {
			return err
		}
		serveWAV(w, r, bytes.NewReader(wav.Encode(sound)), from)
		return nil
	}
	file, err := a.Recordings.Open(r.Context(), name)
	if err != nil {
		return err
	}
	defer file.Close() //nolint:errcheck // read only
	serveWAV(w, r, file, from)
	return nil
}

// serveWAV lets the browser ask for parts: a seek in a long take must not fetch all
// of it.
func serveWAV(w http.ResponseWriter, r *http.Request, file io.ReadSeeker, changed time.Time) {
	w.Header().Set("Content-Type", "audio/wav")
	http.ServeContent(w, r, "take.wav", changed, file)
}

// downloadTake gives the recording as it is kept, lossless, whoever asks: it is FLAC
// of the samples the ear heard.
func (a *API) downloadTake(w http.ResponseWriter, r *http.Request) error {
	t, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "take"))
	if err != nil {
		return err
	}
	if err := gone(t.SoundGoneAt); err != nil {
		return err
	}
	file, err := a.Recordings.FLAC(r.Context(), t.Sound)
	if err != nil {
		return err
	}
	attach(w, "audio/flac", t.ID+".flac")
	_, _ = w.Write(file) // the asker may be gone
	return nil
}

// attach makes the browser save what comes in place of showing it. The name is
// quoted, for classes have spaces in theirs.
func attach(w http.ResponseWriter, mime, name string) {
	w.Header().Set("Content-Type", mime)
	w.Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name))
}

// downloadContour gives what the ear heard frame by frame, as CSV: the numbers
// behind a verdict, to be doubted with other tools.
func (a *API) downloadContour(w http.ResponseWriter, r *http.Request) error {
	t, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "take"))
	if err != nil {
		return err
	}
	analysis, err := a.Store.AnalysisOf(r.Context(), t.ID)
	if err != nil {
		return err
	}
	c, err := packed.Unpack(analysis.Contour)
	if err != nil {
		return err
	}
	attach(w, "text/csv", t.ID+".csv")
	out := csv.NewWriter(w)
	_ = out.WriteAll(c.Rows())
	return nil
}
