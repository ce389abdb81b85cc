package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"oarweed/core/lesson"
	"oarweed/core/practice"
	"oarweed/core/say"
	"oarweed/internal/app"
	"oarweed/internal/export"
)

func teaching(a huma.API) {
	huma.Register(a, op("teaching", "board", http.MethodGet, "/board", "Who can what, and what the class is taught next"),
		func(ctx context.Context, in *struct {
			Group string   `query:"group" maxLength:"80" doc:"left out: all who are not archived"`
			Among []string `query:"among" maxItems:"200" doc:"what is taught next is one of these"`
		}) (*body[*app.Board], error) {
			out, err := of(ctx).Board(ctx, in.Group, in.Among)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "class-report", http.MethodGet, "/class-report", "What a class shows at each knot: who can, how long it took, which faults"),
		func(ctx context.Context, in *struct {
			Group string `query:"group" maxLength:"80"`
		}) (*body[*app.ClassReport], error) {
			out, err := of(ctx).ClassReport(ctx, in.Group)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "due", http.MethodGet, "/due", "What should be tied again, the most urgent first"),
		func(ctx context.Context, in *struct {
			Learner int64 `query:"learner" doc:"left out: all"`
			Limit   int   `query:"limit" default:"200" minimum:"1" maximum:"2000"`
		}) (*body[[]app.DueKnot], error) {
			out, err := of(ctx).Due(ctx, in.Learner, time.Now(), in.Limit)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "person", http.MethodGet, "/learners/{id}/page", "A learner with all that he can"),
		func(ctx context.Context, in *IDPath) (*body[*app.Person], error) {
			out, err := of(ctx).Person(ctx, in.ID)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "round", http.MethodPost, "/round", "What a round at a knot shows"),
		func(ctx context.Context, in *struct{ Body app.RoundQuery }) (*body[*app.RoundAnswer], error) {
			out, err := of(ctx).Round(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "memory", http.MethodPost, "/memory", "When a knot is due again after a history of tries"),
		func(ctx context.Context, in *struct{ Body practice.History }) (*body[practice.Memory], error) {
			out, err := in.Body.Memory()
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "plan-lesson", http.MethodPost, "/lesson-plan", "Plan a lesson: order, minutes, what to bring, what to cut"),
		func(ctx context.Context, in *struct{ Body lesson.Request }) (*body[*app.PlannedLesson], error) {
			out, err := of(ctx).PlanLesson(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "cut", http.MethodPost, "/cuts", "Cut pieces from spools"),
		func(ctx context.Context, in *struct{ Body lesson.Pieces }) (*body[*lesson.Cuts], error) {
			out, err := in.Body.Cut()
			return answered(ctx, out, err)
		})
	lessons(a)
	roster(a)
	feeds(a)
	quay(a)
}

func lessons(a huma.API) {
	records[app.Lesson]{"a lesson", "The lessons, the last changed first", "lessons",
		(*app.School).Lessons, (*app.School).Lesson, (*app.School).SaveLesson, (*app.School).DeleteLesson,
		func(l *app.Lesson, id, revision int64) { l.ID, l.Revision = id, revision },
		func(l app.Lesson) (int64, int64) { return l.ID, l.Revision }}.register(a, "teaching")
}

// Table is a file of rows as it was chosen: CSV or XLSX.
type Table struct {
	Data []byte `json:"data" maxLength:"8000000" doc:"the file, base64"`
}

// Roster is a list of learners to be taken in.
type Roster struct {
	Rows []practice.RosterRow `json:"rows" nullable:"false"`
}

// Taken says what became of a list.
type Taken struct {
	Added   int `json:"added"`
	Changed int `json:"changed"`
}

func roster(a huma.API) {
	huma.Register(a, op("teaching", "read-roster", http.MethodPost, "/roster/preview", "Read a list of learners, and say what is wrong with it"),
		func(ctx context.Context, in *struct{ Body Table }) (*body[Roster], error) {
			table, err := export.ReadTable(in.Body.Data)
			if err != nil {
				return nil, fail(ctx, err)
			}
			there, err := of(ctx).Records().Learners(ctx)
			rows := practice.ReadRoster(table, there)
			if rows == nil {
				rows = []practice.RosterRow{}
			}
			return answered(ctx, Roster{rows}, err)
		})
	huma.Register(a, op("teaching", "take-roster", http.MethodPost, "/roster", "Take learners in: those with an id are given what is new of them"),
		func(ctx context.Context, in *struct {
			Body struct {
				Learners []app.Incoming `json:"learners" nullable:"false" maxItems:"5000"`
			}
		}) (*body[Taken], error) {
			added, changed, err := of(ctx).TakeIn(ctx, in.Body.Learners)
			return answered(ctx, Taken{added, changed}, err)
		})
	for _, kind := range []struct{ ext, media string }{{"csv", "text/csv; charset=utf-8"}, {"xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}} {
		write := func(sheet string, rows [][]string) ([]byte, error) {
			if kind.ext == "csv" {
				return export.CSV(rows)
			}
			return export.XLSX(sheet, rows)
		}
		for _, table := range []struct {
			name, sheet, says string
			rows              func(*app.School, context.Context) ([][]string, error)
		}{
			{"roster", "Learners", "The learners as a table", (*app.School).RosterTable},
			{"log", "Attempts", "All attempts as a table", (*app.School).LogTable},
		} {
			huma.Register(a, files(op("teaching", table.name+"-"+kind.ext, http.MethodGet, "/"+table.name+"."+kind.ext, table.says), kind.media),
				func(ctx context.Context, _ *struct{}) (*file, error) {
					rows, err := table.rows(of(ctx), ctx)
					if err != nil {
						return nil, fail(ctx, err)
					}
					out, err := write(table.sheet, rows)
					if err != nil {
						return nil, fail(ctx, err)
					}
					return &file{ContentType: kind.media, Body: out}, nil
				})
		}
	}
	huma.Register(a, op("teaching", "merge-learners", http.MethodPost, "/learners/{id}/merge", "Give all attempts of a learner to another, and remove him"),
		func(ctx context.Context, in *struct {
			IDPath
			Body struct {
				Into int64 `json:"into"`
			}
		}) (*body[practice.Learner], error) {
			out, err := of(ctx).MergeLearners(ctx, in.ID, in.Body.Into)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("teaching", "erase-learner", http.MethodDelete, "/learners/{id}", "Erase a learner with all that is known of him, for good"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).EraseLearner(ctx, in.ID))
		})
}

func feeds(a huma.API) {
	huma.Register(a, op("teaching", "feeds", http.MethodGet, "/feeds", "Calendars that were given out"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.Feed], error) {
			out, err := of(ctx).Feeds(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, created(op("teaching", "add-feed", http.MethodPost, "/feeds", "Make a secret address for a calendar; it is shown once")),
		func(ctx context.Context, in *struct {
			Body struct {
				LearnerID int64 `json:"learner_id,omitempty" doc:"left out: all learners' and the lessons"`
			}
		}) (*record[app.Feed], error) {
			out, err := of(ctx).AddFeed(ctx, in.Body.LearnerID)
			return made(ctx, out, "feeds", out.ID, 1, true, err)
		})
	huma.Register(a, op("teaching", "withdraw-feed", http.MethodDelete, "/feeds/{id}", "Withdraw a calendar's address"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).WithdrawFeed(ctx, in.ID))
		})
}

// calendar serves a feed by its secret. An address that was never given out and one that
// is withdrawn look the same.
func calendar(c *gin.Context) {
	ctx := c.Request.Context()
	word, ok := strings.CutSuffix(c.Param("word"), ".ics")
	s := app.Of(ctx)
	f, err := s.FeedOf(ctx, word)
	if err != nil || !ok {
		problemOn(c, newProblem(http.StatusNotFound, "There is no calendar at this address."))
		return
	}
	now := time.Now()
	list, err := feedEntries(ctx, s, f, now)
	if err != nil {
		problemOn(c, broken())
		return
	}
	c.Header("Cache-Control", "private, no-store")
	c.Data(http.StatusOK, "text/calendar; charset=utf-8", []byte(export.Calendar("Knots to tie", list, now)))
}

// feedEntries are a day for each date on which knots fall due, and the lessons.
func feedEntries(ctx context.Context, s *app.School, f app.Feed, now time.Time) ([]export.Entry, error) {
	// What falls due within a season; what is overdue stands today.
	due, err := s.Due(ctx, f.LearnerID, now.AddDate(0, 3, 0), 2000)
	if err != nil {
		return nil, err
	}
	type key struct {
		day     string
		learner string
	}
	days := map[key][]string{}
	var order []key
	for _, d := range due {
		at := d.Memory.Due
		if at.Before(now) {
			at = now
		}
		k := key{at.Format(time.DateOnly), d.Learner}
		if days[k] == nil {
			order = append(order, k)
		}
		days[k] = append(days[k], strings.ToLower(d.Name))
	}
	var out []export.Entry
	for _, k := range order {
		at, err := time.Parse(time.DateOnly, k.day)
		if err != nil {
			return nil, err
		}
		title := "Tie: " + say.List(days[k])
		if f.LearnerID == 0 {
			title = k.learner + " ties: " + say.List(days[k])
		}
		out = append(out, export.Entry{ID: fmt.Sprintf("due-%s-%s", k.day, strings.ReplaceAll(k.learner, " ", "-")), At: at, Title: title, Text: "Each twenty times, sitting down, then standing."})
	}
	if f.LearnerID == 0 {
		list, err := s.Lessons(ctx)
		if err != nil {
			return nil, err
		}
		for _, l := range list {
			if !l.At.IsZero() {
				out = append(out, export.Entry{ID: fmt.Sprintf("lesson-%d", l.ID), At: l.At, Minutes: l.Request.Minutes, Title: l.Name, Text: strings.Join(l.Request.Knots, ", ")})
			}
		}
		looks, err := s.Looks(ctx, now.AddDate(0, 3, 0))
		if err != nil {
			return nil, err
		}
		for _, l := range looks {
			if l.At.Before(now) {
				l.At = now
			}
			out = append(out, export.Entry{ID: l.ID, At: l.At.Truncate(24 * time.Hour), Title: "Look over: " + l.Name, Text: l.Says})
		}
	}
	return out, nil
}
