package demo

import (
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/server/store"
)

// notesKnown are the first five, one note more since a fortnight, and one that is new in the
// week in which the demo is begun.
func notesKnown(today time.Time) known.Book {
	monday := store.Monday(today)
	weeks := []string{
		monday.AddDate(0, 0, -14).Format(time.DateOnly),
		monday.Format(time.DateOnly),
	}
	book := known.Book{Notes: map[string][]known.Note{}}
	for _, p := range people {
		i, err := instrument.Get(p.instrument)
		if err != nil {
			panic(err) // of our own list
		}
		list := known.Book{}.Of(i)
		for n, m := range exercise.NextNotes(i, nil) {
			if n < len(weeks) {
				list = append(list, known.Note{Sounding: m, Week: weeks[n]})
			}
		}
		book.Notes[i.Key] = list
	}
	return book
}
