package e2e

import (
	"cmp"
	"context"
	"encoding/base64"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/practice"
	"earlychorus/core/synth"
	"earlychorus/e2e/browser"
	"earlychorus/e2e/walk"
	"earlychorus/server/intake"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// microphone is a real one, opened by the page, into which a simulated clarinet plays: it
// hears the first click and begins with it, however long the page took to get there. (A file
// that the browser's own fake microphone plays begins when the microphone is opened. On a
// machine that stood still for a moment then, whoever is in it comes early.)
type microphone struct {
	t    *testing.T
	page context.Context
}

// openMicrophone opens a browser of such a size with a microphone that hears nobody yet.
func openMicrophone(t *testing.T, width, height int) microphone {
	t.Helper()
	page := openPage(t, browser.Options{Width: width, Height: height, Microphone: browser.Beeps})
	m := microphone{t, page}
	m.always(hearsThePlayer)
	return m
}

// leadOn are the buttons that lead from the microphone's check to the take: while it listens,
// for seven seconds, and when it has found something wrong, or nothing.
var leadOn = []string{"Not now", "Record all the same", "Now record"}

// pastTheCheck goes on to the take, however far the check has come meanwhile.
var pastTheCheck = browser.Click(`//button[.="` + strings.Join(leadOn, `" or .="`) + `"]`)

// pastTheCheckByKeys is pastTheCheck by Tab and Enter. The buttons change when the check is over:
// a key that came just then was for one that had gone, and a person presses the next.
func pastTheCheckByKeys(t *testing.T, page context.Context) {
	t.Helper()
	for range 3 {
		press(t, page, strings.Join(leadOn, "|"), enter)
		if says[bool](t, page, checkIsGone) {
			return
		}
	}
	t.Fatal("the microphone's check does not lead on to the take")
}

// checkIsGone gives the page two seconds to close the check, and says whether it did.
const checkIsGone = `new Promise((told) => {
	const until = performance.now() + 2000
	const look = () => {
		const gone = !document.body.innerText.includes('First, the microphone')
		if (gone || performance.now() > until) return told(gone)
		setTimeout(look, 50)
	}
	look()
})`

// pastTheCheckIn is pastTheCheck in another browser.
func pastTheCheckIn(page walk.Page) func(context.Context) error {
	return func(ctx context.Context) error {
		words, err := page.Says(ctx, fmt.Sprintf(`['%s'].find((words) =>
			[...document.querySelectorAll('button')].some((b) => b.textContent === words)) ?? ''`,
			strings.Join(leadOn, "', '")))
		if err != nil {
			return err
		}
		return page.Press(ctx, cmp.Or(words, leadOn[0]))
	}
}

// always lets every page to come run a script first.
func (m microphone) always(script string) {
	m.t.Helper()
	do(m.t, m.page, chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, cdppage.AddScriptToEvaluateOnNewDocument,
			cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: script})
		return err
	}))
}

// as lets a simulated clarinet play a step of Ada's from the next take on.
func (m microphone) as(standIn string, b storetest.Band, step store.Step, rung int) {
	m.t.Helper()
	p := b.Players[0]
	p.Class = b.Class
	now := store.Standing{Player: p}
	if rung > 0 {
		now.Ladders = map[string]ladder.State{"clarinet-break": {Rung: rung}}
	}
	worked, err := intake.Work(step, now, p.Class.Day(time.Now()), 0)
	require.NoError(m.t, err)
	m.sound(standIn, worked)
}

func (m microphone) sound(standIn string, worked practice.Worked) {
	m.t.Helper()
	i, err := instrument.Get(worked.Score.Instrument)
	require.NoError(m.t, err)
	player, ok := synth.NewStandIn(standIn, i, synth.FirstNote(worked.Score, i), 7)
	require.True(m.t, ok)
	player.Level = -18
	sound, _ := player.Play(worked.Score, 48000)
	script := fmt.Sprintf("window.player = %q", base64.StdEncoding.EncodeToString(wav.Encode(inARoom(sound))))
	m.always(script)
	do(m.t, m.page, chromedp.Evaluate[chromedp.Void](script))
}

// inARoom is a sound with a quiet room around it.
func inARoom(sound audio.Mono) audio.Mono {
	chance := rand.New(rand.NewPCG(1, 1))
	for n := range sound.Samples {
		sound.Samples[n] += 0.0002 * chance.NormFloat64()
	}
	return sound
}

// hearsThePlayer puts window.player, a WAV file in base64, where the microphone's sound comes
// into the page. It begins when the first click after that is heard: the metronome's are the
// only oscillators that start while a microphone is open.
const hearsThePlayer = `(() => {
	const open = AudioContext.prototype.createMediaStreamSource
	const start = AudioScheduledSourceNode.prototype.start
	let player
	AudioContext.prototype.createMediaStreamSource = function (stream) {
		const wav = Uint8Array.from(atob(window.player ?? ''), (c) => c.charCodeAt(0))
		const heard = this.createGain()
		open.call(this, stream)
		const room = this.createBufferSource()
		room.buffer = this.createBuffer(1, 48000, 48000)
		room.buffer.copyToChannel(Float32Array.from({ length: 48000 }, () => 0.0006 * (Math.random() - 0.5)), 0)
		room.loop = true
		room.connect(heard)
		start.call(room)
		if (wav.length > 44) {
			const samples = new Int16Array(wav.buffer, 44, (wav.length - 44) >> 1)
			player = this.createBufferSource()
			player.buffer = this.createBuffer(1, samples.length, 48000)
			player.buffer.copyToChannel(Float32Array.from(samples, (s) => s / 32768), 0)
			player.connect(heard)
		}
		return heard
	}
	AudioScheduledSourceNode.prototype.start = function (at = 0, ...more) {
		if (player && this instanceof OscillatorNode) {
			start.call(player, at + (this.context.outputLatency || 0))
			player = undefined
		}
		return start.call(this, at, ...more)
	}
})()`
