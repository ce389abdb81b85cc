package sheet_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// Whatever a table holds, what is read of it is written and read again the same.
func FuzzRead(f *testing.F) {
	f.Add("name|n|side|m\ntow line|2|port|1,5\ntow line||starboard|'-2")
	f.Add("m|name\n1|a\nx|")
	f.Add("n\n3")
	f.Add("\ufeffName|N\n|\na|1e400")
	f.Fuzz(func(t *testing.T, text string) {
		var table [][]string
		for row := range strings.SplitSeq(text, "\n") {
			table = append(table, strings.Split(row, "|"))
		}
		read, _, err := things.Read(table, func() thing { return thing{} })
		if err != nil {
			return
		}
		var list []thing
		for _, r := range read {
			list = append(list, r.Record)
		}
		again, _, err := things.Read(things.Write(list), func() thing { return thing{} })
		require.NoError(t, err)
		require.Len(t, again, len(list))
		for i := range list {
			// An empty part leaves no row of its own when it stands alone.
			for k := 0; k < len(list[i].Legs); k++ {
				if list[i].Legs[k] == (leg{}) {
					list[i].Legs = append(list[i].Legs[:k], list[i].Legs[k+1:]...)
					k--
				}
			}
			require.Equal(t, list[i].Name, again[i].Record.Name)
			require.Equal(t, list[i].N, again[i].Record.N)
			require.Equal(t, len(list[i].Legs), len(again[i].Record.Legs))
		}
	})
}
