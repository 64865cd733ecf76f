// Package view is what several pages show in the same shape: a class's name, a
// comment, how far a take has come. Each page is a package of its own beside it;
// the API renders them.
package view

import (
	"time"

	"earlychorus/server/store"
)

// ClassName is a class as a list shows it.
type ClassName struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	School string `json:"school"`
	Code   string `json:"code"`

	Archived bool `json:"archived,omitempty"`
}

// ClassNameOf shows a class, with its school loaded.
func ClassNameOf(c store.Class) ClassName {
	return ClassName{
		ID:       c.ID,
		Name:     c.Name,
		School:   c.School.Name,
		Code:     c.Code,
		Archived: c.ArchivedAt != nil,
	}
}

// CommentView is a director's comment on a take.
type CommentView struct {
	ID        string   `json:"id"`
	Kind      string   `json:"kind" enum:"comment,praise,again,voice"`
	At        *float64 `json:"at_s,omitempty" doc:"where in the recording it is pinned"`
	By        string   `json:"by"`
	Body      string   `json:"body"`
	WrittenAt string   `json:"written_at" format:"date-time"`
	TakeID    string   `json:"take_id"`
}

// CommentOf shows a comment, with its director loaded.
func CommentOf(c store.Comment) CommentView {
	return CommentView{
		ID:        c.ID,
		Kind:      c.Kind,
		At:        c.AtS,
		By:        c.Director.Name,
		Body:      c.Body,
		WrittenAt: Instant(c.WrittenAt),
		TakeID:    c.TakeID,
	}
}

// CommentsOf shows comments in their order; none is an empty list.
func CommentsOf(comments []store.Comment) []CommentView {
	out := []CommentView{}
	for _, c := range comments {
		out = append(out, CommentOf(c))
	}
	return out
}

// NamedPlayer is a player by full name, for a director's pages.
type NamedPlayer struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Stuck bool   `json:"stuck"`
}

// TakeState is how far a take has come.
type TakeState string

const (
	Waiting TakeState = "waiting" // to be listened to
	Done    TakeState = "done"
	Failed  TakeState = "failed"
)

// StateOf tells how far a take has come, from why it failed ("": it did not) and
// whether it was analysed.
func StateOf(failure string, analysed bool) TakeState {
	switch {
	case analysed:
		return Done
	case failure != "":
		return Failed
	}
	return Waiting
}

// Instant writes an instant as JSON has it, in UTC.
func Instant(t time.Time) string { return t.UTC().Format(time.RFC3339) }

// Date writes a school's date.
func Date(day time.Time) string { return day.Format(time.DateOnly) }
