package dsp

import "math"

// FFT transforms complex signals whose length is a power of two, several
// times faster than gonum's, which serves any length (docs/adr/0005). The
// result comes in the order Place tells. A ready FFT is only read, so it may
// be shared.
type FFT struct {
	size     int
	cos, sin []float64 // of -2πk/size
	place    []int
}

// NewFFT prepares transforms of the given length, a power of two.
func NewFFT(size int) *FFT {
	if size < 4 || size&(size-1) != 0 {
		panic("dsp: an FFT's length must be a power of two, at least 4")
	}
	f := &FFT{
		size:  size,
		cos:   make([]float64, size),
		sin:   make([]float64, size),
		place: make([]int, size),
	}
	for k := range size {
		f.sin[k], f.cos[k] = math.Sincos(-2 * math.Pi * float64(k) / float64(size))
	}
	f.order(0, 0, 1, size)
	return f
}

// order fills place as the butterflies below leave the frequencies: those of
// one stage's quarters are 4k, 4k+1, 4k+2 and 4k+3, and so on inwards.
func (f *FFT) order(at, first, stride, size int) {
	switch size {
	case 1:
		f.place[first] = at
	case 2:
		f.place[first], f.place[first+stride] = at, at+1
	default:
		for q := range 4 {
			f.order(at+q*size/4, first+q*stride, 4*stride, size/4)
		}
	}
}

// Place returns where Transform leaves frequency k.
func (f *FFT) Place(k int) int { return f.place[k] }

// Transform replaces re + j·im by X[k] = Σ_n x[n]·e^(−2πjkn/size), unnormalised,
// with X[k] at Place(k). Radix 4, decimation in frequency.
func (f *FFT) Transform(re, im []float64) {
	n := f.size
	re, im = re[:n], im[:n]
	cos, sin := f.cos, f.sin
	size, step := n, 1
	for ; size >= 4; size, step = size/4, step*4 {
		q := size / 4
		for j := range q {
			a := j * step
			w1r, w1i, w2r, w2i, w3r, w3i := cos[a], sin[a], cos[2*a], sin[2*a], cos[3*a], sin[3*a]
			for i0 := j; i0 < n; i0 += size {
				i1, i2, i3 := i0+q, i0+2*q, i0+3*q
				ar, ai, br, bi, cr, ci, dr, di := re[i0], im[i0], re[i1], im[i1], re[i2], im[i2], re[i3], im[i3]
				sr, si, tr, ti := ar+cr, ai+ci, br+dr, bi+di
				ur, ui, vr, vi := ar-cr, ai-ci, bi-di, dr-br // v = −j·(b−d)
				re[i0], im[i0] = sr+tr, si+ti
				xr, xi := ur+vr, ui+vi
				re[i1], im[i1] = xr*w1r-xi*w1i, xr*w1i+xi*w1r
				xr, xi = sr-tr, si-ti
				re[i2], im[i2] = xr*w2r-xi*w2i, xr*w2i+xi*w2r
				xr, xi = ur-vr, ui-vi
				re[i3], im[i3] = xr*w3r-xi*w3i, xr*w3i+xi*w3r
			}
		}
	}
	if size == 2 {
		for i := 0; i < n; i += 2 {
			ar, ai, br, bi := re[i], im[i], re[i+1], im[i+1]
			re[i], im[i], re[i+1], im[i+1] = ar+br, ai+bi, ar-br, ai-bi
		}
	}
}
