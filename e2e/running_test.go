package e2e

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/x509"
	"encoding/pem"
	"math/big"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/store/storetest"
)

// Every command that docs/running.md tells somebody to type is typed here, in its order, with
// this machine's own places in the place of the example's.
func TestEveryCommandOfTheManualRuns(t *testing.T) {
	page, err := os.ReadFile("../docs/running.md")
	require.NoError(t, err)
	folder := t.TempDir()
	place := func(name string) string { return filepath.Join(folder, name) }
	certificate(t, place("cert.pem"), place("key.pem"))
	// Several machines have a database of their own: it belongs to its recordings.
	sounds, dsn, shared := bucket(t), storetest.DSN(t), storetest.DSN(t)
	ours := map[string]string{
		"/backups":           place("backups"),
		"/srv/earlychorus":   place("data"),
		"/new/folder":        place("new"),
		"URL":                shared,
		"s3://sounds/ours":   sounds,
		"cert.pem":           place("cert.pem"),
		"key.pem":            place("key.pem"),
		"443":                "18290",
		"0.0.0.0":            "127.0.0.1",
		"odile@tern.example": "isolde@tern.example",
	}
	run, port := 0, 18300
	for line := range strings.Lines(string(page)) {
		typed, ok := strings.CutPrefix(strings.TrimSpace(line), "earlychorus ")
		if !ok {
			continue
		}
		typed, _, _ = strings.Cut(typed, " #")
		args := words(typed)
		for n, a := range args {
			if own, ok := ours[a]; ok {
				args[n] = own
			}
		}
		run++
		switch args[0] {
		case "serve", "worker":
			port++
			env := append([]string{"EARLYCHORUS_SMTP_PASSWORD=none"}, keysToBucket...)
			p := begin(t, env, ready(args, place("data"), dsn, port)...)
			assert.NoError(t, p.stop(), typed)
		case "restore":
			// An empty database and new recordings: those of the folder that is named.
			said, err := command(t, nil, args...)
			assert.NoError(t, err, "%s: %s", typed, said)
		default:
			// Beside no server, the database of the folder is asked for by its own name.
			said, err := command(t, nil, append(args, "--data", place("data"), "--database", dsn)...)
			if args[0] == "director" && args[1] == "remove" {
				assert.Contains(t, said, "Somebody has to administer the school", "she is the only one")
				continue
			}
			assert.NoError(t, err, "%s: %s", typed, said)
		}
	}
	assert.Greater(t, run, 15, "the manual's commands are found")
}

// ready are a server's words, with a port and a database of the test's where none is named.
func ready(args []string, data, dsn string, port int) []string {
	named := func(flag string) bool { return strings.Contains(strings.Join(args, " "), flag) }
	if args[0] == "serve" && !named("--port") {
		args = append(args, "--port", strconv.Itoa(port))
	}
	if !named("--database") {
		args = append(args, "--database", dsn)
	}
	if !named("--data ") {
		args = append(args, "--data", data)
	}
	return args
}

// words are a line's, as a shell takes it apart.
func words(line string) (out []string) {
	for n, part := range strings.Split(line, `"`) {
		if n%2 == 1 {
			out = append(out, part)
			continue
		}
		out = append(out, strings.Fields(part)...)
	}
	return out
}

// certificate writes one for this machine, good for the test.
func certificate(t *testing.T, cert, key string) {
	t.Helper()
	own, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	require.NoError(t, err)
	shape := x509.Certificate{
		SerialNumber: big.NewInt(1),
		DNSNames:     []string{"band.example.org"},
		NotAfter:     time.Now().Add(time.Hour),
	}
	raw, err := x509.CreateCertificate(rand.Reader, &shape, &shape, own.Public(), own)
	require.NoError(t, err)
	secret, err := x509.MarshalECPrivateKey(own)
	require.NoError(t, err)
	write := func(name, kind string, bytes []byte) {
		require.NoError(t, os.WriteFile(name, pem.EncodeToMemory(&pem.Block{Type: kind, Bytes: bytes}), 0o600))
	}
	write(cert, "CERTIFICATE", raw)
	write(key, "EC PRIVATE KEY", secret)
}
