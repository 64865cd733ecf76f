package exercise

import "strings"

// The schools of words for air (common practice, no published source): what the braces of
// a tip or a cue become.
var airPictures = map[AirPicture]map[string]string{
	AirSpeed:  {"faster": "faster air", "slower": "slower air", "even": "air at one speed"},
	AirWarmth: {"faster": "cool air, sent far", "slower": "warm air, close by", "even": "air at one warmth"},
	AirWidth: {
		"faster": "a narrower stream of air",
		"slower": "a wider stream of air",
		"even":   "a stream of one width",
	},
	AirVowels: {
		"faster": "an \"ee\" inside the mouth",
		"slower": "an \"oh\" inside the mouth",
		"even":   "one vowel from start to end",
	},
}

// Say puts the picture into a text: "{faster}", "{slower}" and "{even}" become its words.
// An unknown picture is the usual one.
func (a AirPicture) Say(text string) string {
	words, ok := airPictures[a]
	if !ok {
		words = airPictures[AirSpeed]
	}
	for name, said := range words {
		text = strings.ReplaceAll(text, "{"+name+"}", said)
	}
	return text
}
