package store

import (
	"database/sql/driver"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"math"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"

	"oarweed/core/name"
	"oarweed/core/problem"
)

func init() {
	// fold(name) is equal for names that a person would call the same.
	sqlite.MustRegisterDeterministicScalarFunction("fold", 1, func(_ *sqlite.FunctionContext, args []driver.Value) (driver.Value, error) {
		s, _ := args[0].(string)
		return name.Key(s), nil
	})
	// checksum(…) of all that a row says.
	sqlite.MustRegisterDeterministicScalarFunction("checksum", -1, func(_ *sqlite.FunctionContext, args []driver.Value) (driver.Value, error) {
		h := crc32.NewIEEE()
		for _, a := range args {
			switch v := a.(type) {
			case nil:
				_, _ = h.Write([]byte{0})
			case int64:
				_ = binary.Write(h, binary.BigEndian, float64(v)) // 5 and 5.0 are the same to SQLite
			case float64:
				_ = binary.Write(h, binary.BigEndian, math.Float64bits(v))
			case string:
				_, _ = fmt.Fprintf(h, "%d:%s", len(v), v)
			case []byte:
				_, _ = fmt.Fprintf(h, "%d:", len(v))
				_, _ = h.Write(v)
			default:
				return nil, fmt.Errorf("checksum of a %T", a)
			}
		}
		return int64(h.Sum32()), nil
	})
}

// plain puts what SQLite says of the disk into words that help.
func plain(err error) error {
	var s *sqlite.Error
	if !errors.As(err, &s) {
		return err
	}
	switch s.Code() & 0xff {
	case sqlite3.SQLITE_FULL:
		return problem.New("", "the disk is full: nothing was saved", "make room on it, then save again")
	case sqlite3.SQLITE_READONLY:
		return problem.New("", "the database cannot be written: nothing was saved", "allow writing to the file and its folder")
	}
	return err
}
