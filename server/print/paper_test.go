package print_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/server/print"
)

func TestThePaperIsThePlaces(t *testing.T) {
	for zone, paper := range map[string]print.Paper{
		"America/Chicago":         print.Letter,
		"America/Toronto":         print.Letter,
		"America/Mexico_City":     print.Letter,
		"Asia/Manila":             print.Letter,
		"America/Sao_Paulo":       print.A4,
		"America/Argentina/Jujuy": print.A4,
		"Europe/Vienna":           print.A4,
		"Atlantic/Azores":         print.A4,
		"":                        print.A4,
	} {
		assert.Equal(t, paper, print.PaperOf(zone), zone)
	}
}
