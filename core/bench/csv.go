package bench

import (
	"bytes"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"oarweed/core/problem"
	"oarweed/core/unit"
)

// Columns says how a file of readings is to be read. The zero value lets it be found out.
type Columns struct {
	// Separator between the columns: ";", ",", tab or " ".
	Separator string `json:"separator" doc:"; , tab or blank"`
	// DecimalComma: 0,5 is a half.
	DecimalComma bool `json:"decimal_comma"`
	// Header: the first line names the columns.
	Header bool `json:"header"`
	// Time and Force are the columns, from 1, and their units: s, ms or min; N, kN, kgf, lbf.
	Time      int    `json:"time"`
	Force     int    `json:"force"`
	TimeUnit  string `json:"time_unit"`
	ForceUnit string `json:"force_unit"`
	// Guessed is what was not said in the file and is taken for granted.
	Guessed []Guess `json:"guessed,omitempty" nullable:"false"`
}

// Guess is something about a file that it does not say.
type Guess string

const (
	GuessedTimeUnit  Guess = "time-unit"
	GuessedForceUnit Guess = "force-unit"
	GuessedColumns   Guess = "columns"
)

// MostReadings is how many readings a trace may have: an hour at a thousand a second.
const MostReadings = 4_000_000

// ReadCSV reads a trace, and says how it was read. How is what is known beforehand, nil if
// nothing is. The error names line and column.
func ReadCSV(text []byte, how *Columns) (Trace, Columns, error) {
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	var c Columns
	if how != nil {
		c = *how
	} else {
		var err error
		if c, err = Discover(text); err != nil {
			return Trace{}, c, err
		}
	}
	perS, perKN, err := c.scales()
	if err != nil {
		return Trace{}, c, err
	}
	sep := c.Separator[0]
	guess := min(bytes.Count(text, []byte{'\n'})+1, MostReadings)
	t := Trace{S: make([]float64, 0, guess), KN: make([]float64, 0, guess)}
	decimal := byte('.')
	if c.DecimalComma {
		decimal = ','
	}
	var cells [32][]byte
	for line, rest := 1, text; len(rest) > 0; line++ {
		row := rest
		if i := bytes.IndexByte(rest, '\n'); i >= 0 {
			row, rest = rest[:i], rest[i+1:]
		} else {
			rest = nil
		}
		row = bytes.TrimRight(row, "\r ")
		if len(row) == 0 || line == 1 && c.Header {
			continue
		}
		n := split(row, sep, cells[:])
		at := func(column int) (float64, error) {
			if column > n {
				return 0, problem.New(fmt.Sprintf("line %d", line), fmt.Sprintf("has %d columns, not %d", n, column), "complete or drop the line")
			}
			v, ok := decimalNumber(cells[column-1], decimal)
			if !ok {
				return 0, problem.New(fmt.Sprintf("line %d, column %d", line, column), fmt.Sprintf("%q is not a number", short(cells[column-1])), "correct or drop the line")
			}
			return v, nil
		}
		s, err := at(c.Time)
		if err != nil {
			return t, c, err
		}
		f, err := at(c.Force)
		if err != nil {
			return t, c, err
		}
		if s *= perS; len(t.S) > 0 && s < t.S[len(t.S)-1] {
			return t, c, problem.New(fmt.Sprintf("line %d, column %d", line, c.Time), "time runs backwards", "sort the lines by time, or import one pull at a time")
		}
		if len(t.S) == MostReadings {
			return t, c, problem.New(fmt.Sprintf("line %d", line), fmt.Sprintf("is beyond %d readings", MostReadings), "import one pull at a time")
		}
		t.S, t.KN = append(t.S, s), append(t.KN, f*perKN)
	}
	if len(t.S) < 3 {
		return t, c, problem.New("file", fmt.Sprintf("has %d readings", len(t.S)), "give time and force, one reading a line")
	}
	return t, c, nil
}

func (c Columns) scales() (perS, perKN float64, err error) {
	var l problem.List
	if len(c.Separator) != 1 || !strings.Contains(";,\t ", c.Separator) {
		l.Add("separator", fmt.Sprintf("%q is none", c.Separator), "use ; , tab or blank")
	}
	if c.DecimalComma && c.Separator == "," {
		l.Add("decimal_comma", "commas cannot stand between columns and within numbers", "choose another separator")
	}
	for name, v := range map[string]int{"time": c.Time, "force": c.Force} {
		if v < 1 || v > 32 {
			l.Add(name, fmt.Sprintf("%d is no column", v), "count from 1, to 32")
		}
	}
	if c.Time == c.Force {
		l.Add("force", "is the column of the time", "choose another")
	}
	perS, ok := map[string]float64{"s": 1, "ms": 1e-3, "min": 60}[c.TimeUnit]
	if !ok {
		l.Add("time_unit", fmt.Sprintf("%q is not a unit of time", c.TimeUnit), "use s, ms or min")
	}
	f, err := unit.ParseForce("1 "+c.ForceUnit, unit.Newton)
	if err != nil || c.ForceUnit == "" {
		l.Add("force_unit", fmt.Sprintf("%q is not a unit of force", c.ForceUnit), "use N, kN, kgf or lbf")
	}
	return perS, f.KN(), l.Err()
}

// Discover finds out how a file is written from its first lines.
func Discover(text []byte) (Columns, error) {
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	var lines [][]byte
	for l := range bytes.Lines(text) {
		if l = bytes.TrimSpace(l); len(l) > 0 {
			lines = append(lines, l)
		}
		if len(lines) == 12 {
			break
		}
	}
	if len(lines) == 0 {
		return Columns{}, problem.New("file", "is empty", "give time and force, one reading a line")
	}
	data := lines[1:]
	if len(data) == 0 {
		data = lines
	}
	var c Columns
	// The first separator that most lines of readings have: one may be cut short.
	for _, sep := range []string{";", "\t", ",", " "} {
		if 2*having(data, sep) > len(data) {
			c.Separator = sep
			break
		}
	}
	if c.Separator == "" {
		return c, problem.New("line 2", fmt.Sprintf("%q has one column", short(data[0])), "separate time and force by ; , tab or blank")
	}
	c.DecimalComma = c.Separator != "," && bytes.ContainsRune(bytes.Join(data, nil), ',')
	if c.Separator == "," && all(data, func(l []byte) bool { return bytes.Count(l, []byte(",")) == 3 && !bytes.ContainsRune(l, '.') }) {
		return c, problem.New("line 2", fmt.Sprintf("%q: commas stand between the columns and within the numbers", short(data[0])), "separate the columns by ;")
	}
	decimal := byte('.')
	if c.DecimalComma {
		decimal = ','
	}
	var cells [32][]byte
	head := lines[0]
	n := split(head, c.Separator[0], cells[:])
	numeric := func(cell []byte) bool { _, ok := decimalNumber(cell, decimal); return ok }
	numbers := 0
	for _, cell := range cells[:n] {
		if numeric(cell) {
			numbers++
		}
	}
	c.Header = numbers < 2
	names := make([]string, n)
	if c.Header {
		for i, cell := range cells[:n] {
			names[i] = strings.ToLower(string(bytes.Trim(cell, `"' `)))
		}
	}
	c.Time, c.TimeUnit = column(names, timeNames, timeUnits)
	c.Force, c.ForceUnit = column(names, forceNames, forceUnits)
	if c.Time == 0 || c.Force == 0 {
		c.Time, c.Force = firstTwo(data, c.Separator[0], decimal)
		if c.Header || len(names) != 2 {
			c.Guessed = append(c.Guessed, GuessedColumns)
		}
	}
	if c.ForceUnit == "" { // a cell's own stream says it on every line
		k := split(data[0], c.Separator[0], cells[:])
		for _, cell := range cells[:k] {
			if u := strings.ToLower(string(bytes.TrimSpace(cell))); slices.Contains(forceUnits, u) {
				c.ForceUnit = u
			}
		}
	}
	if c.TimeUnit == "" {
		c.TimeUnit, c.Guessed = "s", append(c.Guessed, GuessedTimeUnit)
	}
	if c.ForceUnit == "" {
		c.ForceUnit, c.Guessed = "kn", append(c.Guessed, GuessedForceUnit)
	}
	return c, nil
}

var (
	timeNames  = []string{"time", "t", "zeit", "temps", "tempo", "tiempo", "seconds", "elapsed"}
	forceNames = []string{"force", "load", "f", "kraft", "last", "kracht", "forza", "fuerza", "charge", "tension", "pull"}
	timeUnits  = []string{"s", "ms", "min", "sec"}
	forceUnits = []string{"n", "kn", "kgf", "kg", "lbf", "lb", "lbs"}
)

// column finds the first column that a name begins, and the unit beside it, as in "Force [kN]",
// "load_kn" or "t (ms)".
func column(names, known, units []string) (int, string) {
	for i, name := range names {
		words := strings.FieldsFunc(name, func(r rune) bool { return strings.ContainsRune(" _()[]/,.:-", r) })
		if len(words) == 0 || !slices.Contains(known, words[0]) {
			continue
		}
		for _, w := range words[1:] {
			if slices.Contains(units, w) {
				if w == "sec" {
					w = "s"
				}
				return i + 1, w
			}
		}
		return i + 1, ""
	}
	return 0, ""
}

// firstTwo are the first two columns that hold numbers.
func firstTwo(data [][]byte, sep, decimal byte) (int, int) {
	var cells [32][]byte
	var found []int
	n := split(data[0], sep, cells[:])
	for i, cell := range cells[:n] {
		if _, ok := decimalNumber(cell, decimal); ok {
			found = append(found, i+1)
		}
	}
	if len(found) < 2 {
		return 1, 2
	}
	return found[0], found[1]
}

func having(lines [][]byte, sep string) (n int) {
	for _, l := range lines {
		if bytes.Contains(l, []byte(sep)) {
			n++
		}
	}
	return n
}

func all(lines [][]byte, ok func([]byte) bool) bool {
	return !slices.ContainsFunc(lines, func(l []byte) bool { return !ok(l) })
}

// split cuts a line at its separator; runs of blanks are one.
func split(row []byte, sep byte, cells [][]byte) int {
	n := 0
	for n < len(cells) {
		i := bytes.IndexByte(row, sep)
		if i < 0 {
			cells[n] = row
			return n + 1
		}
		if cell := row[:i]; sep != ' ' || len(cell) > 0 {
			cells[n] = cell
			n++
		}
		row = row[i+1:]
	}
	return n
}

// decimalNumber reads what a logger writes: sign, digits, a point. Exponents and all else go
// the long way.
func decimalNumber(b []byte, decimal byte) (float64, bool) {
	b = bytes.TrimSpace(b)
	i, negative := 0, false
	if len(b) > 0 && (b[0] == '-' || b[0] == '+') {
		negative, i = b[0] == '-', 1
	}
	var whole uint64
	digits, places := 0, -1
	for ; i < len(b); i++ {
		switch ch := b[i]; {
		case ch >= '0' && ch <= '9':
			whole = whole*10 + uint64(ch-'0')
			digits++
			if places >= 0 {
				places++
			}
		case ch == decimal && places < 0:
			places = 0
		default:
			return longNumber(b, decimal)
		}
	}
	if digits == 0 || digits > 15 { // 15 digits and a power of ten are exact
		return longNumber(b, decimal)
	}
	v := float64(whole)
	if places > 0 {
		v /= tens[places]
	}
	if negative {
		v = -v
	}
	return v, true
}

var tens = [16]float64{1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15}

func longNumber(b []byte, decimal byte) (float64, bool) {
	s := string(bytes.Trim(b, `"' `))
	if decimal != '.' {
		s = strings.Replace(s, string(decimal), ".", 1)
	}
	v, err := strconv.ParseFloat(s, 64)
	return v, err == nil && !math.IsNaN(v) && !math.IsInf(v, 0)
}

func short(b []byte) string {
	if len(b) > 40 {
		return string(b[:40]) + "…"
	}
	return string(b)
}

// WriteCSV writes a trace with units in its header; [ReadCSV] reads it back equal.
func WriteCSV(t Trace) []byte {
	out := []byte("time (s),force (kN)\n")
	for i := range t.S {
		out = strconv.AppendFloat(out, t.S[i], 'f', -1, 64)
		out = append(out, ',')
		out = strconv.AppendFloat(out, t.KN[i], 'f', -1, 64)
		out = append(out, '\n')
	}
	return out
}
