package app_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/lesson"
	"oarweed/core/practice"
	"oarweed/internal/app"
	"oarweed/internal/store"
)

func schoolWithRecords(t *testing.T) (*app.School, string) {
	t.Helper()
	c, err := catalogue.Load()
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "x.db")
	st, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	s, err := app.NewSchool(t.Context(), c, st, app.NewGate(4))
	require.NoError(t, err)
	return s, path
}

// taken is a JPEG with a place in its Exif block, as phones write it.
func taken(t *testing.T) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 64, 48))
	img.Set(3, 3, color.RGBA{200, 20, 20, 255})
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, nil))
	exif := []byte("Exif\x00\x00GPSLatitude 54.4321 N, Tangholm, a phone of some kind")
	block := append([]byte{0xff, 0xe1, byte((len(exif) + 2) >> 8), byte(len(exif) + 2)}, exif...)
	return append(append(bytes.Clone(b.Bytes()[:2]), block...), b.Bytes()[2:]...)
}

func TestAPhotoLosesItsPlaceAndGoesWithItsLearner(t *testing.T) {
	s, path := schoolWithRecords(t)
	ctx := t.Context()
	l, _, err := s.AddLearner(ctx, practice.Learner{Name: "Ailsa"})
	require.NoError(t, err)
	data := taken(t)
	require.Contains(t, string(data), "GPSLatitude")
	id, err := s.AddPhoto(ctx, "k", l.ID, data)
	require.NoError(t, err)
	again, err := s.AddPhoto(ctx, "k", l.ID, data)
	require.NoError(t, err)
	assert.Equal(t, id, again, "sent twice it is one")
	kept, err := s.Records().Photo(ctx, id)
	require.NoError(t, err)
	assert.NotContains(t, string(kept), "GPSLatitude")
	_, err = jpeg.Decode(bytes.NewReader(kept))
	require.NoError(t, err)
	for _, bad := range [][]byte{nil, []byte("no picture"), data[:40]} {
		_, err := s.AddPhoto(ctx, "", 0, bad)
		assert.ErrorContains(t, err, "data")
	}
	require.NoError(t, s.EraseLearner(ctx, l.ID))
	_, err = s.Records().Photo(ctx, id)
	assert.ErrorIs(t, err, app.ErrNotFound)
	require.NoError(t, store.Verify(ctx, path))
}

func TestBoardPersonDueAndNext(t *testing.T) {
	s, _ := schoolWithRecords(t)
	ctx := t.Context()
	var ids []int64
	for _, name := range []string{"Ailsa", "Bram", "Corin"} {
		l, _, err := s.AddLearner(ctx, practice.Learner{Name: name, Groups: []string{"Evening"}})
		require.NoError(t, err)
		ids = append(ids, l.ID)
	}
	add := func(learner int64, knot string, o practice.Outcome, fault, conditions, side string) {
		t.Helper()
		_, _, err := s.AddAttempt(ctx, practice.Attempt{LearnerID: learner, Knot: knot, Outcome: o, Fault: fault, Conditions: conditions, Side: side, Seconds: 9})
		require.NoError(t, err)
	}
	for _, id := range ids {
		add(id, "bowline", practice.Right, "", "dry", "")
	}
	add(ids[0], "cleat-hitch", practice.Right, "", "wet,gloves", "right")
	add(ids[1], "clove-hitch", practice.Fault, "crossed-wrong", "dry", "")
	add(ids[1], "clove-hitch", practice.Fault, "crossed-wrong", "dry", "")
	b, err := s.Board(ctx, "Evening", nil)
	require.NoError(t, err)
	require.Len(t, b.Rows, 3)
	assert.Equal(t, app.Cell{Level: int(practice.InTime)}, b.Rows[0].Cells["bowline"])
	assert.Equal(t, app.Cell{Level: int(practice.Wet)}, b.Rows[0].Cells["cleat-hitch"])
	assert.Equal(t, app.Cell{Fault: 2}, b.Rows[1].Cells["clove-hitch"])
	require.NotEmpty(t, b.Next)
	assert.Equal(t, "clove-hitch", b.Next[0].Knot, "a fault twice running comes first")
	var next []string
	for _, n := range b.Next {
		next = append(next, n.Knot)
	}
	assert.Contains(t, next, "sheet-bend", "all can tie the bowline")
	p, err := s.Person(ctx, ids[0])
	require.NoError(t, err)
	assert.Contains(t, p.Notes[0], "shown on the right only")
	list, err := s.Due(ctx, ids[1], p.Standings[0].Last.AddDate(0, 1, 0), 10)
	require.NoError(t, err)
	require.NotEmpty(t, list)
	assert.Equal(t, "clove-hitch", list[0].Knot)
	assert.Contains(t, list[0].Says, "twice")
	r, err := s.Round(ctx, app.RoundQuery{Knot: "bowline", Group: "Evening", Attempts: []practice.Attempt{
		{LearnerID: ids[0], Knot: "bowline", Outcome: practice.Right}, {LearnerID: ids[1], Knot: "bowline", Outcome: practice.Fault, Fault: "tail-short"},
		{LearnerID: ids[2], Knot: "bowline", Outcome: practice.Fault, Fault: "tail-short"}}})
	require.NoError(t, err)
	assert.Contains(t, r.Says, "Two of three: tail too short.")
	// Taken back, it never was.
	attempts, _, err := s.Records().Attempts(ctx, app.Filter{LearnerID: ids[1], Knot: "clove-hitch"}, app.Page{Limit: 10})
	require.NoError(t, err)
	require.NoError(t, s.Records().DeleteAttempt(ctx, attempts[0].ID))
	b, err = s.Board(ctx, "", nil)
	require.NoError(t, err)
	assert.Equal(t, app.Cell{Fault: 1}, b.Rows[1].Cells["clove-hitch"])
	// One person twice: merged, all counts.
	_, err = s.MergeLearners(ctx, ids[1], ids[0])
	require.NoError(t, err)
	b, err = s.Board(ctx, "", nil)
	require.NoError(t, err)
	require.Len(t, b.Rows, 2)
	assert.Equal(t, app.Cell{Fault: 1}, b.Rows[0].Cells["clove-hitch"])
}

func TestMinutesLearnFromWhatHappened(t *testing.T) {
	s, _ := schoolWithRecords(t)
	ctx := t.Context()
	q := lesson.Request{Minutes: 90, Learners: 6, Knots: []string{"bowline", "clove-hitch"}}
	before, err := s.PlanLesson(ctx, q)
	require.NoError(t, err)
	l, err := s.SaveLesson(ctx, app.Lesson{Name: "First", Request: q, Took: map[string]float64{"bowline": 40}, Held: true})
	require.NoError(t, err)
	after, err := s.PlanLesson(ctx, q)
	require.NoError(t, err)
	assert.Greater(t, after.Learned["bowline"], 1.3)
	assert.Greater(t, after.Plan.Minutes, before.Plan.Minutes)
	l.Unlearned = true
	_, err = s.SaveLesson(ctx, l)
	require.NoError(t, err)
	reset, err := s.PlanLesson(ctx, q)
	require.NoError(t, err)
	assert.Equal(t, before.Plan.Minutes, reset.Plan.Minutes)
	_, err = s.SaveLesson(ctx, l)
	var c *app.Conflict
	require.ErrorAs(t, err, &c, "somebody changed it meanwhile")
	assert.IsType(t, app.Lesson{}, c.Kept)
}
