//go:build unix

package store

import (
	"os"
	"syscall"
)

// lockFile takes the file for this process; it is let go when the file is closed, or the
// process ends however it ends.
func lockFile(f *os.File) error { return syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB) }
