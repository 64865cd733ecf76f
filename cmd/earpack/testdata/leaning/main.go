// Command leaning does what leans on the table of functions: its stack grows and is searched
// for what lives, by calls through reflection too; a panic is caught behind a wrapper and by
// what is called within what is deferred, where it must not be; fields are found by their tags.
// And one that leans on jumps: loops within loops, left and gone on with from within, entered in
// the middle, with calls that stop for another goroutine, with what is deferred in them.
package main

import (
	"encoding/json"
	"fmt"
	"reflect"
	"runtime"
)

type kept struct {
	Said string `json:"said" doc:"a \"word\" or two"`
}

type catcher struct{ caught *string }

func (c catcher) catch() {
	if fault := recover(); fault != nil {
		*c.caught = fmt.Sprint(fault)
	}
}

func deep(n int, words []*string) int {
	word := fmt.Sprint(n)
	words = append(words[:len(words):len(words)], &word)
	if n == 0 {
		runtime.GC()
		total := 0
		for _, w := range words {
			total += len(*w)
		}
		return total
	}
	in := []reflect.Value{reflect.ValueOf(n - 1), reflect.ValueOf(words)}
	return int(reflect.ValueOf(deep).Call(in)[0].Int())
}

func caught() (said string) {
	defer interface{ catch() }(catcher{&said}).catch()
	var none []int
	return fmt.Sprint(none[len(said)])
}

func notCaught() (said string) {
	defer func() { said = fmt.Sprint(said, recover()) }()
	defer func() { func() { said = fmt.Sprint(recover(), ", ") }() }()
	panic("later")
}

func steps(most int) (longest int) {
	for n := 1; n < most; n++ {
		count := 0
		for k := n; k != 1; count++ {
			if k%2 == 0 {
				k /= 2
				continue
			}
			k = 3*k + 1
		}
		longest = max(longest, count)
	}
	return longest
}

func primes(most int) (count int) {
next:
	for n := 2; n < most; n++ {
		for k := 2; k*k <= n; k++ {
			switch {
			case n%k == 0 && k > 2:
				continue next
			case n%k == 0:
				if n > 2 {
					continue next
				}
			case count > most:
				break next
			}
		}
		count++
	}
	return count
}

func middle(n int) (sum int) {
	if n%2 == 0 {
		goto even
	}
odd:
	sum += n
	n--
even:
	sum -= n / 2
	n--
	if n > 3 {
		if sum%3 == 0 {
			goto odd
		}
		goto even
	}
	return sum
}

func stops(out chan<- int) (sum int) {
	defer close(out)
	for n := range 50 {
		func() {
			defer func() { _ = recover() }()
			for k := range n {
				if k == 40 {
					panic("enough")
				}
				out <- k
				sum += k
			}
			runtime.Gosched()
		}()
	}
	return sum
}

func jumps() string {
	out, heard := make(chan int), 0
	sum := make(chan int)
	go func() { sum <- stops(out) }()
	for k := range out {
		heard += k
	}
	return fmt.Sprint(steps(3000), " ", primes(2000), " ", middle(500), " ", middle(77), " ", <-sum-heard, heard)
}

func main() {
	done := make(chan int)
	go func() { done <- deep(1000, nil) }()
	said, err := json.Marshal(kept{Said: caught() + "; " + notCaught()})
	method := reflect.MakeFunc(reflect.TypeOf(deep), func(in []reflect.Value) []reflect.Value {
		runtime.GC()
		return []reflect.Value{reflect.ValueOf(len(in))}
	}).Interface().(func(int, []*string) int)
	fmt.Println(<-done, method(0, nil), string(said), err, jumps())
}
