// Package takeout packs everything that is kept of a class into one ZIP file of
// open formats: CSV, JSON lines, and FLAC where sounds are wanted.
package takeout

import (
	"archive/zip"
	"context"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strings"
	"time"

	"earlychorus/server/recordings"
	"earlychorus/server/spreadsheet"
	"earlychorus/server/store"
)

// Sounds gives recordings out by their names.
type Sounds interface {
	FLAC(ctx context.Context, name string) ([]byte, error)
}

// Of is what is packed.
type Of struct {
	Class  store.Class
	Player *store.Player // one child's alone; nil for the whole class
}

func (o Of) whose() store.Whose {
	w := store.Whose{ClassID: o.Class.ID}
	if o.Player != nil {
		w.PlayerID = o.Player.ID
	}
	return w
}

func (o Of) name() string {
	if o.Player != nil {
		return o.Player.FullName() + ", " + o.Class.Name
	}
	return o.Class.Name
}

// Pack packs what is kept of a class, or of one child. sounds is nil where they are not wanted.
// Whatever fails leaves a file that no reader takes for whole: a ZIP's list of contents comes last.
func Pack(
	ctx context.Context,
	to io.Writer,
	s *store.Store,
	of Of,
	sounds Sounds,
	now time.Time,
) error {
	out := zip.NewWriter(to)
	p := packing{
		ctx: ctx,
		zip: out,
		of:  of.whose(),
		now: now,
	}
	// Tables at one moment; sounds after it, so that a transaction is not open for an hour of
	// copying.
	err := s.AtOneMoment(ctx, func(at store.Snapshot) error {
		for _, t := range store.KeptOfClass() {
			if err := p.table(at, t); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return err
	}
	if sounds != nil {
		if err := p.sounds(s, sounds); err != nil {
			return err
		}
	}
	// Last, when it is known that everything above is there.
	if err := p.text("README.md", Readme(of.name(), now)); err != nil {
		return err
	}
	return out.Close()
}

// packing is a file being filled.
type packing struct {
	ctx    context.Context
	zip    *zip.Writer
	of     store.Whose
	now    time.Time
	takes  []string // with a recording
	voices []string
}

// table writes a table twice. A ZIP is written front to back, so the table is read
// once for each.
func (p *packing) table(at store.Snapshot, t store.Table) error {
	file, err := p.create("csv/"+t.Name+".csv", zip.Deflate)
	if err != nil {
		return err
	}
	names := make([]string, len(t.Columns))
	for n, c := range t.Columns {
		names[n] = c.Name
	}
	// Formulas are made harmless in CSV alone; the JSON has every word as it was written.
	lines := spreadsheet.NewWriter(file)
	if err := lines.Write(names); err != nil {
		return err
	}
	err = at.EachLine(p.ctx, t, p.of, func(cells []string) error {
		p.note(t.Name, names, cells)
		return lines.Write(cells)
	})
	lines.Flush()
	if err == nil {
		err = lines.Error()
	}
	if err != nil {
		return err
	}
	if file, err = p.create("json/"+t.Name+".ndjson", zip.Deflate); err != nil {
		return err
	}
	return at.EachObject(p.ctx, t, p.of, func(object string) error {
		_, err := io.WriteString(file, object+"\n")
		return err
	})
}

// note remembers what has a sound.
func (p *packing) note(table string, names, cells []string) {
	cell := map[string]string{}
	// Told by the table's own columns, so that asking a second time is not needed.
	if table == "takes" || table == "comments" {
		for n, name := range names {
			cell[name] = cells[n]
		}
	}
	switch {
	case table == "takes" && cell["sound_gone_at"] == "":
		p.takes = append(p.takes, cell["take_id"])
	case table == "comments" && cell["kind"] == "voice":
		p.voices = append(p.voices, cell["comment_id"])
	}
}

// sounds adds recordings as FLAC, which does not deflate.
func (p *packing) sounds(s *store.Store, from Sounds) error {
	for folder, ids := range map[string][]string{"takes/": p.takes, "voice/": p.voices} {
		for page := range slices.Chunk(ids, soundsAtOnce) {
			names, err := s.SoundNames(p.ctx, page)
			if err != nil {
				return err
			}
			for _, id := range page {
				if err := p.sound(from, folder+id+".flac", names[id]); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// soundsAtOnce is names asked for in one question.
const soundsAtOnce = 500

// sound adds one recording, unless it was let go of meanwhile.
func (p *packing) sound(from Sounds, file, name string) error {
	sound, err := from.FLAC(p.ctx, name)
	if errors.Is(err, recordings.ErrMissing) {
		return nil
	}
	if err != nil {
		return err
	}
	out, err := p.create(file, zip.Store)
	if err != nil {
		return err
	}
	_, err = out.Write(sound)
	return err
}

// create begins a file of the archive with the day it was packed.
func (p *packing) create(name string, method uint16) (io.Writer, error) {
	return p.zip.CreateHeader(&zip.FileHeader{Name: name, Method: method, Modified: p.now})
}

// text adds a small file whole.
func (p *packing) text(name, words string) error {
	file, err := p.create(name, zip.Deflate)
	if err != nil {
		return err
	}
	_, err = io.WriteString(file, words)
	return err
}

// link is one to a page of our documentation, which is not in the file.
var link = regexp.MustCompile(`\[([^\]]+)\]\([^)]*\)`)

// Readme says what lies in the file.
func Readme(name string, now time.Time) string {
	return fmt.Sprintf(
		"# %s, as of %s\n\nEverything that is kept, but for passwords and PINs.\n\n%s",
		name,
		now.Format("2 January 2006"),
		link.ReplaceAllString(Columns(), "$1"),
	)
}

// Columns describes every file and column.
func Columns() string {
	var b strings.Builder
	b.WriteString(
		"Each table is there twice, as `csv/NAME.csv` (UTF-8, commas, the first line names the columns; nothing is " +
			"written where\nthere is nothing; what a spreadsheet would run as a formula has an apostrophe before " +
			"it) and as `json/NAME.ndjson` (an object a line, the same names, word for word). `takes/` has " +
			"recordings by `take_id`, `voice/` directors' voice\nnotes by `comment_id`, as FLAC, where they were " +
			"asked for.\n",
	)
	for _, t := range store.KeptOfClass() {
		fmt.Fprintf(&b, "\n## %s\nA line is %s.\n\n| column | |\n| --- | --- |\n", t.Name, t.Says)
		for _, c := range t.Columns {
			fmt.Fprintf(&b, "| `%s` | %s |\n", c.Name, c.Says)
		}
	}
	return b.String()
}
