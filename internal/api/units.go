package api

import (
	"bytes"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"oarweed/core/unit"
)

// unitsHeader names the units in which texts are wanted: kn, kgf or in, and kg for
// fishing line in kilograms, as in "in, kg".
const unitsHeader = "Units"

// asKept are the routes whose texts are people's own, or are read by the page as they
// are: nothing in them is said otherwise.
var asKept = []string{"/rigs", "/lines", "/learners", "/attempts", "/board", "/class-report", "/due", "/lessons", "/roster", "/log.", "/feeds", "/quay-rounds", "/gear", "/photos", "/me", "/session", "/join", "/inspections", "/doctrines", "/catalogue", "/quantity", "/map", "/schema",
	"/locker", "/uses", "/leaders", "/tow-lines", "/moorings", "/wind", "/files"}

// worked are those below them that only say what is worked out.
var worked = []string{"/moorings/solve", "/leaders/trip"}

// inUnits says the quantities in the texts of an answer in the units asked for. Numbers of
// a document stay as their names say them.
func inUnits(c *gin.Context) {
	asked := c.GetHeader(unitsHeader)
	if asked == "" {
		return
	}
	system, err := unit.ParseSystem(asked)
	if err != nil {
		problemOn(c, newProblem(http.StatusBadRequest, err.Error()))
		c.Abort()
		return
	}
	c.Header("Vary", unitsHeader)
	path := strings.TrimPrefix(c.Request.URL.Path, Base)
	under := func(p string) bool { return strings.HasPrefix(path, p) }
	if slices.ContainsFunc(asKept, under) && !slices.ContainsFunc(worked, under) {
		return
	}
	held := &heldBack{ResponseWriter: c.Writer}
	c.Writer = held
	c.Next()
	c.Writer = held.ResponseWriter
	body := held.body.Bytes()
	if strings.Contains(c.Writer.Header().Get("Content-Type"), "json") {
		body = []byte(system.Restate(held.body.String()))
	}
	if len(body) > 0 {
		_, _ = c.Writer.Write(body)
	}
}

// heldBack keeps what is written until it is known whole.
type heldBack struct {
	gin.ResponseWriter
	body bytes.Buffer
}

func (h *heldBack) Write(b []byte) (int, error)       { return h.body.Write(b) }
func (h *heldBack) WriteString(s string) (int, error) { return h.body.WriteString(s) }
func (h *heldBack) WriteHeaderNow()                   {}
func (h *heldBack) Flush()                            {}
