// Package api answers the interface: HTTP in, one call, HTTP out.
package api

import (
	"context"
	"io/fs"
	"net/http"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"earlychorus/server/events"
	"earlychorus/server/intake"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// API is what the handlers need.
type API struct {
	Store      *store.Store
	Recordings *recordings.Shelf
	Intake     intake.Intake
	Events     *events.Hub
	Now        func() time.Time
	Web        fs.FS // the built interface; nil serves the API alone

	sessions *scs.SessionManager
	limits   limits
}

const (
	sessionLength = 14 * 24 * time.Hour
	largestJSON   = 64 << 10
	// largestUpload holds ten minutes of 24-bit mono at 48 kHz, with room to spare.
	largestUpload = 128 << 20
	requestTime   = 5 * time.Minute // a take over weak Wi-Fi
)

// Handler returns the whole server, ready to serve. Stop ends its upkeep.
func (a *API) Handler() (h http.Handler, stop func()) {
	upkeep := postgresstore.New(a.Store.SQL())
	a.sessions = newSessions(upkeep)
	a.limits = newLimits()
	r := chi.NewRouter()
	r.Use(
		middleware.Recoverer,
		securityHeaders,
		middleware.Compress(
			5,
			"application/json",
			"text/html",
			"text/css",
			"text/javascript",
			"image/svg+xml",
			"application/wasm",
		),
	)
	r.Route("/api", func(r chi.Router) {
		r.Use(middleware.Timeout(requestTime), sameOriginOnly, a.sessions.LoadAndSave)
		r.NotFound(func(w http.ResponseWriter, _ *http.Request) { fail(w, store.ErrNotFound) })
		a.routes(r)
	})
	if a.Web != nil {
		r.NotFound(servePage(a.Web))
	}
	return r, upkeep.StopCleanup
}

// Document returns the OpenAPI document of every route.
func Document() *huma.OpenAPI {
	a := &API{sessions: scs.New(), limits: newLimits()}
	return a.routes(chi.NewRouter())
}

// routes is the table of contents: who may, and what.
func (a *API) routes(r chi.Router) *huma.OpenAPI {
	cfg := huma.DefaultConfig("Early Chorus", "1")
	cfg.DocsPath, cfg.OpenAPIPath, cfg.SchemasPath = "", "", "" // its pages call other hosts
	cfg.CreateHooks = nil
	cfg.Servers = []*huma.Server{{URL: "/api"}}
	group := func(guards ...func(http.Handler) http.Handler) (chi.Router, huma.API) {
		inner := r.With(guards...)
		return inner, humachi.New(inner, cfg)
	}

	plainAnyone, anyone := group()
	plainAnyone.Get("/feeds/{feed}", a.serveFeed)
	huma.Get(anyone, "/me", a.showMe)
	huma.Post(anyone, "/sign-out", a.signOut)

	_, signingIn := group(a.limits.byAccount)
	huma.Post(signingIn, "/sign-in/director", a.signInDirector)
	huma.Post(signingIn, "/sign-in/class", a.openClass)
	huma.Post(signingIn, "/sign-in/player", a.signInPlayer)

	plainDirector, director := group(a.requireDirector)
	huma.Get(director, "/classes", a.listClasses)
	huma.Get(director, "/classes/{class}/today", a.showToday)
	huma.Post(director, "/classes/{class}/steps/preview", a.previewStep)
	huma.Get(director, "/catalogue", a.showCatalogue)
	huma.Post(director, "/classes/{class}/steps/notation", a.drawStep)
	plainDirector.Get("/classes/{class}/steps/sound.wav", a.soundStep)
	plainDirector.Get("/classes/{class}/plans/{monday}/sheet.{format}", a.takeOutSheet)
	plainDirector.Get("/classes/{class}/plans/{monday}/print.pdf", a.printDay)
	plainDirector.Post("/classes/{class}/cards.pdf", a.printCards)
	plainDirector.With(middleware.RequestSize(largestExcerpt)).Post("/classes/{class}/excerpt", a.readExcerpt)
	huma.Get(director, "/classes/{class}/plans/{monday}", a.showPlan)
	huma.Put(director, "/classes/{class}/plans/{monday}", a.changePlan)
	huma.Get(director, "/classes/{class}/plans/{monday}/suggestions", a.suggestSteps)
	huma.Get(director, "/classes/{class}/plans/{monday}/front/{day}", a.showFront)
	huma.Post(director, "/classes/{class}/days/work", a.workDay)
	huma.Post(director, "/classes/{class}/days/fit", a.fitDay)
	huma.Post(director, "/classes", a.createClass)
	huma.Get(director, "/classes/{class}/set-up", a.showSetUp)
	huma.Put(director, "/classes/{class}/settings", a.saveSettings)
	huma.Post(director, "/classes/{class}/example", a.showExample)
	huma.Post(director, "/classes/{class}/archive", a.archiveClass)
	huma.Post(director, "/classes/{class}/directors", a.shareClass)
	plainDirector.With(middleware.RequestSize(largestRoster)).Post("/classes/{class}/roster/preview", a.previewRoster)
	huma.Post(director, "/classes/{class}/roster", a.saveRoster)
	huma.Delete(director, "/classes/{class}/roster/{player}", a.takeOffRoster)
	huma.Post(director, "/classes/{class}/exceptions", a.addException)
	huma.Delete(director, "/classes/{class}/exceptions/{exception}", a.endException)
	huma.Get(director, "/classes/{class}/flags", a.listFlags)
	huma.Put(director, "/classes/{class}/flags/{flag}/seen", a.seeFlag)
	huma.Get(director, "/templates", a.listTemplates)
	huma.Post(director, "/templates", a.saveTemplate)
	huma.Delete(director, "/templates/{template}", a.deleteTemplate)
	huma.Put(director, "/takes/{take}/review", a.overrule)
	huma.Put(director, "/takes/{take}/acts/{act}", a.actOnTake)
	huma.Delete(director, "/takes/{take}/acts/{act}", a.undoAct)
	huma.Delete(director, "/phrases/{phrase}", a.dropPhrase)
	huma.Get(director, "/takes/{take}/others", a.showOthers)
	plainDirector.With(middleware.RequestSize(largestVoice)).Put("/takes/{take}/voice/{act}", a.leaveVoiceNote)
	huma.Delete(director, "/classes/{class}/players/{player}", a.forgetPlayer)
	huma.Get(director, "/classes/{class}/listening", a.showListening)
	huma.Put(director, "/classes/{class}/listening", a.keepPlace)
	huma.Put(director, "/classes/{class}/weights", a.weighReasons)
	huma.Get(director, "/classes/{class}/tomorrow", a.showTomorrow)
	huma.Post(director, "/classes/{class}/tomorrow", a.planTomorrow)
	huma.Get(director, "/classes/{class}/sections/{section}", a.showSection)
	huma.Get(director, "/classes/{class}/players/{player}/growth", a.showGrowth)
	plainDirector.Get("/classes/{class}/players/{player}/report.pdf", a.printReport)
	plainDirector.Get("/classes/{class}/progress.{format:csv|json}", a.takeOutProgress)
	plainDirector.Get("/classes/{class}/everything.zip", a.takeOutEverything)
	plainDirector.Get("/classes/{class}/events", a.streamChanges)

	plainPlayer, player := group(a.requirePlayer)
	huma.Get(player, "/practice", a.showPractice)
	huma.Get(player, "/practice/week", a.showWeekAhead)
	huma.Get(player, "/practice/key", a.showKeepKey)
	huma.Get(player, "/takes/{take}/received", a.showReceived)
	huma.Post(player, "/takes/{take}/simulated", a.simulateTake)
	huma.Put(player, "/practice/steps/{step}/ticks", a.tickStep)
	huma.Post(player, "/practice/steps/{step}/blown", a.blowStep)
	huma.Put(player, "/practice/ladders/{ladder}/back/{act}", a.stepBack)
	huma.Put(player, "/practice/flags/{flag}", a.raiseFlag)
	plainPlayer.With(middleware.RequestSize(largestUpload)).Put("/takes/{take}", a.uploadTake)
	plainPlayer.With(middleware.RequestSize(largestPart)).Put("/takes/{take}/parts/{offset}", a.uploadPart)
	plainPlayer.Post("/takes/{take}/seal", a.sealTake)

	plainEither, either := group(a.requireSomeone)
	huma.Get(either, "/takes/{take}", a.showTake)
	huma.Get(either, "/takes/{take}/spectrogram", a.showSpectrogram)
	plainEither.Get("/takes/{take}/measures.json", a.downloadMeasures)
	plainEither.Get("/takes/{take}/voice/{act}.wav", a.playVoiceNote)
	plainEither.Get("/takes/{take}/audio.wav", a.playTake)
	plainEither.Get("/takes/{take}/audio.flac", a.downloadTake)
	plainEither.Get("/takes/{take}/contour.csv", a.downloadContour)
	return cfg.OpenAPI
}

// takeFor returns a take the asker may know of: a player's own, or one of a
// director's classes.
func (a *API) takeFor(ctx context.Context, takeID string) (store.Take, error) {
	who := a.who(ctx)
	if !isUUID(takeID) {
		return store.Take{}, store.ErrNotFound
	}
	if who.PlayerID != "" {
		return a.Store.TakeOfPlayer(ctx, takeID, who.PlayerID)
	}
	return a.Store.TakeOfDirector(ctx, takeID, who.DirectorID)
}
