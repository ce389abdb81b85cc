package sheet_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"oarweed/core/sheet"
)

type leg struct {
	Side string
	M    float64
}

type thing struct {
	Name string
	N    int
	Legs []leg
}

var things = sheet.Sheet[thing]{
	Columns: []sheet.Column[thing]{sheet.Text("name", func(t *thing) *string { return &t.Name }), sheet.Int("n", func(t *thing) *int { return &t.N })},
	Parts: &sheet.Parts[thing]{N: func(t *thing) int { return len(t.Legs) }, Grow: func(t *thing) { t.Legs = append(t.Legs, leg{}) },
		Columns: []sheet.PartColumn[thing]{
			sheet.Part(sheet.Text("side", func(l *leg) *string { return &l.Side }), func(t *thing, i int) *leg { return &t.Legs[i] }),
			sheet.Part(sheet.Num("m", func(l *leg) *float64 { return &l.M }), func(t *thing, i int) *leg { return &t.Legs[i] })}},
}

func Example() {
	for _, row := range things.Write([]thing{{"tow line", 2, []leg{{"port", 1.5}, {"starboard", -2}}}}) {
		fmt.Println(row)
	}
	// Output:
	// [name n side m]
	// [tow line 2 port 1.5]
	// [tow line  starboard -2]
}

// What is written is read back the same, whatever it holds.
func TestWhatIsWrittenIsReadBack(t *testing.T) {
	word := rapid.StringMatching(`[a-z=+@'-][a-zé ]{0,8}[a-z]`)
	rapid.Check(t, func(t *rapid.T) {
		var list []thing
		for i := range rapid.IntRange(0, 5).Draw(t, "things") {
			x := thing{Name: fmt.Sprint("t", i), N: rapid.IntRange(-9, 9).Draw(t, "n")}
			for range rapid.IntRange(0, 4).Draw(t, "legs") {
				x.Legs = append(x.Legs, leg{"s" + word.Draw(t, "side"), rapid.Float64Range(-100, 100).Draw(t, "m")})
			}
			list = append(list, x)
		}
		got, unknown, err := things.Read(things.Write(list), func() thing { return thing{} })
		require.NoError(t, err)
		require.Empty(t, unknown)
		require.Len(t, got, len(list))
		for i := range list {
			require.Equal(t, list[i], got[i].Record)
		}
	})
}

func TestAWrongCellIsNamedByRowAndColumn(t *testing.T) {
	_, unknown, err := things.Read([][]string{{"\ufeffM", "Name", "colour"}, {"1,5", "a"}, {"much", "a"}, {"", "", ""}, {"3", ""}}, func() thing { return thing{} })
	assert.ErrorContains(t, err, "row 3, m")
	assert.ErrorContains(t, err, "row 5, name")
	assert.Equal(t, []string{"colour"}, unknown)
	got, _, err := things.Read([][]string{{"m", "name", "n"}, {"1,5", "a", "3"}, {"'-2", "b", ""}}, func() thing { return thing{} })
	require.NoError(t, err)
	assert.Equal(t, thing{"a", 3, []leg{{"", 1.5}}}, got[0].Record)
	assert.Equal(t, -2.0, got[1].Record.Legs[0].M)
	assert.Equal(t, 3, got[1].Row)
	_, _, err = things.Read([][]string{{"n"}, {"3"}}, func() thing { return thing{} })
	assert.ErrorContains(t, err, "has no column name")
	_, _, err = things.Read([][]string{{"name", "n"}, {"a", "1.5"}}, func() thing { return thing{} })
	assert.ErrorContains(t, err, "row 2, n")
	_, _, err = things.Read(nil, func() thing { return thing{} })
	assert.ErrorContains(t, err, "file")
}
