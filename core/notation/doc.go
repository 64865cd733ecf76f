// Package notation writes steps in open formats and reads them: MusicXML 4.0, Standard
// MIDI Files 1.0, iCalendar and plain text.
package notation
