package api

import (
	"bytes"
	"cmp"
	"fmt"
	"net/http"
	"runtime"
	"slices"
	"strings"
	"time"

	"github.com/go-chi/chi/v5"
	"golang.org/x/crypto/bcrypt"
	"golang.org/x/sync/errgroup"

	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/server/print"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// classAsked returns the class a plain handler's path names, when it is in the
// asker's reach.
func (a *API) classAsked(r *http.Request) (store.Class, error) {
	return a.Store.ClassFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "class"))
}

// printDay answers a day of a plan as PDF, a page a section.
func (a *API) printDay(w http.ResponseWriter, r *http.Request) error {
	class, p, day, at, err := a.dayAsked(r)
	if err != nil {
		return err
	}
	monday, _ := time.Parse(time.DateOnly, chi.URLParam(r, "monday")) // read above
	members, band, err := a.bandOf(r.Context(), class, monday.AddDate(0, 0, int(day)))
	if err != nil {
		return err
	}
	fingers := print.Fingers(cmp.Or(r.URL.Query().Get("fingers"), string(print.FingersDrawn)))
	if !slices.Contains(print.AllFingers(), fingers) {
		return problem.Input("fingers", "choose drawn, words or none")
	}
	var sheets []notation.Sheet
	for n, who := range band.Players {
		s, err := notation.SheetOf(p, day, at, who, band.Conventions)
		if err != nil {
			return err
		}
		s.Player = members[n].Section
		// A section of two stages has two sheets, and each must say whose it is.
		if n > 0 && members[n-1].Section == s.Player || n+1 < len(members) && members[n+1].Section == s.Player {
			s.Player = fmt.Sprintf("%s, stage %d", members[n].Section, members[n].Stage)
		}
		// No page for whoever plays nothing that day.
		if len(s.Steps) > 0 {
			sheets = append(sheets, s)
		}
	}
	var out bytes.Buffer
	if err := print.Sheets(&out, print.PaperOf(class.School.TimeZone), p.Name, fingers, sheets); err != nil {
		return err
	}
	servePDF(w, out.Bytes(), "plan.pdf")
	return nil
}

// servePDF opens beside the page and is not saved by itself: most are printed and
// thrown away.
func servePDF(w http.ResponseWriter, pdf []byte, name string) {
	w.Header().Set("Content-Type", "application/pdf")
	w.Header().Set("Content-Disposition", `inline; filename="`+name+`"`)
	_, _ = w.Write(pdf) // the asker may be gone
}

// printCards gives players new PINs and answers the cards to sign in with. PINs
// are kept as hashes only, so old cards cannot be printed again.
func (a *API) printCards(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	players, err := a.Store.Players(r.Context(), class.ID)
	if err != nil {
		return err
	}
	chosen := chosenPlayers(players, r.URL.Query().Get("players"))
	cards, hashes, err := newCards(chosen)
	if err != nil {
		return err
	}
	var out bytes.Buffer
	// Printed first: PINs that were set without a card to read them from would lock the class
	// out.
	paper := print.PaperOf(class.School.TimeZone)
	if err := print.Cards(&out, paper, class.Name, class.Code, a.address(r), cards); err != nil {
		return err
	}
	if err := a.setPINs(r.Context(), hashes); err != nil {
		return err
	}
	servePDF(w, out.Bytes(), "cards.pdf")
	return nil
}

// chosenPlayers keeps those whose numbers are listed, all when none are, and
// with "new" those who have no PIN yet.
func chosenPlayers(players []store.Player, list string) (out []store.Player) {
	for _, p := range players {
		if list == "" || list == "new" && p.PINHash == "" || strings.Contains(list, p.ID) {
			out = append(out, p)
		}
	}
	return out
}

// newCards makes a PIN for each player; hashing them is slow on purpose, so it is
// shared among the cores.
func newCards(players []store.Player) ([]print.Card, map[string]string, error) {
	cards := make([]print.Card, len(players))
	hashed := make([][]byte, len(players))
	group := errgroup.Group{}
	group.SetLimit(runtime.NumCPU())
	for n, p := range players {
		i, err := instrument.Get(p.Instrument)
		if err != nil {
			return nil, nil, err
		}
		cards[n] = print.Card{Name: p.FullName(), Instrument: i.Name, PIN: newPIN()}
		group.Go(func() (err error) {
			hashed[n], err = bcrypt.GenerateFromPassword([]byte(cards[n].PIN), bcrypt.DefaultCost)
			return err
		})
	}
	if err := group.Wait(); err != nil {
		return nil, nil, err
	}
	hashes := map[string]string{}
	for n, p := range players {
		hashes[p.ID] = string(hashed[n])
	}
	return cards, hashes, nil
}
