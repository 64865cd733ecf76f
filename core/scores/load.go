package scores

import (
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Load is what a score asks of a body.
type Load struct {
	SoundSeconds  music.Seconds `json:"sound_s" doc:"playing, buzzing and singing"`
	RestSeconds   music.Seconds `json:"rest_s"`
	LipSeconds    music.Seconds `json:"lip_s" doc:"brass playing, and buzzing"`
	BuzzSeconds   music.Seconds `json:"buzz_s" doc:"longest stretch of buzzing before a rest as long"`
	BreathSeconds music.Seconds `json:"breath_s" doc:"holding the breath and blowing without sound"`
	HighSeconds   music.Seconds `json:"high_s" doc:"playing high in the beginner range"`
	HardSeconds   music.Seconds `json:"hard_s" doc:"playing hard notes"`
	BreakSeconds  music.Seconds `json:"break_s" doc:"crossing the register break"`
	Rounds        int           `json:"rounds" doc:"rounds of breathing exercise"`
}

// highShare is the part of a beginner range, from its top, that counts as high.
const highShare = 0.25

// LoadOf adds up what a score asks of a player of an instrument.
func LoadOf(s Score, i instrument.Instrument) Load {
	var l Load
	high := i.Beginner.To - music.MIDI(highShare*float64(i.Beginner.To-i.Beginner.From))
	var buzzing music.Seconds
	for _, seg := range s.Segments {
		length := s.TempoBPM.Seconds(seg.Beats)
		switch seg.Phase {
		case Rest, Ready, Breathe, Finger:
			l.RestSeconds += length
			if seg.Phase == Rest && length >= buzzing {
				buzzing = 0
			}
		case Hold, Out:
			l.BreathSeconds += length
			if seg.Phase == Out {
				l.Rounds++
			}
		case Buzz:
			buzzing += length
			l.BuzzSeconds = max(l.BuzzSeconds, buzzing)
			l.LipSeconds += length
			l.SoundSeconds += length
		case Sing, Free, Strike:
			l.SoundSeconds += length
		case Play:
			l.SoundSeconds += length
			if i.Family == instrument.Brass {
				l.LipSeconds += length
			}
			if seg.Target > high {
				l.HighSeconds += length
			}
			if seg.Hard {
				l.HardSeconds += length
			}
			if s.Crossing {
				l.BreakSeconds += length
			}
		}
	}
	return l
}
