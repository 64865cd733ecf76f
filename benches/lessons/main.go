// Command lessons gives the program whole takes of which a teacher would know what
// to say, and counts how often it says so: right verdict, right account, right tip,
// and false accusations of right takes.
package main

import (
	"bytes"
	"cmp"
	"context"
	"flag"
	"fmt"
	"os"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"

	"earlychorus/benches/figures"
	"earlychorus/benches/lessons/lesson"
	"earlychorus/core/say"
	"earlychorus/core/verdict"
)

func main() {
	part := flag.Int("part", 0, "half of the lessons: 0 to work on, 1 kept for the last look, -1 both")
	only := flag.String("only", "", "lessons whose name has this, with commas for several")
	round := flag.Int("round", 0, "other rooms, sources and players: to work on lessons never met before")
	every := flag.Int("every", 1, "take one lesson in so many")
	rights := flag.Int("rights", 0, "take one right take in so many; 0 for as many as of the others")
	way := flag.String(
		"way",
		"joint",
		"how the story is found: joint, windows or apart",
	)
	out := flag.String("o", "", "write the tables to this file as well")
	show := flag.Bool("show", false, "print every lesson that is not concluded right")
	flag.Parse()
	if err := run(*part, *round, *only, *every, *rights, *way, *out, *show); err != nil {
		fmt.Fprintln(os.Stderr, "lessons:", err)
		os.Exit(1)
	}
}

func run(part, round int, only string, every, rights int, way, out string, show bool) error {
	by, known := ways[way]
	if !known {
		return fmt.Errorf("-way %q: choose joint, windows or apart", way)
	}
	all, err := lesson.All(round)
	if err != nil {
		return err
	}
	all = slices.DeleteFunc(all, func(l lesson.Lesson) bool {
		has := func(word string) bool { return strings.Contains(l.Name(), word) }
		return part >= 0 && l.Part() != part || only != "" && !slices.ContainsFunc(strings.Split(only, ","), has)
	})
	chosen, among := choose(all, every, rights)
	found := make([]result, len(chosen))
	var wait sync.WaitGroup
	next := make(chan int)
	for range runtime.NumCPU() {
		wait.Go(func() {
			for n := range next {
				found[n] = hear(chosen[n], by)
				if show && !found[n].right() {
					fmt.Println(found[n].line()) // as it comes: all of them take an hour
				}
			}
		})
	}
	for n := range chosen {
		next <- n
	}
	close(next)
	wait.Wait()
	report(os.Stdout, found, among)
	if out == "" {
		return nil
	}
	var page bytes.Buffer
	fmt.Fprintf(&page, "# The lessons, concluded\n\n%s, %s/%s, %d processors; ",
		time.Now().Format(time.DateOnly), runtime.GOOS, runtime.GOARCH, runtime.NumCPU())
	fmt.Fprintf(&page, "half %d of the lessons, one in %d, of right takes one in %d; %s.\n", part, every,
		cmp.Or(rights, every), "whole takes in nine rooms, from two sets of recorded instruments and our own players")
	concluded := report(&page, found, among)
	if err := os.WriteFile(out, page.Bytes(), 0o644); err != nil {
		return err
	}
	return figures.Put("lessons", concluded)
}

// result is what came of one lesson.
type result struct {
	lesson             lesson.Lesson
	word, account, tip bool
	verdict            verdict.Verdict
	failed             error
}

// among is how many right takes and how many mistakes lessons were chosen among.
type among struct{ rights, wrongs int }

// choose takes one lesson in so many, and one right take in so many: what happens to one in two
// hundred is not seen in four hundred.
func choose(all []lesson.Lesson, every, rights int) (chosen []lesson.Lesson, of among) {
	for n, l := range all {
		nth, in := n, every
		if l.Mistake == "" {
			if rights > 0 {
				nth, in = of.rights, rights
			}
			of.rights++
		} else {
			of.wrongs++
		}
		if nth%in == 0 {
			chosen = append(chosen, l)
		}
	}
	return chosen, of
}

func hear(l lesson.Lesson, way lesson.Way) result {
	c, err := l.HearBy(context.Background(), way)
	r := result{lesson: l, verdict: c.Verdict, failed: err}
	if err == nil {
		r.word, r.account, r.tip = l.Expect.Right(l, c)
	}
	return r
}

func (r result) right() bool { return r.failed == nil && r.word && r.account && r.tip }

func (r result) line() string {
	if r.failed != nil {
		return fmt.Sprintf("%s: %v", r.lesson.Name(), r.failed)
	}
	words := say.Teller{Instrument: r.lesson.Instrument}.Sentence(r.verdict)
	return fmt.Sprintf("%s: %s %v %s (account right: %v, tip %s)",
		r.lesson.Name(), r.verdict.Result, r.verdict.Causes, words, r.account, r.verdict.TipKey)
}
