package api

import (
	"context"
	"errors"
	"net/http"
	"runtime/debug"
	"strings"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/server/classcode"
	"earlychorus/server/password"
	"earlychorus/server/problem"
	"earlychorus/server/spreadsheet"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// SchoolPath names a school that the asker administers.
type SchoolPath struct {
	School string `path:"school" format:"uuid"`
}

// SchoolPage is what an administrator sees of a school: its people and how it runs, and no
// recording.
type SchoolPage struct {
	ID       string             `json:"id"`
	Name     string             `json:"name"`
	TimeZone string             `json:"time_zone"`
	People   []SchoolMember     `json:"people" nullable:"false"`
	State    store.SchoolState  `json:"state"`
	Waiting  store.Waiting      `json:"waiting" doc:"takes nobody has listened to yet, of all schools"`
	Version  string             `json:"version" doc:"of the program"`
	Backups  []store.BackupMade `json:"backups" doc:"the last nightly ones" nullable:"false"`
	Nightly  bool               `json:"nightly" doc:"a backup is made every night"`
	Free     int64              `json:"free_bytes" doc:"of the disk that recordings are on; 0: not known, as of a bucket"`
	SignOn   *SignOnView        `json:"sign_on,omitempty" doc:"how its people sign in with the accounts they have"`
	Redirect string             `json:"redirect" doc:"the address that a provider is told to send people back to"`
	Consent  bool               `json:"consent_needed" doc:"homes are asked before anything is recorded"`
	Password string             `json:"password,omitempty" doc:"just made, and shown this once"`
	For      string             `json:"for,omitempty" doc:"whose password it is"`
}

// SchoolMember is somebody of a school.
type SchoolMember struct {
	ID          string `json:"id"`
	Name        string `json:"name"`
	Email       string `json:"email"`
	Administers bool   `json:"administers"`
	Classes     int    `json:"classes"`
	You         bool   `json:"you"`
}

type schoolOutput struct{ Body SchoolPage }

// showSchool answers with a school's people and how it runs.
func (a *API) showSchool(ctx context.Context, in *SchoolPath) (*schoolOutput, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), in.School)
	if err != nil {
		return nil, err
	}
	out := SchoolPage{
		ID:       school.ID,
		Name:     school.Name,
		TimeZone: school.TimeZone,
		People:   []SchoolMember{},
		Version:  version(),
		Redirect: fromOf(ctx).site + callbackPath,
		Consent:  school.ConsentNeeded,
		Nightly:  a.BackupDays > 0,
		Free:     a.Recordings.Free(),
	}
	o, err := a.Store.SignOnOf(ctx, school.ID)
	if err == nil {
		out.SignOn = &SignOnView{o.Issuer, o.ClientID, append([]string{}, o.Domains...), o.RosterClaim}
	} else if !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	people, err := a.Store.PeopleOf(ctx, school.ID)
	if err != nil {
		return nil, err
	}
	for _, p := range people {
		out.People = append(out.People, SchoolMember{
			ID:          p.ID,
			Name:        p.Name,
			Email:       p.Email,
			Administers: p.Administers,
			Classes:     p.Classes,
			You:         p.ID == a.who(ctx).Subject,
		})
	}
	if out.State, err = a.Store.StateOfSchool(ctx, school.ID, a.Now()); err != nil {
		return nil, err
	}
	if out.Backups, err = a.Store.LastBackups(ctx, mostBackups); err != nil {
		return nil, err
	}
	out.Waiting, err = a.Store.WaitingTakes(ctx)
	return &schoolOutput{out}, err
}

// mostBackups is how many an administrator sees.
const mostBackups = 5

// version is the program's, by the commit it was built from.
func version() string {
	if info, ok := debug.ReadBuildInfo(); ok {
		for _, s := range info.Settings {
			if s.Key == "vcs.revision" {
				return s.Value[:min(12, len(s.Value))]
			}
		}
	}
	return "unknown"
}

// newPersonInput adds a director to a school.
type newPersonInput struct {
	SchoolPath
	Body struct {
		Name        string `json:"name" minLength:"1" maxLength:"80"`
		Email       string `json:"email" format:"email" maxLength:"200"`
		Administers bool   `json:"administers"`
	}
}

// addPerson makes an account with a password that is shown once, to be changed.
func (a *API) addPerson(ctx context.Context, in *newPersonInput) (*schoolOutput, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), in.School)
	if err != nil {
		return nil, err
	}
	d := store.Director{ID: store.NewID(), Name: strings.TrimSpace(in.Body.Name), Email: store.EmailKey(in.Body.Email)}
	if d.Name == "" {
		return nil, problem.Input("name", "say their name")
	}
	_, err = a.Store.DirectorByEmail(ctx, d.Email)
	if err == nil {
		return nil, problem.Input(
			"email",
			"somebody signs in with it already: a director of a class can invite them to it",
		)
	}
	if !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	word := madePassword()
	if d.PasswordHash, err = password.Hash(word); err != nil {
		return nil, err
	}
	if err := a.Store.AddPerson(ctx, school.ID, d, in.Body.Administers); err != nil {
		return nil, err
	}
	return a.withPassword(ctx, &in.SchoolPath, d.Name, word)
}

// madePassword is four words.
func madePassword() string { return strings.ToLower(strings.ReplaceAll(classcode.New(), "-", " ")) }

func (a *API) withPassword(ctx context.Context, in *SchoolPath, name, word string) (*schoolOutput, error) {
	out, err := a.showSchool(ctx, in)
	if err == nil {
		out.Body.Password, out.Body.For = word, name
	}
	return out, err
}

// PersonPath names somebody of a school.
type PersonPath struct {
	SchoolPath
	Person string `path:"person" format:"uuid"`
}

// resetPassword gives somebody a new password, shown once, and signs them out everywhere.
// It opens all that the account may see, so it is refused for who is of another school too.
func (a *API) resetPassword(ctx context.Context, in *PersonPath) (*schoolOutput, error) {
	d, err := a.personAsked(ctx, in)
	if err != nil {
		return nil, err
	}
	ours, err := a.Store.OfOneSchool(ctx, in.School, d.ID)
	if err != nil {
		return nil, err
	}
	if !ours {
		return nil, problem.Of(problem.Conflict,
			"They are of another school, too. Whoever runs the program can give them a new password.", nil)
	}
	word := madePassword()
	hash, err := password.Hash(word)
	if err != nil {
		return nil, err
	}
	if err := a.Store.RenewPassword(ctx, d.ID, hash); err != nil {
		return nil, err
	}
	if err := a.Store.EndSessionsOf(ctx, store.RoleDirector, d.ID); err != nil {
		return nil, err
	}
	return a.withPassword(ctx, &in.SchoolPath, d.Name, word)
}

// personAsked is somebody of a school the asker administers, and not the asker: one's own
// password is changed by who knows it.
func (a *API) personAsked(ctx context.Context, in *PersonPath) (store.Director, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), in.School)
	if err != nil {
		return store.Director{}, err
	}
	if in.Person == a.who(ctx).Subject {
		return store.Director{}, problem.Of(
			problem.Conflict, "That is you. Another administrator has to do this, or the command line.", nil,
		)
	}
	return a.Store.PersonOf(ctx, school.ID, in.Person)
}

// rightsInput makes somebody an administrator, or ends it.
type rightsInput struct {
	PersonPath
	Body struct {
		Administers bool `json:"administers"`
	}
}

func (a *API) setRights(ctx context.Context, in *rightsInput) (*schoolOutput, error) {
	d, err := a.personAsked(ctx, &in.PersonPath)
	if err == nil {
		err = a.Store.SetAdministers(ctx, in.School, d.ID, in.Body.Administers)
	}
	if err != nil {
		return nil, err
	}
	return a.showSchool(ctx, &in.SchoolPath)
}

// removePerson ends somebody's part in a school, and their sessions.
func (a *API) removePerson(ctx context.Context, in *PersonPath) (*schoolOutput, error) {
	d, err := a.personAsked(ctx, in)
	if err != nil {
		return nil, err
	}
	if err := a.Store.LeaveSchool(ctx, in.School, d.ID); err != nil {
		return nil, err
	}
	if err := a.Store.EndSessionsOf(ctx, store.RoleDirector, d.ID); err != nil {
		return nil, err
	}
	return a.showSchool(ctx, &in.SchoolPath)
}

// AuditLine is what somebody did.
type AuditLine struct {
	At     string `json:"at" format:"date-time"`
	Role   string `json:"role"`
	Who    string `json:"who" doc:"empty: no account, or one that is gone"`
	Action string `json:"action"`
	Class  string `json:"class,omitempty"`
	Player string `json:"player,omitempty"`
}

// auditInput asks for the days up to one.
type auditInput struct {
	SchoolPath
	Until string `query:"until" format:"date" doc:"the last day; today otherwise"`
	Days  int    `query:"days" minimum:"1" maximum:"90" default:"7"`
}

type auditOutput struct {
	Body struct {
		Lines []AuditLine `json:"lines" nullable:"false" doc:"the latest first"`
		More  bool        `json:"more" doc:"there were more than are shown: ask for fewer days"`
	}
}

// mostAudited bounds one page of the log.
const mostAudited = 500

// showAudit lists what was done in a school.
func (a *API) showAudit(ctx context.Context, in *auditInput) (*auditOutput, error) {
	lines, err := a.auditLines(ctx, in.School, in.Until, in.Days, mostAudited+1)
	if err != nil {
		return nil, err
	}
	out := &auditOutput{}
	out.Body.More = len(lines) > mostAudited
	out.Body.Lines = append([]AuditLine{}, lines[:min(len(lines), mostAudited)]...)
	return out, nil
}

func (a *API) auditLines(ctx context.Context, schoolID, until string, days, most int) ([]AuditLine, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), schoolID)
	if err != nil {
		return nil, err
	}
	zone, err := time.LoadLocation(school.TimeZone)
	if err != nil {
		return nil, err
	}
	to := a.Now().In(zone)
	if until != "" {
		if to, err = time.ParseInLocation(time.DateOnly, until, zone); err != nil {
			return nil, problem.Input("until", "write the day as 2026-11-28")
		}
	}
	to = time.Date(to.Year(), to.Month(), to.Day()+1, 0, 0, 0, 0, zone)
	rows, err := a.Store.AuditOfSchool(ctx, school.ID, to.AddDate(0, 0, -max(1, days)), to, most)
	if err != nil {
		return nil, err
	}
	var out []AuditLine
	for _, r := range rows {
		out = append(out, AuditLine{view.Instant(r.At), string(r.Role), r.Who, r.Action, r.Class, r.Player})
	}
	return out, nil
}

// mostExported bounds an export of the log: a district's term.
const mostExported = 200_000

// takeOutAudit answers with the last ninety days of the log as CSV.
func (a *API) takeOutAudit(w http.ResponseWriter, r *http.Request) error {
	lines, err := a.auditLines(r.Context(), chi.URLParam(r, "school"), r.URL.Query().Get("until"), 90, mostExported)
	if err != nil {
		return err
	}
	w.Header().Set("Content-Type", "text/csv; charset=utf-8")
	w.Header().Set("Content-Disposition", `attachment; filename="what-was-done.csv"`)
	out := spreadsheet.NewWriter(w)
	_ = out.Write([]string{"at", "role", "who", "action", "class", "player"}) // a lost line is told by Flush
	for _, l := range lines {
		_ = out.Write([]string{l.At, l.Role, l.Who, l.Action, l.Class, l.Player})
	}
	out.Flush()
	return out.Error()
}
