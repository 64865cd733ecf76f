package postgres

import (
	"crypto/sha256"
	"fmt"
	"os"
	"os/user"
	"path/filepath"
	"strconv"
	"syscall"
)

// account is who the server runs as: ourselves, or Debian's postgres user when
// we are root, which PostgreSQL refuses to be.
type account struct {
	credential *syscall.Credential
	uid, gid   int
}

// serverAccount is who runs the database. It refuses to run as root, so that root
// starts it as the account Debian's package made.
func serverAccount() (account, error) {
	if os.Geteuid() != 0 {
		return account{uid: os.Getuid(), gid: os.Getgid()}, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return account{}, fmt.Errorf(
			"postgres: PostgreSQL refuses to run as root, and there is no user postgres: %w",
			err,
		)
	}
	uid, _ := strconv.Atoi(u.Uid) // numbers, as getpwnam gives them
	gid, _ := strconv.Atoi(u.Gid)
	return account{&syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, uid, gid}, nil
}

// own gives files to the database's account. Without root there is nothing to give:
// they are ours, and it is ours.
func (a account) own(paths ...string) error {
	if a.credential == nil {
		return nil
	}
	for _, p := range paths {
		if err := os.Chown(p, a.uid, a.gid); err != nil {
			return fmt.Errorf("postgres: %w", err)
		}
	}
	return nil
}

// elsewhere is where the files go when the account may not enter the wanted
// folder, such as one inside root's home.
const elsewhere = "/var/lib/earlychorus"

// reachable returns folder, or a folder of its own under elsewhere when a
// parent keeps the account out.
func (a account) reachable(folder string) string {
	if a.credential == nil {
		return folder
	}
	for dir := filepath.Dir(folder); ; dir = filepath.Dir(dir) {
		info, err := os.Stat(dir)
		if err == nil && info.Mode().Perm()&0o001 == 0 {
			return filepath.Join(elsewhere, fmt.Sprintf("%x", sha256.Sum256([]byte(folder)))[:12])
		}
		if dir == filepath.Dir(dir) {
			return folder
		}
	}
}
