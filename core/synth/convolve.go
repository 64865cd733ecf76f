package synth

import "earlychorus/core/dsp"

// convolveBlock is how many samples go through a response at once: what they meet then
// stays near the processor.
const convolveBlock = 1 << 13

// convolved returns x played through an impulse response, as long as x. The response is
// cut into blocks as the sound is, and each block of the sound meets each of the response
// as spectra (overlap-save). Both halves of the sound go at once, the later one as what is
// imaginary: the response is real, and keeps them apart.
func convolved(x, response []float64) []float64 {
	fft := dsp.NewFFT(2 * convolveBlock)
	var parts, heard []spectrum // of the response; of the sound's last blocks, the newest first
	for from := 0; from < len(response); from += convolveBlock {
		part := newSpectrum()
		copy(part.re, response[from:min(len(response), from+convolveBlock)])
		fft.Transform(part.re, part.im)
		parts, heard = append(parts, part), append(heard, newSpectrum())
	}
	half := (len(x) + 1) / 2
	out, sum, turned := make([]float64, len(x)), newSpectrum(), newSpectrum()
	for from := 0; from < half+len(response); from += convolveBlock {
		newest := heard[len(heard)-1]
		copy(heard[1:], heard)
		heard[0] = newest
		window(newest.re, x[:half], from-convolveBlock)
		window(newest.im, x[half:], from-convolveBlock)
		fft.Transform(newest.re, newest.im)
		sum.clear()
		for n, part := range parts {
			sum.addProduct(heard[n], part)
		}
		sum.turnBack(fft, turned)
		for n := range convolveBlock {
			at, k := from+n, fft.Place(convolveBlock+n)
			if at < len(out) {
				out[at] += turned.re[k]
			}
			if half+at < len(out) {
				out[half+at] += turned.im[k]
			}
		}
	}
	return out
}

// window fills into with the samples of x from one on; before and behind them is silence.
func window(into, x []float64, from int) {
	clear(into)
	if from < len(x) {
		copy(into[max(0, -from):], x[max(0, from):])
	}
}

// spectrum is a window's frequencies in the order its transform leaves them.
type spectrum struct{ re, im []float64 }

func newSpectrum() spectrum {
	return spectrum{make([]float64, 2*convolveBlock), make([]float64, 2*convolveBlock)}
}

func (s spectrum) clear() {
	clear(s.re)
	clear(s.im)
}

func (s spectrum) addProduct(a, b spectrum) {
	re, im, ar, ai, br, bi := s.re, s.im, a.re[:len(s.re)], a.im[:len(s.re)], b.re[:len(s.re)], b.im[:len(s.re)]
	im = im[:len(re)]
	for n := range re {
		re[n] += ar[n]*br[n] - ai[n]*bi[n]
		im[n] += ar[n]*bi[n] + ai[n]*br[n]
	}
}

// turnBack transforms a spectrum back to its window, which lies in into at fft's places:
// with the two parts exchanged, forward is back.
func (s spectrum) turnBack(fft *dsp.FFT, into spectrum) {
	for k := range s.re {
		n := fft.Place(k)
		into.re[k], into.im[k] = s.re[n]/float64(len(s.re)), s.im[n]/float64(len(s.re))
	}
	fft.Transform(into.im, into.re)
}
