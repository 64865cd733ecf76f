package roster_test

import (
	"fmt"

	"earlychorus/core/roster"
)

// A list as a school's spreadsheet saves it, in any order of columns.
func ExampleRead() {
	list, _ := roster.Read(
		[]byte("Instrument;Last name;First name\nBb Clarinet;O’Testerly;Ada\nTenor Sax;Šimek;Bo\n"),
		roster.How{},
	)
	for _, r := range list.Rows {
		fmt.Println(r.FirstName, r.LastName, r.Instrument)
	}
	// Output:
	// Ada O’Testerly clarinet
	// Bo Šimek tenor-sax
}
