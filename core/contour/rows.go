package contour

import "strconv"

// Rows returns the contour as a table with a heading, the open format of
// `pitch` and of downloads (docs/formats.md): one row a frame.
func (c Contour) Rows() [][]string {
	rows := [][]string{{"time_s", "f0_hz", "confidence", "level_db"}}
	for n, f := range c.Frames {
		rows = append(rows, []string{
			strconv.FormatFloat(float64(Time(n)), 'f', 3, 64), strconv.FormatFloat(float64(f.Pitch), 'f', 4, 64),
			strconv.FormatFloat(f.Confidence, 'f', 4, 64), strconv.FormatFloat(float64(f.Level), 'f', 2, 64),
		})
	}
	return rows
}
