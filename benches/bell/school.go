package main

import (
	"context"
	"fmt"
	"time"

	"golang.org/x/crypto/bcrypt"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
	"earlychorus/core/roster"
	"earlychorus/server/store"
)

const (
	pin      = "246824"
	password = "a long password"
)

// school is a class with two steps: the bell's, and the longest there is.
type school struct {
	class       store.Class
	director    store.Director
	players     []store.Player
	short, long store.Step
}

// newSchool puts the n-th school, of one class, into a database.
func newSchool(ctx context.Context, s *store.Store, n, players int) (school, error) {
	quick := func(secret string) string {
		// The least cost: everybody signs in before the bell.
		hash, _ := bcrypt.GenerateFromPassword([]byte(secret), bcrypt.MinCost) // short enough
		return string(hash)
	}
	out := school{
		class: store.Class{
			ID:           store.NewID(),
			SchoolID:     store.NewID(),
			Name:         "The whole band",
			Code:         fmt.Sprintf("BELL-%d", n),
			ClassMinutes: 10,
		},
		director: store.Director{
			ID:           store.NewID(),
			Name:         "The director",
			Email:        fmt.Sprintf("director-%d@bell.example", n),
			PasswordHash: quick(password),
		},
	}
	out.class.School = store.School{ID: out.class.SchoolID, Name: "A school", TimeZone: "UTC"}
	instruments := []string{"flute", "clarinet", "alto-sax", "trumpet", "horn", "trombone", "tuba"}
	for n := range players {
		out.players = append(out.players, store.Player{
			ID:      store.NewID(),
			ClassID: out.class.ID,
			PINHash: quick(pin),
			Person: roster.Person{
				FirstName:  fmt.Sprintf("Player %d", n+1),
				LastName:   "Beller",
				Instrument: instruments[n%len(instruments)],
				Stage:      2,
			},
		})
	}
	if err := s.CreateClass(ctx, out.class, out.director, out.players); err != nil {
		return out, err
	}
	items := []plan.Item{
		item(exercise.New(exercise.KindLongToneCounted, map[string]any{
			"notes": []int{0}, "beats": 8, "rest_beats": 4, "tempo_bpm": 60,
		})),
		item(exercise.New(exercise.KindLongToneCounted, map[string]any{
			"notes": []int{0, 2, 4, 5, 7, 5}, "beats": 16, "rest_beats": 8, "tempo_bpm": 60,
		})),
	}
	_, err := s.ChangePlan(ctx, store.PlanChange{
		ClassID:    out.class.ID,
		DirectorID: out.director.ID,
		Monday:     store.Monday(out.class.Day(time.Now())),
		Name:       "This week",
		Items:      items,
		At:         time.Now().UTC(),
	})
	if err != nil {
		return out, err
	}
	if out.short, err = s.StepOfClass(ctx, out.class.ID, items[0].Key); err != nil {
		return out, err
	}
	out.long, err = s.StepOfClass(ctx, out.class.ID, items[1].Key)
	return out, err
}

func item(x exercise.Step) plan.Item {
	return plan.Item{
		Key:    store.NewID(),
		Step:   x,
		Times:  1,
		Days:   127, // every day
		At:     plan.Both,
		Wanted: 2,
	}
}
