package e2e

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/e2e/browser"
	"earlychorus/e2e/walk"
	"earlychorus/server/store/storetest"
)

// quietSound starts a sound server that plays into nothing, and returns its address.
func quietSound(t *testing.T) string {
	t.Helper()
	folder := t.TempDir()
	socket := filepath.Join(folder, "sound")
	ctx, stop := context.WithCancel(context.Background())
	run := exec.CommandContext(
		ctx,
		"pulseaudio",
		"--daemonize=no",
		"-n",
		"--exit-idle-time=-1",
		"--use-pid-file=no",
		"--load=module-null-sink sink_name=quiet",
		"--load=module-remap-source master=quiet.monitor source_name=mic "+
			"source_properties=device.description=Microphone",
		"--load=module-native-protocol-unix auth-anonymous=1 socket="+socket,
	)
	run.Env = append(os.Environ(), "HOME="+folder, "XDG_RUNTIME_DIR="+folder)
	require.NoError(t, run.Start(), "Debian: apt-get install pulseaudio")
	t.Cleanup(func() {
		stop()
		_ = run.Wait()
	})
	require.Eventually(t, func() bool {
		_, err := os.Stat(socket)
		return err == nil
	}, 20*time.Second, 50*time.Millisecond)
	return "unix:" + socket
}

// steps are taken in a browser, each with its own patience.
func steps(t *testing.T, page walk.Page, steps ...func(context.Context) error) {
	t.Helper()
	if n, err := taken(t.Context(), longestStep, steps); err != nil {
		seen, _ := page.Says(t.Context(), "document.body.innerText")
		t.Fatalf("step %d: %v; the page says:\n%s", n+1, err, seen)
	}
}

// taken takes steps until one fails, and says which.
func taken(ctx context.Context, patience time.Duration, steps []func(context.Context) error) (n int, err error) {
	for n, step := range steps {
		ctx, cancel := context.WithTimeout(ctx, patience)
		err := step(ctx)
		cancel()
		if err != nil {
			return n, err
		}
	}
	return len(steps), nil
}

func see(page walk.Page, words string) func(context.Context) error {
	return func(ctx context.Context) error { return page.See(ctx, words) }
}

func pressIn(page walk.Page, words string) func(context.Context) error {
	return func(ctx context.Context) error { return page.Press(ctx, words) }
}

func until(page walk.Page, expression string) func(context.Context) error {
	return func(ctx context.Context) error { return page.Until(ctx, expression) }
}

// signInWith brings a Firefox to a player's first step.
func signInWith(t *testing.T, page walk.Page, base, code string) {
	t.Helper()
	steps(t, page,
		func(ctx context.Context) error { return page.Size(ctx, 390, 844) },
		func(ctx context.Context) error { return page.Go(ctx, base+"/sign-in") },
		func(ctx context.Context) error { return page.Type(ctx, "Class code", code) },
		pressIn(page, "Find my class"),
		pressIn(page, "Ada T."),
		func(ctx context.Context) error { return page.Type(ctx, "Your PIN", storetest.PIN) },
		pressIn(page, "Start"),
		see(page, "Hold C for 4 beats"),
	)
}

// recording reads the step, lets the microphone's check hear something, and records.
func recording(page walk.Page) []func(context.Context) error {
	return []func(context.Context) error{
		until(page, `document.querySelector('[role=img][aria-label^="The music"] svg')`),
		pressIn(page, "Record"),
		see(page, "Play or sing one note"),
		until(page, browser.Note),
		pastTheCheckIn(page),
		until(page, `document.querySelector('[data-recording]')`),
		until(page, browser.Noted("Play C")),
	}
}

// aPartIn works on a part of the step.
func aPartIn(t *testing.T, page walk.Page) {
	t.Helper()
	steps(t, page,
		pressIn(page, "Again"),
		pressIn(page, "Work on a part of it"),
		pressIn(page, "Fingers only"),
		see(page, "Just this part"),
		pressIn(page, "Which note?"),
		see(page, "Play any note"),
	)
}

// heard waits until free play has named a note.
func heard(page walk.Page) func(context.Context) error {
	return until(page, `document.querySelector('[aria-label="in tune"], [aria-label*="flat"], [aria-label*="sharp"]')`)
}

// recordingFirefox brings a Firefox to its first recording. On a busy machine a Firefox may lock
// itself up as it opens its first sound: its sound client's loop and the one who asks wait
// for each other, and no page of it answers any more. Then another one is opened.
func recordingFirefox(t *testing.T, base, code string) walk.Page {
	t.Helper()
	const most, stuck = 3, 30 * time.Second
	for attempt := 1; ; attempt++ {
		page, err := walk.Firefox(t.Context(), walk.Options{Folder: t.TempDir(), Sound: quietSound(t)})
		require.NoError(t, err)
		signInWith(t, page, base, code)
		n, err := taken(t.Context(), stuck, recording(page))
		if err == nil {
			return page
		}
		seen, silent := page.Says(t.Context(), "document.body.innerText")
		if silent == nil || attempt == most {
			t.Fatalf("recording, step %d: %v; the page says:\n%s", n+1, err, seen)
		}
		t.Logf("Firefox %d answers no more: %v", attempt, err)
	}
}

// The practice page in the other browser that schools have: signed in, told, recorded,
// judged on the device and by the server, looked up, and heard live.
func TestThePracticePageInFirefox(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "FOX")
	base := serve(t, s)
	page := recordingFirefox(t, base, "FOX")
	steps(t, page,
		until(page, `document.querySelector('[data-verdict]')`),
		until(page, `document.querySelector('[data-waiting="0"]')`),
	)
	aPartIn(t, page)
	steps(t, page, pressIn(page, "Start listening"), see(page, "Stop listening"), heard(page))
	takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, b.Class.Day(time.Now()))
	require.NoError(t, err)
	require.Len(t, takes, 1)
	assert.NotEmpty(t, takes[0].DeviceResult, "it was judged on the device, too")
	refused, err := page.Says(t.Context(), `document.querySelectorAll('[role=alert]').length`)
	require.NoError(t, err)
	assert.Equal(t, "0", refused)
}

// The practice page in WebKit, which tablets have: as far as Debian's WebKitGTK goes. Its
// microphone hears silence here, and so does the ear.
func TestThePracticePageInWebKit(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "KIT")
	base := serveSecurely(t, s) // WebKit keeps no secure cookie over http, not even from this machine
	page, err := walk.WebKit(t.Context(), walk.Options{Folder: t.TempDir(), Sound: quietSound(t)})
	require.NoError(t, err)
	signInWith(t, page, base, "KIT")
	steps(t, page, recording(page)...)
	steps(t, page,
		until(page, `document.querySelector('[data-verdict="cant-tell"]')`), // silence
		until(page, `document.querySelector('[data-waiting="0"]')`),
		pressIn(page, "Again"),
		pressIn(page, "No microphone?"),
		pressIn(page, "Steady player"),
		until(page, `document.querySelector('[data-verdict="clean"]')`),
		until(page, `document.querySelector('[data-waiting="0"]')`),
	)
	aPartIn(t, page)
	steps(t, page, pressIn(page, "Let a simulated player play"), heard(page))
	takes, err := s.TakesOfPlayerOn(t.Context(), b.Players[0].ID, b.Class.Day(time.Now()))
	require.NoError(t, err)
	assert.Len(t, takes, 2)
}

// Over http WebKit keeps nobody signed in: it says so, and what to do.
func TestWebKitSaysThatItKeepsNoSignIn(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	storetest.NewBand(t, s, "HTTP")
	page, err := walk.WebKit(t.Context(), walk.Options{Folder: t.TempDir()})
	require.NoError(t, err)
	base := serve(t, s)
	steps(t, page,
		func(ctx context.Context) error { return page.Go(ctx, base+"/sign-in") },
		func(ctx context.Context) error { return page.Type(ctx, "Class code", "HTTP") },
		pressIn(page, "Find my class"),
		pressIn(page, "Ada T."),
		func(ctx context.Context) error { return page.Type(ctx, "Your PIN", storetest.PIN) },
		pressIn(page, "Start"),
		see(page, "did not keep your sign-in"),
	)
}

// A machine without a sound output: the page does not wait for ever, it says what to do,
// and another way goes on.
func TestFirefoxWithoutSoundIsToldWhatToDo(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t)
	storetest.NewBand(t, s, "MUTE")
	base := serve(t, s)
	page, err := walk.Firefox(t.Context(), walk.Options{Folder: t.TempDir()})
	require.NoError(t, err)
	signInWith(t, page, base, "MUTE")
	steps(t, page,
		pressIn(page, "Record"),
		see(page, "The sound does not start"),
		pressIn(page, "No microphone?"),
		pressIn(page, "Steady player"),
		until(page, `document.querySelector('[data-verdict="clean"]')`),
	)
}
