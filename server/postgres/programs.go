package postgres

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
)

// debian is where Debian's packages put each version's programs.
const debian = "/usr/lib/postgresql"

// ErrMissing reports that PostgreSQL is not installed.
var ErrMissing = errors.New(
	"postgres: PostgreSQL is not installed (Debian: apt-get install postgresql); ./start installs it",
)

// VersionError reports data that none of the installed versions may serve: PostgreSQL
// reads only what its own major version wrote.
type VersionError struct {
	Made string // by which version
}

func (e VersionError) Error() string {
	return fmt.Sprintf(
		"postgres: the data were made by PostgreSQL %s, which is not installed any more; install postgresql-%s, or "+
			"write them out with that version's pg_dumpall and read them into an empty folder",
		e.Made,
		e.Made,
	)
}

// findPrograms returns the folder of the programs that serve a folder of data: those
// of the version that made it or, for data that are not there yet, the newest.
// Versions are compared as numbers, for as text 9 comes after 17.
func findPrograms(debian, data string) (string, error) {
	found, _ := filepath.Glob(filepath.Join(debian, "*", "bin", "initdb")) // the pattern is well formed
	if len(found) == 0 {
		return "", ErrMissing
	}
	made, _ := os.ReadFile(filepath.Join(data, "PG_VERSION")) // none: nothing was made yet
	wanted := strings.TrimSpace(string(made))
	newest, programs := -1.0, ""
	for _, initdb := range found {
		bin := filepath.Dir(initdb)
		version := filepath.Base(filepath.Dir(bin))
		if version == wanted {
			return bin, nil
		}
		if n, err := strconv.ParseFloat(version, 64); err == nil && n > newest {
			newest, programs = n, bin
		}
	}
	if wanted != "" {
		return "", VersionError{wanted}
	}
	if programs == "" {
		return "", ErrMissing
	}
	return programs, nil
}
