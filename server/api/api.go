// Package api answers the interface: HTTP in, one call, HTTP out.
package api

import (
	"io/fs"
	"net/http"
	"net/url"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"earlychorus/server/events"
	"earlychorus/server/health"
	"earlychorus/server/intake"
	"earlychorus/server/recordings"
	"earlychorus/server/signon"
	"earlychorus/server/standin"
	"earlychorus/server/store"
)

// API is what the handlers need.
type API struct {
	Store      *store.Store
	Recordings *recordings.Store
	Intake     intake.Intake
	Events     *events.Hub
	Now        func() time.Time
	Web        fs.FS             // the built interface; nil serves the API alone
	Watch      *health.Watch     // told of every request; nil where nobody watches
	Public     *url.URL          // where people reach it; nil: where it was asked
	Proxies    []string          // networks of proxies whose word on who asks is taken
	BackupDays int               // how long nightly backups are kept; 0: none is made here
	Mail       bool              // letters can be sent
	Mailbox    bool              // they lie in the stand-in, whose page is open
	Provider   *standin.Provider // plays a school's accounts, in the demo; nil elsewhere

	sessions *scs.SessionManager
	desk     signon.Desk
}

const (
	sessionLength = 14 * 24 * time.Hour
	// largestUpload holds ten minutes of 24-bit mono at 48 kHz, with room to spare.
	largestUpload = 128 << 20
	requestTime   = 5 * time.Minute // a take over weak Wi-Fi
)

// Handler returns the whole server, ready to serve. Stop ends its upkeep.
func (a *API) Handler() (h http.Handler, stop func()) {
	// It sweeps old sessions out by itself until it is stopped.
	upkeep := postgresstore.New(a.Store.SQL())
	a.sessions = a.newSessions(keptSessions{upkeep, a.Store})
	r := chi.NewRouter()
	r.Use(
		middleware.RequestID,
		a.clientAddress(),
		a.recorded,
		middleware.Recoverer,
		bodiesEnd,
		oneSpelling,
		a.securityHeaders,
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
		r.Use(
			private,
			middleware.Timeout(requestTime),
			a.sameOriginOnly(),
			a.whence,
			a.sessions.LoadAndSave,
			a.roleNoted,
		)
		// Under /api an unknown address is an error in JSON, not the page.
		r.NotFound(func(w http.ResponseWriter, r *http.Request) { fail(w, r, store.ErrNotFound) })
		a.routes(r)
	})
	r.Get("/healthz", health.Alive)
	r.Get("/metrics", http.NotFound) // at an address of its own, which the public does not reach
	if a.Provider != nil {
		r.Handle(StandInProvider+"/*", a.Provider)
	}
	if a.Watch != nil {
		r.Get("/readyz", a.Watch.ServeReady)
	}
	if a.Web != nil {
		r.NotFound(servePage(a.Web))
	}
	return r, upkeep.StopCleanup
}

// StandInProvider is where the demo's provider of accounts is.
const StandInProvider = "/stand-in/provider"

// clientAddress reads who asks: a proxy's word counts only when the proxy is ours.
func (a *API) clientAddress() func(http.Handler) http.Handler {
	if len(a.Proxies) == 0 {
		return middleware.ClientIPFromRemoteAddr
	}
	return middleware.ClientIPFromXFF(a.Proxies...)
}

// Document returns the OpenAPI document of every route.
func Document() *huma.OpenAPI {
	// Nothing is asked of it but its routes, so it needs no store.
	a := &API{sessions: scs.New()}
	return a.routes(chi.NewRouter())
}

// routes is the table of contents: who may, and what.
func (a *API) routes(r chi.Router) *huma.OpenAPI {
	cfg := huma.DefaultConfig("Early Chorus", "1")
	cfg.DocsPath, cfg.OpenAPIPath, cfg.SchemasPath = "", "", "" // its pages call other hosts
	// They would put an address of a schema into every answer.
	cfg.CreateHooks = nil
	cfg.Servers = []*huma.Server{{URL: "/api"}}

	anyone := newGroup(r, cfg)
	anyone.files("GET", "/feeds/{feed}", 0, a.serveFeed)
	get(anyone, "/me", a.showMe)
	post(anyone, "/sign-out", a.signOut)

	get(anyone, "/beginning", a.showBeginning)
	post(anyone, "/beginning", a.beginSchool)
	post(anyone, "/sign-in/director", a.signInDirector)
	post(anyone, "/sign-in/class", a.openClass)
	post(anyone, "/sign-in/player", a.signInPlayer)
	post(anyone, "/sign-in/pass", a.signInByPass)
	post(anyone, "/sign-in/forgotten", a.forgotPassword)
	post(anyone, "/sign-in/new-password", a.choosePassword)
	get(anyone, "/stand-in/mail", a.showMailbox)
	anyone.files("GET", "/sign-on/{school}", 0, a.beginSignOn)
	anyone.files("GET", "/sign-on/callback", 0, a.finishSignOn)
	get(anyone, "/sign-on/choices", a.listChoices)
	post(anyone, "/sign-on/choices", a.chooseClass)

	somebody := newGroup(r, cfg, a.signedIn)
	get(somebody, "/me/sessions", a.listSessions)
	remove(somebody, "/me/sessions", a.endOtherSessions)
	remove(somebody, "/me/sessions/{session}", a.endSession)

	directing := newGroup(r, cfg, a.require(store.DirectClasses), a.writtenDown)
	a.directorRoutes(directing)
	a.assigningRoutes(directing)
	a.schoolRoutes(newGroup(r, cfg, a.require(store.Administer), a.writtenDown))
	a.peopleRoutes(directing)
	a.seeingRoutes(newGroup(r, cfg, a.require(store.SeeClasses), a.writtenDown))
	a.followingRoutes(newGroup(r, cfg, a.require(store.FollowPlayers), a.writtenDown))
	a.playerRoutes(newGroup(r, cfg, a.require(store.Practise)))
	a.takeRoutes(newGroup(r, cfg, a.require(store.SeeTakes), a.writtenDown))
	return cfg.OpenAPI
}

// directorRoutes are what a director asks for the classes in reach.
func (a *API) directorRoutes(director group) {
	get(director, "/classes", a.listClasses)
	put(director, "/me/password", a.changePassword)
	put(director, "/me/summary", a.wantSummary)
	get(director, "/me/sign-in", a.showMySignIn)
	post(director, "/me/code-device", a.offerCodeDevice)
	put(director, "/me/code-device", a.setCodeDevice)
	remove(director, "/me/code-device", a.endCodeDevice)
	post(director, "/classes", a.createClass)
	get(director, "/classes/{class}/set-up", a.showSetUp)
	put(director, "/classes/{class}/settings", a.saveSettings)
	post(director, "/classes/{class}/example", a.showExample)
	post(director, "/classes/{class}/archive", a.archiveClass)
	remove(director, "/classes/{class}/archive", a.openClassAgain)
	post(director, "/classes/{class}/exceptions", a.addException)
	remove(director, "/classes/{class}/exceptions/{exception}", a.endException)
	get(director, "/classes/{class}/flags", a.listFlags)
	put(director, "/classes/{class}/flags/{flag}/seen", a.seeFlag)
	put(director, "/classes/{class}/flags/{flag}/answer", a.answerFlag)
	get(director, "/classes/{class}/care", a.showCare)
	get(director, "/classes/{class}/try/{instrument}", a.tryPractice)
	put(director, "/takes/{take}/review", a.overrule)
	put(director, "/takes/{take}/acts/{act}", a.actOnTake)
	remove(director, "/takes/{take}/acts/{act}", a.undoAct)
	remove(director, "/phrases/{phrase}", a.dropPhrase)
	get(director, "/takes/{take}/others", a.showOthers)
	director.files("PUT", "/takes/{take}/voice/{act}", largestVoice, a.leaveVoiceNote)
	get(director, "/classes/{class}/listening", a.showListening)
	put(director, "/classes/{class}/listening", a.keepPlace)
	put(director, "/classes/{class}/weights", a.weighReasons)
	get(director, "/classes/{class}/tomorrow", a.showTomorrow)
	post(director, "/classes/{class}/tomorrow", a.planTomorrow)
	get(director, "/classes/{class}/sections/{section}", a.showSection)
	get(director, "/classes/{class}/sections/{section}/tone", a.showSectionTone)
	get(director, "/classes/{class}/players/{player}/growth", a.showGrowth)
	director.files("GET", "/classes/{class}/players/{player}/report.pdf", 0, a.printReport)
	director.files("GET", "/classes/{class}/progress.{format:csv|json}", 0, a.takeOutProgress)
	director.files("GET", "/classes/{class}/gradebook.{format:csv|zip}", 0, a.takeOutGradebook)
	director.files("GET", "/classes/{class}/everything.zip", 0, a.takeOutEverything)
	director.files("GET", "/classes/{class}/players/{player}/everything.zip", 0, a.takeOutPlayer)
}

// assigningRoutes are what a director asks to plan: steps, weeks, tests, models, notes known.
func (a *API) assigningRoutes(director group) {
	post(director, "/classes/{class}/steps/preview", a.previewStep)
	get(director, "/catalogue", a.showCatalogue)
	post(director, "/classes/{class}/steps/notation", a.drawStep)
	director.files("GET", "/classes/{class}/steps/sound.wav", 0, a.soundStep)
	director.files("GET", "/classes/{class}/plans/{monday}/sheet.{format}", 0, a.takeOutSheet)
	director.files("POST", "/classes/{class}/excerpt", largestExcerpt, a.readExcerpt)
	get(director, "/classes/{class}/plans/{monday}", a.showPlan)
	put(director, "/classes/{class}/plans/{monday}", a.changePlan)
	get(director, "/classes/{class}/plans/{monday}/suggestions", a.suggestSteps)
	post(director, "/classes/{class}/days/work", a.workDay)
	post(director, "/classes/{class}/days/fit", a.fitDay)
	get(director, "/templates", a.listTemplates)
	post(director, "/templates", a.saveTemplate)
	remove(director, "/templates/{template}", a.deleteTemplate)
	get(director, "/exercises", a.listOwnExercises)
	post(director, "/exercises", a.saveOwnExercise)
	remove(director, "/exercises/{exercise}", a.deleteOwnExercise)
	post(director, "/classes/{class}/models", a.listModels)
	remove(director, "/classes/{class}/models/{model}", a.dropModel)
	director.files("PUT", "/classes/{class}/models/{model}", largestModel, a.keepModel)
	director.files("GET", "/classes/{class}/models/{model}/sound.wav", 0, a.playModel)
	get(director, "/classes/{class}/tests", a.listTests)
	get(director, "/classes/{class}/tests/{step}", a.showTest)
	director.files("GET", "/classes/{class}/tests/{step}/results.csv", 0, a.takeOutTest)
	get(director, "/classes/{class}/weeks/{monday}/known", a.showKnown)
	put(director, "/classes/{class}/weeks/{monday}/known", a.saveKnown)
	get(director, "/classes/{class}/players/{player}/known", a.showPlayerKnows)
	put(director, "/classes/{class}/players/{player}/known", a.savePlayerKnows)
}

// seeingRoutes are what whoever stands before the class asks, and changes nothing with.
func (a *API) seeingRoutes(helper group) {
	get(helper, "/classes/{class}/today", a.showToday)
	get(helper, "/classes/{class}/plans/{monday}/front/{day}", a.showFront)
	helper.files("GET", "/classes/{class}/plans/{monday}/print.pdf", 0, a.printDay)
	helper.files("GET", "/classes/{class}/events", 0, a.streamChanges)
}

// followingRoutes are what a family asks of its child.
func (a *API) followingRoutes(family group) {
	get(family, "/players/{player}/growth", a.followPlayer)
	family.files("GET", "/players/{player}/report.pdf", 0, a.printFollowed)
}

// schoolRoutes are what an administrator asks for the schools in reach.
func (a *API) schoolRoutes(administrator group) {
	get(administrator, "/schools/{school}", a.showSchool)
	post(administrator, "/schools/{school}/people", a.addPerson)
	put(administrator, "/schools/{school}/people/{person}", a.setRights)
	remove(administrator, "/schools/{school}/people/{person}", a.removePerson)
	post(administrator, "/schools/{school}/people/{person}/password", a.resetPassword)
	put(administrator, "/schools/{school}/consent", a.askConsent)
	put(administrator, "/schools/{school}/sign-on", a.saveSignOn)
	remove(administrator, "/schools/{school}/sign-on", a.endSignOn)
	get(administrator, "/schools/{school}/audit", a.showAudit)
	administrator.files("GET", "/schools/{school}/audit.csv", 0, a.takeOutAudit)
}

// peopleRoutes are who is in a class, and how they come in.
func (a *API) peopleRoutes(director group) {
	post(director, "/classes/{class}/directors", a.inviteDirector)
	remove(director, "/classes/{class}/directors/{director}", a.removeDirector)
	remove(director, "/classes/{class}/invitations", a.withdrawInvitation)
	get(director, "/invitations", a.listInvitations)
	post(director, "/invitations/{class}", a.acceptInvitation)
	remove(director, "/invitations/{class}", a.declineInvitation)
	get(director, "/classes/{class}/consents", a.listConsents)
	put(director, "/classes/{class}/consents", a.saveConsents)
	director.files("POST", "/classes/{class}/consents/list", largestRoster, a.readConsents)
	director.files("GET", "/classes/{class}/consents.csv", 0, a.takeOutConsents)
	get(director, "/classes/{class}/passes", a.listPasses)
	post(director, "/classes/{class}/passes", a.addPass)
	remove(director, "/classes/{class}/passes/{pass}", a.endPass)
	post(director, "/classes/{class}/code", a.renewCode)
	post(director, "/classes/{class}/players/{player}/pin", a.renewPIN)
	remove(director, "/classes/{class}/players/{player}/sessions", a.endPlayersSessions)
	director.files("POST", "/classes/{class}/cards.pdf", 0, a.printCards)
	director.files("POST", "/classes/{class}/roster/preview", largestRoster, a.previewRoster)
	post(director, "/classes/{class}/roster", a.saveRoster)
	remove(director, "/classes/{class}/roster/{player}", a.takeOffRoster)
	remove(director, "/classes/{class}/players/{player}", a.forgetPlayer)
}

// playerRoutes are what a player asks for oneself.
func (a *API) playerRoutes(player group) {
	get(player, "/practice", a.showPractice)
	get(player, "/practice/week", a.showWeekAhead)
	get(player, "/practice/growth", a.showMyGrowth)
	get(player, "/practice/key", a.showKeepKey)
	get(player, "/takes/{take}/received", a.showReceived)
	post(player, "/takes/{take}/simulated", a.simulateTake)
	put(player, "/practice/steps/{step}/ticks", a.tickStep)
	put(player, "/practice/steps/{step}/blown", a.blowStep)
	put(player, "/practice/care/{every}", a.careDone)
	put(player, "/practice/ladders/{ladder}/back/{act}", a.stepBack)
	put(player, "/practice/flags/{flag}", a.raiseFlag)
	player.files("GET", "/practice/models/{model}/sound.wav", 0, a.hearModel)
	player.files("PUT", "/takes/{take}", largestUpload, a.uploadTake)
	player.files("PUT", "/takes/{take}/parts/{offset}", largestPart, a.uploadPart)
	player.files("POST", "/takes/{take}/seal", 0, a.sealTake)
}

// takeRoutes are what whoever may see a take asks of it.
func (a *API) takeRoutes(either group) {
	get(either, "/takes/{take}", a.showTake)
	get(either, "/takes/{take}/spectrogram", a.showSpectrogram)
	either.files("GET", "/takes/{take}/measures.json", 0, a.downloadMeasures)
	either.files("GET", "/takes/{take}/voice/{act}.wav", 0, a.playVoiceNote)
	either.files("GET", "/takes/{take}/audio.wav", 0, a.playTake)
	either.files("GET", "/takes/{take}/audio.flac", 0, a.downloadTake)
	either.files("GET", "/takes/{take}/contour.csv", 0, a.downloadContour)
}
