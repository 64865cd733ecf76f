package recordings

import "syscall"

// Free returns how many bytes are free on the disk that recordings are on; 0 where that is not
// known, as of a bucket.
func (s *Store) Free() int64 {
	f, ok := s.objects.(*folder)
	if !ok {
		return 0
	}
	var disk syscall.Statfs_t
	if err := syscall.Statfs(f.root.Name(), &disk); err != nil {
		return 0
	}
	return int64(disk.Bavail) * disk.Bsize
}
