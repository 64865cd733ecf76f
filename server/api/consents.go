package api

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"
	"unicode/utf8"

	"earlychorus/core/consent"
	"earlychorus/core/roster"
	"earlychorus/server/jobs"
	"earlychorus/server/problem"
	"earlychorus/server/spreadsheet"
	"earlychorus/server/store"
)

// ClassConsents is what the homes of a class agreed to.
type ClassConsents struct {
	Needed   bool             `json:"needed" doc:"the school asks homes: without an answer nothing is recorded"`
	Purposes []consent.Asked  `json:"purposes" nullable:"false"`
	Players  []PlayerConsents `json:"players" nullable:"false"`
	Unknown  []string         `json:"unknown,omitempty" doc:"of a list that was brought in: whom the class does not know"`
	Changed  int              `json:"changed" doc:"answers that were just written down"`
}

// PlayerConsents is what one home said, and what may be done.
type PlayerConsents struct {
	ID   string                     `json:"id"`
	Name string                     `json:"name"`
	Said map[consent.Purpose]Answer `json:"said" nullable:"false"`
	May  consent.May                `json:"may"`
}

// Answer is what was said of one purpose.
type Answer struct {
	Given bool   `json:"given"`
	By    string `json:"by" doc:"by whom, on which form"`
	On    string `json:"on" format:"date"`
}

type consentsOutput struct{ Body ClassConsents }

// listConsents says what each home agreed to.
func (a *API) listConsents(ctx context.Context, in *ClassPath) (*consentsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	out, err := a.consentsOf(ctx, class)
	return &consentsOutput{out}, err
}

func (a *API) consentsOf(ctx context.Context, class store.Class) (ClassConsents, error) {
	out := ClassConsents{
		Needed:   class.School.ConsentNeeded,
		Purposes: consent.Purposes(),
		Players:  []PlayerConsents{},
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return out, err
	}
	said, err := a.Store.ConsentsOf(ctx, class.ID)
	if err != nil {
		return out, err
	}
	may, err := a.Store.MayOfClass(ctx, class.ID)
	if err != nil {
		return out, err
	}
	at := map[string]int{}
	for n, p := range players {
		at[p.ID] = n
		out.Players = append(out.Players, PlayerConsents{p.ID, p.FullName(), map[consent.Purpose]Answer{}, may[p.ID]})
	}
	for _, c := range said {
		if n, ok := at[c.PlayerID]; ok {
			out.Players[n].Said[c.Purpose] = Answer{c.Given, c.SaidBy, class.Day(c.At).Format(time.DateOnly)}
		}
	}
	return out, nil
}

// consentsInput is answers as they came in.
type consentsInput struct {
	ClassPath
	Body struct {
		By      string          `json:"by" minLength:"1" maxLength:"120" doc:"by whom, on which form"`
		Answers []ConsentAnswer `json:"answers" nullable:"false" maxItems:"3000"`
	}
}

// ConsentAnswer is what a home said of one purpose.
type ConsentAnswer struct {
	Player  string          `json:"player" format:"uuid"`
	Purpose consent.Purpose `json:"purpose" enum:"recording,keeping,showing"`
	Given   bool            `json:"given"`
}

// saveConsents writes answers down beside those before. Where something is taken back, what
// was kept by it goes.
func (a *API) saveConsents(ctx context.Context, in *consentsInput) (*consentsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	by := strings.TrimSpace(in.Body.By)
	if by == "" {
		return nil, problem.Input("by", "say who said so, or on which form")
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	ours := map[string]bool{}
	for _, p := range players {
		ours[p.ID] = true
	}
	rows := []store.Consent{}
	for _, c := range in.Body.Answers {
		if !ours[c.Player] {
			return nil, store.ErrNotFound
		}
		rows = append(rows, a.consentRow(ctx, c, by))
	}
	out, err := a.writeConsents(ctx, class, rows)
	return &consentsOutput{out}, err
}

func (a *API) consentRow(ctx context.Context, c ConsentAnswer, by string) store.Consent {
	who := a.who(ctx).Subject
	return store.Consent{
		PlayerID:  c.Player,
		Purpose:   c.Purpose,
		Given:     c.Given,
		SaidBy:    by,
		At:        a.Now().UTC(),
		EnteredBy: &who,
	}
}

// writeConsents writes rows down, and has what may not be kept any more deleted now.
func (a *API) writeConsents(ctx context.Context, class store.Class, rows []store.Consent) (ClassConsents, error) {
	if err := a.Store.SaveConsents(ctx, rows); err != nil {
		return ClassConsents{}, err
	}
	for _, r := range rows {
		if !r.Given {
			if err := a.Intake.Queue.AddNow(ctx, jobs.LetGo{For: store.NewID()}); err != nil {
				return ClassConsents{}, err
			}
			break
		}
	}
	out, err := a.consentsOf(ctx, class)
	out.Changed = len(rows)
	return out, err
}

// The headings of a list of consents, beside those of names.
const (
	headingBy     = "by"
	mostConsentBy = 120
)

// readConsents brings a list in: players by number or name, a column for each purpose with yes
// or no in it, and who said so. What a list leaves out stays as it was.
func (a *API) readConsents(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	file, err := io.ReadAll(r.Body)
	if err != nil {
		return problem.Of(problem.TooLarge, "The file is larger than 2 MB. Save just the list of consents.", nil)
	}
	how := roster.How{Also: []string{headingBy}}
	for _, p := range consent.Purposes() {
		how.Also = append(how.Also, string(p.Key))
	}
	if how.Taught, err = a.Store.ListWords(r.Context(), class.SchoolID); err != nil {
		return err
	}
	list, err := roster.Read(file, how)
	var said roster.ReadError
	if errors.As(err, &said) {
		return problem.Of(problem.Unusable, said.Remedy, nil)
	}
	if err != nil {
		return err
	}
	rows, unknown, err := a.consentsIn(r.Context(), class, list)
	if err != nil {
		return err
	}
	out, err := a.writeConsents(r.Context(), class, rows)
	if err != nil {
		return err
	}
	out.Unknown = unknown
	answerJSON(w, out)
	return nil
}

// consentsIn are a list's answers, and whom the class does not know.
func (a *API) consentsIn(ctx context.Context, class store.Class, list roster.List) (
	rows []store.Consent, unknown []string, err error,
) {
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, nil, err
	}
	columns := 0
	for _, row := range list.Rows {
		compared := against(players, row)
		if compared.PlayerID == "" {
			unknown = append(unknown, row.FullName())
			continue
		}
		by := row.Also[headingBy]
		if by == "" {
			by = "a list"
		}
		by = string([]rune(by)[:min(utf8.RuneCountInString(by), mostConsentBy)])
		for _, p := range consent.Purposes() {
			cell, there := row.Also[string(p.Key)]
			if !there {
				continue
			}
			columns++
			given, ok := consent.Read(cell)
			if cell == "" {
				continue
			}
			if !ok {
				return nil, nil, problem.Of(
					problem.Unusable,
					fmt.Sprintf(
						"Line %d, %s: write yes or no, or leave it empty. Nothing was taken in.",
						row.Line,
						p.Key,
					),
					nil,
				)
			}
			rows = append(rows, a.consentRow(ctx, ConsentAnswer{compared.PlayerID, p.Key, given}, by))
		}
	}
	if columns == 0 {
		return nil, nil, problem.Of(problem.Unusable,
			"The list needs names and at least one of the columns recording, keeping and showing, with yes or no.", nil)
	}
	return rows, unknown, nil
}

// takeOutConsents writes the class's consents as a list that can be brought in again.
func (a *API) takeOutConsents(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	all, err := a.consentsOf(r.Context(), class)
	if err != nil {
		return err
	}
	players, err := a.Store.Players(r.Context(), class.ID)
	if err != nil {
		return err
	}
	w.Header().Set("Content-Type", "text/csv; charset=utf-8")
	w.Header().Set("Content-Disposition", `attachment; filename="consents.csv"`)
	out := spreadsheet.NewWriter(w)
	head := []string{"First name", "Last name", "Number"}
	for _, p := range all.Purposes {
		head = append(head, string(p.Key))
	}
	_ = out.Write(append(head, "By", "On")) // the asker may be gone
	for n, p := range all.Players {
		line := []string{players[n].FirstName, players[n].LastName, players[n].ExternalID}
		by, on := "", ""
		for _, asked := range all.Purposes {
			said, ok := p.Said[asked.Key]
			line = append(line, inList(said, ok))
			if ok && said.On >= on {
				by, on = said.By, said.On
			}
		}
		_ = out.Write(append(line, by, on))
	}
	out.Flush()
	return nil
}

// inList is an answer as a list says it; nothing where none was given.
func inList(said Answer, ok bool) string {
	switch {
	case !ok:
		return ""
	case said.Given:
		return "yes"
	}
	return "no"
}

type askConsentInput struct {
	SchoolPath
	Body struct {
		Needed bool `json:"needed"`
	}
}

// askConsent says whether the school asks homes before anything is recorded.
func (a *API) askConsent(ctx context.Context, in *askConsentInput) (*schoolOutput, error) {
	school, err := a.Store.SchoolFor(ctx, a.who(ctx), in.School)
	if err == nil {
		err = a.Store.AskConsent(ctx, school.ID, in.Body.Needed)
	}
	if err != nil {
		return nil, err
	}
	return a.showSchool(ctx, &in.SchoolPath)
}
