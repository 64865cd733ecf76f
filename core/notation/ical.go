package notation

import (
	"fmt"
	"io"
	"strings"

	ics "github.com/arran4/golang-ical"

	"earlychorus/core/plan"
)

// Week is a plan, and when its days are.
type Week struct {
	Plan  plan.Plan
	Dates [7]string // Monday to Sunday, as 20261123
	Weeks int       // how many weeks it goes on for
	Stamp string    // when the calendar was made, as 20261123T080000Z
	Host  string    // who the events' names are unique for: "school.example"
}

// WriteICalendar writes weeks as iCalendar (RFC 5545): one all-day event for each
// item, repeated on its days. The error is the writer's.
func WriteICalendar(out io.Writer, name string, weeks []Week) error {
	c := ics.NewCalendarFor("Early Chorus")
	c.SetMethod(ics.MethodPublish)
	c.SetName(name)
	for _, w := range weeks {
		for n, i := range w.Plan.Items {
			if len(i.Days.Names()) > 0 {
				w.event(c, n, i)
			}
		}
	}
	_, err := io.WriteString(out, c.Serialize(ics.WithNewLineWindows))
	return err
}

func (w Week) event(c *ics.Calendar, n int, i plan.Item) {
	days := i.Days.Names()
	e := c.AddEvent(fmt.Sprintf("%s-%d-%s@%s", w.Dates[0], n, i.Key, w.Host))
	e.SetProperty(ics.ComponentPropertyDtstamp, w.Stamp)
	e.SetProperty(ics.ComponentPropertyDtStart, w.Dates[firstDay(i.Days)], ics.WithValue("DATE"))
	e.AddRrule(fmt.Sprintf("FREQ=WEEKLY;BYDAY=%s;COUNT=%d", strings.Join(days, ","), len(days)*max(1, w.Weeks)))
	e.SetSummary(i.Step.Sentence())
	if i.Why != "" {
		e.SetDescription(i.Why)
	}
	e.SetProperty(ics.ComponentPropertyCategories, strings.ToUpper(string(i.At)))
	e.SetTimeTransparency(ics.TransparencyTransparent) // practice takes no meeting's place
}

func firstDay(d plan.Days) int {
	for n := range 7 {
		if d.Has(plan.Day(n)) {
			return n
		}
	}
	return 0
}
