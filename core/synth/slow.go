package synth

// moment is what changes slowly in a voice, as it is at one moment.
type moment struct {
	pitch      float64 // Hz, but for jitter and cracks
	amplitude  float64
	gap        float64 // 0 to 1
	brightness float64 // 0 to 1
}

// at works a moment out: six sines and exponentials.
func (v *voice) at(t float64) moment {
	s := v.shape(t)
	return moment{
		pitch:      float64(v.pitch) * ratio(v.melody(t)+v.bend(t)),
		amplitude:  s.amplitude(),
		gap:        s.gap,
		brightness: s.brightness,
	}
}

// between is how many samples lie between the moments that are worked out: a third of a
// millisecond, in which a scoop or a slur moves less than a cent off a straight line.
const between = 16

// slow goes evenly from one moment that was worked out to the next.
type slow struct {
	now, each, then moment
	left            int // samples until then
}

// next is the moment of the sample at t, the one behind the last that was asked for.
func (s *slow) next(v *voice, t float64) moment {
	if s.left == 0 {
		if s.then.pitch == 0 { // the first
			s.then = v.at(t)
		}
		s.now, s.then, s.left = s.then, v.at(t+between*v.dt), between
		s.each = moment{
			pitch:      (s.then.pitch - s.now.pitch) / between,
			amplitude:  (s.then.amplitude - s.now.amplitude) / between,
			gap:        (s.then.gap - s.now.gap) / between,
			brightness: (s.then.brightness - s.now.brightness) / between,
		}
	}
	out := s.now
	s.left--
	s.now.pitch += s.each.pitch
	s.now.amplitude += s.each.amplitude
	s.now.gap += s.each.gap
	s.now.brightness += s.each.brightness
	return out
}
