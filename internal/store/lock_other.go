//go:build !unix

package store

import "os"

// lockFile does nothing where files cannot be locked this way: two servers on one file
// then still write safely one after the other, but a doctrine chosen on one is not taught
// by the other until it starts again.
func lockFile(*os.File) error { return nil }
