package locker_test

import (
	"fmt"
	"log"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/locker"
	"oarweed/core/problem"
	"oarweed/core/rig"
)

func Example() {
	c, err := catalogue.Load()
	if err != nil {
		log.Fatal(err)
	}
	l := locker.Line{Name: "Bow line", Line: rig.Line{Material: "polyester", DiameterMM: 12}}
	fmt.Println(l.Check(&c.Vocabulary), l.Construction)
	// Output: <nil> laid
}

func TestWrongLinesNameTheirFields(t *testing.T) {
	c, err := catalogue.Load()
	require.NoError(t, err)
	l := locker.Line{Name: " ", Note: strings.Repeat("x", 401), Line: rig.Line{Material: "string", DiameterMM: -1}}
	var fields []string
	for _, f := range problem.Fields(l.Check(&c.Vocabulary)) {
		fields = append(fields, f.Path)
	}
	assert.Subset(t, fields, []string{"name", "note", "material"})
}
