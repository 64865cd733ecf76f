package mail

import (
	"fmt"
	"strings"
	"time"
)

// ResetHours is how long a letter about a forgotten password is good for.
const ResetHours = 1

// Reset lets whoever forgot a password choose a new one.
func Reset(to, name, link string) Letter {
	return Letter{
		To:      to,
		Subject: "A new password for Early Chorus",
		Body: fmt.Sprintf(`Dear %s,

somebody asked for a new password for your account. If it was you, choose it here within the hour:

%s

If it was not you, nothing has changed, and there is nothing to do.

Early Chorus
`, name, link),
	}
}

// Invitation asks a colleague to direct a class too.
func Invitation(to, by, class, school, site string) Letter {
	return Letter{
		To:      to,
		Subject: fmt.Sprintf("%s asks you to direct %s with them", by, class),
		Body: fmt.Sprintf(`Good day,

%s asks you to direct the class “%s” of %s with them in Early Chorus.

Sign in at %s with this address; the question waits there for you. If you have no account yet,
your school's administrator makes one.

Early Chorus
`, by, class, school, site),
	}
}

// ClassWeek is a class's week in a summary.
type ClassWeek struct {
	Name    string
	Players int
	Played  int
	Takes   int
	Waiting int // questions and flags nobody has seen
}

// Summary is a director's week. No child is named: letters lie about.
func Summary(to, name string, monday time.Time, classes []ClassWeek, site string) Letter {
	var lines strings.Builder
	for _, c := range classes {
		fmt.Fprintf(&lines, "%s: %d of %d players practiced, %d takes.", c.Name, c.Played, c.Players, c.Takes)
		if c.Waiting > 0 {
			fmt.Fprintf(&lines, " %d of their messages wait for you.", c.Waiting)
		}
		lines.WriteString("\n")
	}
	return Letter{
		To:      to,
		Subject: "Your classes in the week of " + monday.Format("2 January"),
		Body: fmt.Sprintf(`Dear %s,

%s
Who needs what stands on each class's page: %s

You asked for this letter; under “My sign-in” you end it.

Early Chorus
`, name, lines.String(), site),
	}
}

// Home is how a child's week went, in words for a family. It names no other child, and nothing of
// the child but the first name: letters lie about.
func Home(to, first string, monday time.Time, days int, held float64, comments []string, site string) Letter {
	var lines strings.Builder
	switch {
	case days == 0:
		fmt.Fprintf(
			&lines,
			"%s did not record anything last week. Five minutes on a quiet evening are a good start.",
			first,
		)
	default:
		fmt.Fprintf(&lines, "%s practiced on %s last week.", first, counted(days, "day"))
	}
	if held > 0 {
		fmt.Fprintf(&lines, " The longest note in one breath was %.0f seconds. Ask to hear it!", held)
	}
	lines.WriteString("\n")
	if len(comments) > 0 {
		lines.WriteString("\nThe director wrote:\n")
		for _, c := range comments {
			fmt.Fprintf(&lines, "  “%s”\n", c)
		}
	}
	return Letter{
		To:      to,
		Subject: fmt.Sprintf("%s’s week of %s", first, monday.Format("2 January")),
		Body: fmt.Sprintf(`Good day,

%s
A few minutes on most days do more than an hour on one.

How it goes over the weeks stands here, for whoever has your pass: %s/pass

The director of the class gave you the pass, and ends these letters with it when you ask for it.

Early Chorus
`, lines.String(), site),
	}
}

// counted is a number of things: 1 day, 2 days.
func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
