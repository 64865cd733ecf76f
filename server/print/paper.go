package print

import (
	"slices"
	"strings"
)

// Paper is what a school's printer has in it, in millimetres.
type Paper struct {
	Name       string // as the PDF writer knows it
	wide, high float64
}

// The two papers of schools.
var (
	A4     = Paper{"A4", 210, 297}         // ISO 216
	Letter = Paper{"Letter", 215.9, 279.4} // ANSI/ASME Y14.1, size A
)

// PaperOf is the paper of a place, by its time zone: Letter in the countries that the Unicode
// CLDR lists for it (US, CA, MX, PH, and most of Central America; from memory), A4 elsewhere.
func PaperOf(zone string) Paper {
	switch {
	case strings.HasPrefix(zone, "US/"), strings.HasPrefix(zone, "Canada/"):
		return Letter
	case slices.Contains(letterElsewhere, zone):
		return Letter
	case !strings.HasPrefix(zone, "America/"):
		return A4
	}
	for _, a4 := range a4InAmerica {
		if strings.HasPrefix(zone, "America/"+a4) {
			return A4
		}
	}
	return Letter
}

var letterElsewhere = []string{"Pacific/Honolulu", "Pacific/Easter", "Asia/Manila"}

// a4InAmerica are America's zones, by how they begin, in countries that print on A4 (from
// memory).
var a4InAmerica = []string{
	"Argentina", "Buenos_Aires", "Catamarca", "Cordoba", "Jujuy", "Mendoza", "Rosario",
	"Araguaina", "Bahia", "Belem", "Boa_Vista", "Campo_Grande", "Cuiaba", "Eirunepe", "Fortaleza", "Maceio", "Manaus",
	"Noronha", "Porto_Velho", "Recife", "Rio_Branco", "Santarem", "Sao_Paulo",
	"Asuncion", "Cayenne", "Guayaquil", "Guyana", "La_Paz", "Lima", "Montevideo", "Paramaribo",
	"Danmarkshavn", "Godthab", "Nuuk", "Scoresbysund", "Thule",
	"Aruba", "Curacao", "Guadeloupe", "Martinique", "Miquelon",
}
