package nmea_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/nmea"
)

// Forms of the sentences from memory; their checksums were worked out by the definition.
func TestWindSentences(t *testing.T) {
	for body, want := range map[string]nmea.Wind{
		"WIMWV,045.0,R,12.5,N,A":              {Kn: 12.5, FromDeg: 45, Relative: true},
		"WIMWV,214.8,T,10.0,M,A":              {Kn: 19.438, FromDeg: 214.8, Relative: true, True: true},
		"IIMWV,010,R,36.0,K,A":                {Kn: 19.438, FromDeg: 10, Relative: true},
		"WIMWD,270.0,T,268.0,M,22.0,N,11.3,M": {Kn: 22, FromDeg: 270, True: true},
		"WIMWD,,T,268.0,M,,N,10.0,M":          {Kn: 19.438, FromDeg: 268, True: true},
		"IIVWR,060,L,15.0,N,7.7,M,27.8,K":     {Kn: 15, FromDeg: 300, Relative: true},
		"IIVWR,000,R,15.0,N,7.7,M,27.8,K":     {Kn: 15, Relative: true},
	} {
		got, err := nmea.Read(nmea.Sentence(body))
		require.NoError(t, err, body)
		assert.InDelta(t, want.Kn, got.Kn, 1e-3, body)
		got.Kn = want.Kn
		assert.Equal(t, want, got, body)
	}
}

// By hand: the exclusive or of the bytes of "A,B" is 41 ^ 2C ^ 42 = 2F.
func TestChecksum(t *testing.T) {
	assert.Equal(t, byte(0x2f), nmea.Checksum("A,B"))
	assert.Equal(t, "$A,B*2F\r\n", nmea.Sentence("A,B"))
}

func TestLinesThatSayNothing(t *testing.T) {
	good := nmea.Sentence("WIMWV,045.0,R,12.5,N,A")
	for line, want := range map[string]error{
		"": nmea.ErrNone, "hello": nmea.ErrNone, "$WIMWV,045.0,R,12.5,N,A": nmea.ErrChecksum, good[:len(good)-3] + "\r\n": nmea.ErrChecksum,
		"$WIMWV,046.0,R,12.5,N,A" + good[len(good)-5:]: nmea.ErrChecksum,
		nmea.Sentence("WIMWV,045.0,R,12.5,N,V"):        nmea.ErrInvalid,
		nmea.Sentence("WIMWV,045.0,R,,N,A"):            nmea.ErrFields,
		nmea.Sentence("WIMWV,045.0,R,12.5,furlongs,A"): nmea.ErrFields,
		nmea.Sentence("WIMWV,-45,R,12.5,N,A"):          nmea.ErrFields,
		nmea.Sentence("WIMWV,045.0"):                   nmea.ErrFields,
		nmea.Sentence("GPGGA,1,2,3"):                   nmea.ErrOther,
	} {
		_, err := nmea.Read(line)
		assert.ErrorIs(t, err, want, line)
	}
}

// One byte turned in a sentence is always noticed.
func TestATornSentenceIsNoticed(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		good := []byte(nmea.Sentence("WIMWV,123.4,T,23.4,N,A"))
		i := rapid.IntRange(1, len(good)-3).Draw(t, "at")
		flip := byte(rapid.IntRange(1, 127).Draw(t, "bits"))
		good[i] ^= flip
		w, err := nmea.Read(string(good))
		if err == nil && (w.Kn != 23.4 || w.FromDeg != 123.4) {
			t.Fatalf("%q read as %+v", good, w)
		}
	})
}

func FuzzRead(f *testing.F) {
	f.Add(nmea.Sentence("WIMWV,045.0,R,12.5,N,A"))
	f.Add("$*00")
	f.Fuzz(func(t *testing.T, line string) {
		if w, err := nmea.Read(line); err == nil && !(w.Kn >= 0 && w.Kn <= 250 && w.FromDeg >= 0 && w.FromDeg <= 360) {
			t.Fatalf("%q: %+v", line, w)
		}
	})
}
