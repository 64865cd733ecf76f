package instrument

// Which finger presses a key (from memory; common to the usual systems of each
// instrument). A key that is not here is pressed by the finger nearest to it.
const (
	leftThumb   = "left thumb"
	leftLittle  = "left little finger"
	leftFirst   = "left first finger"
	leftPalm    = "left palm"
	rightThumb  = "right thumb"
	rightLittle = "right little finger"
	rightFirst  = "right first finger, its side"
	rightPalm   = "right hand, its side"
	thirdLeft   = "left third finger"
	thirdRight  = "right third finger"
)

// hand is whose half of a fingering a key stands in.
type hand int

const (
	leftHand hand = iota
	rightHand
)

// presses says which finger presses a key, by family, hand and the key's name.
var presses = map[Family]map[hand]map[string]string{
	Flutes: {
		leftHand:  {"G♯": leftLittle, "thumb B♭": leftThumb},
		rightHand: {"E♭": rightLittle, "low C": rightLittle, "low C♯": rightLittle},
	},
	DoubleReeds: {
		leftHand: {
			"I": leftThumb, "II": leftFirst, "G♯": leftLittle, // oboe
			"W": leftThumb, "thumb B♭ B C D": leftThumb, "thumb B C D": leftThumb, "thumb C D": leftThumb,
			"thumb D": leftThumb, "thumb C♯": leftThumb, "flick A": leftThumb, "flick C": leftThumb,
			"C♯": leftLittle, "E♭": leftLittle, // bassoon
		},
		rightHand: {
			"C": rightLittle, "C♯": rightLittle, "E♭": rightLittle, "G♯": rightLittle,
			"F":       thirdRight, // oboe; a bassoon's is the little finger's, below
			"thumb E": rightThumb, "thumb F♯": rightThumb, "thumb B♭": rightThumb,
		},
	},
	Clarinets: {
		leftHand: {
			"R": leftThumb, "C♯": leftLittle, "cross E♭": thirdLeft, "G♯ key": leftFirst, "A key": leftFirst,
		},
		rightHand: {
			"E": rightLittle, "F": rightLittle, "F♯": rightLittle, "G♯": rightLittle, "E♭": rightLittle,
			"side E♭": rightFirst, "two side keys": rightFirst, "cross B": thirdRight,
		},
	},
	Saxophones: {
		leftHand: {
			"Oct": leftThumb, "low A": leftThumb, "low B♭": leftLittle, "low B": leftLittle, "low C♯": leftLittle,
			"G♯": leftLittle, "bis": leftFirst, "palm D": leftPalm, "palm E♭": leftPalm, "palm F": leftPalm,
		},
		rightHand: {"low C": rightLittle, "E♭": rightLittle, "side B♭": rightPalm, "side E": rightPalm},
	},
}

// fingerOf returns which finger presses a key; "" where the tables do not tell.
func (i Instrument) fingerOf(key string, of hand) string {
	if i.Key == "bassoon" && of == rightHand && key == "F" {
		return rightLittle
	}
	for _, side := range []struct{ ends, finger string }{{" (left)", leftLittle}, {" (right)", rightLittle}} {
		if len(key) > len(side.ends) && key[len(key)-len(side.ends):] == side.ends {
			return side.finger
		}
	}
	if finger, ok := presses[i.Family][of][key]; ok {
		return finger
	}
	other := leftHand
	if of == leftHand {
		other = rightHand
	}
	return presses[i.Family][other][key] // a fingering without a bar names right hand keys, too
}
