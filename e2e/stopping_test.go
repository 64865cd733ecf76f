package e2e

import (
	"context"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// statusAt is how an address answers.
func statusAt(t *testing.T, address string, cookies ...*http.Cookie) int {
	t.Helper()
	req, err := http.NewRequest("GET", address, nil)
	require.NoError(t, err)
	for _, c := range cookies {
		req.AddCookie(c)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0
	}
	_, _ = io.Copy(io.Discard, res.Body)
	require.NoError(t, res.Body.Close())
	return res.StatusCode
}

// A board that is open does not keep the server from stopping.
func TestItStopsWithBoardsOpen(t *testing.T) {
	dsn := storetest.DSN(t)
	s, err := store.Open(dsn)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	b := storetest.NewBand(t, s, "STOP")
	p := begin(t, nil, "serve", "--no-demo", "--port", "18150", "--data", t.TempDir(), "--database", dsn)
	cookie := directorAt(t, p.base, b)
	lines := make(chan int, 3)
	for range 3 {
		go func() {
			req, _ := http.NewRequestWithContext(
				context.Background(), "GET", p.base+"/api/classes/"+b.Class.ID+"/events", nil,
			)
			req.AddCookie(cookie)
			res, err := http.DefaultClient.Do(req)
			if err != nil {
				lines <- 0
				return
			}
			lines <- res.StatusCode
			_, _ = io.Copy(io.Discard, res.Body)
			_ = res.Body.Close()
		}()
	}
	for range 3 {
		require.Equal(t, http.StatusOK, <-lines)
	}
	assert.NoError(t, p.stop(), "exit 0")
	assert.NotContains(t, p.logged(), "cut off", "nobody had to be waited for")
}

// A private database that dies is back by itself; until then whoever watches is told.
func TestTheDatabaseComesBack(t *testing.T) {
	home := t.TempDir()
	p := begin(t, nil, "serve", "--no-demo", "--port", "18160", "--data", home, "--watch", "127.0.0.1:18169")
	watch := "http://127.0.0.1:18169"
	require.Equal(t, 200, statusAt(t, p.base+"/readyz"))
	require.Equal(t, 200, statusAt(t, watch+"/readyz"))
	require.Equal(t, 200, statusAt(t, watch+"/metrics"))
	assert.NotEqual(t, 200, statusAt(t, p.base+"/metrics"), "not for the public")
	found, err := filepath.Glob(filepath.Join(home, "postgres", "cluster", "postmaster.pid"))
	require.NoError(t, err)
	if len(found) == 0 {
		found, err = filepath.Glob("/var/lib/earlychorus/*/cluster/postmaster.pid")
		require.NoError(t, err)
	}
	require.NotEmpty(t, found)
	newest := found[0]
	for _, f := range found {
		if age(t, f).After(age(t, newest)) {
			newest = f
		}
	}
	raw, err := os.ReadFile(newest)
	require.NoError(t, err)
	pid, err := strconv.Atoi(strings.Split(string(raw), "\n")[0])
	require.NoError(t, err)
	require.NoError(t, syscall.Kill(pid, syscall.SIGKILL))
	assert.Equal(t, 200, statusAt(t, p.base+"/healthz"), "alive all the same")
	require.Eventually(t, func() bool {
		return statusAt(t, p.base+"/readyz") == 200 && statusAt(t, p.base+"/api/me") == 200
	}, longestStep, 20*time.Millisecond)
	assert.NoError(t, p.stop())
}

func age(t *testing.T, file string) time.Time {
	t.Helper()
	info, err := os.Stat(file)
	require.NoError(t, err)
	return info.ModTime()
}
