package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/locker"
	"oarweed/core/practice"
	"oarweed/core/rig"
	"oarweed/internal/app"
)

func rigs(a huma.API) {
	huma.Register(a, op("records", "rigs", http.MethodGet, "/rigs", "Saved rigs, the last changed first"),
		func(ctx context.Context, _ *struct{}) (*body[[]rig.Saved], error) {
			out, err := of(ctx).Records().Rigs(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "rig", http.MethodGet, "/rigs/{id}", "A saved rig"),
		func(ctx context.Context, in *IDPath) (*record[rig.Saved], error) {
			out, err := of(ctx).Records().Rig(ctx, in.ID)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, created(op("records", "add-rig", http.MethodPost, "/rigs", "Save a new rig")),
		func(ctx context.Context, in *struct{ Body rig.Saved }) (*record[rig.Saved], error) {
			out, err := of(ctx).SaveRig(ctx, rig.Saved{Rig: in.Body.Rig})
			return made(ctx, out, "rigs", out.ID, out.Revision, true, err)
		})
	huma.Register(a, op("records", "change-rig", http.MethodPut, "/rigs/{id}", "Change a saved rig"),
		func(ctx context.Context, in *struct {
			IDPath
			IfMatch
			Body rig.Saved
		}) (*record[rig.Saved], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			out, err := of(ctx).SaveRig(ctx, rig.Saved{ID: in.ID, Revision: revision, Rig: in.Body.Rig})
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("records", "remove-rig", http.MethodDelete, "/rigs/{id}", "Remove a saved rig"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).Records().DeleteRig(ctx, in.ID))
		})
}

func lines(a huma.API) {
	huma.Register(a, op("records", "lines", http.MethodGet, "/lines", "The locker, by name"),
		func(ctx context.Context, _ *struct{}) (*body[[]locker.Line], error) {
			out, err := of(ctx).Records().Lines(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "line", http.MethodGet, "/lines/{id}", "A line of the locker"),
		func(ctx context.Context, in *IDPath) (*record[locker.Line], error) {
			out, err := of(ctx).Records().Line(ctx, in.ID)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, created(op("records", "add-line", http.MethodPost, "/lines", "Put a line in the locker")),
		func(ctx context.Context, in *struct{ Body locker.Line }) (*record[locker.Line], error) {
			in.Body.ID, in.Body.Revision = 0, 0
			out, err := of(ctx).SaveLine(ctx, in.Body)
			return made(ctx, out, "lines", out.ID, out.Revision, true, err)
		})
	huma.Register(a, op("records", "change-line", http.MethodPut, "/lines/{id}", "Change a line of the locker"),
		func(ctx context.Context, in *struct {
			IDPath
			IfMatch
			Body locker.Line
		}) (*record[locker.Line], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			in.Body.ID, in.Body.Revision = in.ID, revision
			out, err := of(ctx).SaveLine(ctx, in.Body)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("records", "remove-line", http.MethodDelete, "/lines/{id}", "Take a line out of the locker"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).Records().DeleteLine(ctx, in.ID))
		})
}

func learners(a huma.API) {
	huma.Register(a, op("records", "learners", http.MethodGet, "/learners", "The learners, by name"),
		func(ctx context.Context, _ *struct{}) (*body[[]practice.Learner], error) {
			out, err := of(ctx).Records().Learners(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "learner", http.MethodGet, "/learners/{id}", "A learner"),
		func(ctx context.Context, in *IDPath) (*record[practice.Learner], error) {
			out, err := of(ctx).Records().Learner(ctx, in.ID)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, created(op("records", "add-learner", http.MethodPost, "/learners", "Add a learner, or find the one of that name")),
		func(ctx context.Context, in *struct{ Body practice.Learner }) (*record[practice.Learner], error) {
			out, added, err := of(ctx).AddLearner(ctx, in.Body)
			return made(ctx, out, "learners", out.ID, out.Revision, added, err)
		})
	huma.Register(a, op("records", "change-learner", http.MethodPut, "/learners/{id}", "Change what is known of a learner"),
		func(ctx context.Context, in *struct {
			IDPath
			IfMatch
			Body practice.Learner
		}) (*record[practice.Learner], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			in.Body.ID, in.Body.Revision = in.ID, revision
			out, err := of(ctx).SaveLearner(ctx, in.Body)
			return kept(ctx, out, out.Revision, err)
		})
}

// Attempts is a page of the log.
type Attempts struct {
	Attempts []practice.Attempt `json:"attempts" nullable:"false"`
	// Next is the cursor of the next page; empty after the last.
	Next string `json:"next,omitempty" doc:"cursor of the next page; left out after the last"`
}

// Narrowed lets only some attempts pass.
type Narrowed struct {
	Outcome   practice.Outcome `query:"outcome" enum:"right,slow,fault"`
	Condition string           `query:"condition" enum:"dry,wet,gloves,blind,real"`
	Group     string           `query:"group" maxLength:"80"`
}

func (n Narrowed) filter(knot string, learner int64) app.Filter {
	return app.Filter{Knot: knot, LearnerID: learner, Outcome: n.Outcome, Condition: n.Condition, Group: n.Group}
}

func attempts(a huma.API) {
	huma.Register(a, op("records", "attempts", http.MethodGet, "/attempts", "The attempts, newest first"),
		func(ctx context.Context, in *struct {
			Knot    string `query:"knot"`
			Learner int64  `query:"learner"`
			Narrowed
			Limit  int    `query:"limit" default:"50" minimum:"1" maximum:"1000"`
			Cursor string `query:"cursor" maxLength:"200"`
		}) (*body[Attempts], error) {
			list, next, err := of(ctx).Records().Attempts(ctx, in.filter(in.Knot, in.Learner), app.Page{Limit: in.Limit, Cursor: in.Cursor})
			return answered(ctx, Attempts{list, next}, err)
		})
	huma.Register(a, op("records", "attempt-totals", http.MethodGet, "/attempts/totals", "The attempts counted by day"),
		func(ctx context.Context, in *struct {
			Knot    string `query:"knot"`
			Learner int64  `query:"learner"`
			Narrowed
			Days int `query:"days" default:"60" minimum:"1" maximum:"2000"`
		}) (*body[[]app.DayTotal], error) {
			out, err := of(ctx).Records().Totals(ctx, in.filter(in.Knot, in.Learner), in.Days)
			return answered(ctx, out, err)
		})
	huma.Register(a, created(op("records", "add-attempt", http.MethodPost, "/attempts", "Record an attempt")),
		func(ctx context.Context, in *struct{ Body practice.Attempt }) (*record[practice.Attempt], error) {
			in.Body.ID = 0
			out, added, err := of(ctx).AddAttempt(ctx, in.Body)
			return made(ctx, out, "attempts", out.ID, out.ID, added, err)
		})
	huma.Register(a, op("records", "remove-attempt", http.MethodDelete, "/attempts/{id}", "Take an attempt back"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).Records().DeleteAttempt(ctx, in.ID))
		})
	huma.Register(a, op("records", "restore-attempt", http.MethodPost, "/attempts/{id}/restoration", "Bring back an attempt that was taken back"),
		func(ctx context.Context, in *IDPath) (*body[practice.Attempt], error) {
			out, err := of(ctx).Records().RestoreAttempt(ctx, in.ID)
			return answered(ctx, out, err)
		})
}

func inspections(a huma.API) {
	huma.Register(a, op("records", "inspections", http.MethodGet, "/inspections", "Rigs looked over by two, newest first"),
		func(ctx context.Context, in *struct {
			Limit int `query:"limit" default:"20" minimum:"1" maximum:"500"`
		}) (*body[[]practice.Inspection], error) {
			out, err := of(ctx).Records().Inspections(ctx, in.Limit)
			return answered(ctx, out, err)
		})
	huma.Register(a, created(op("records", "add-inspection", http.MethodPost, "/inspections", "Record that two looked over a rig")),
		func(ctx context.Context, in *struct{ Body practice.Inspection }) (*record[practice.Inspection], error) {
			in.Body.ID = 0
			out, added, err := of(ctx).AddInspection(ctx, in.Body)
			return made(ctx, out, "inspections", out.ID, out.ID, added, err)
		})
}

func doctrines(a huma.API) {
	huma.Register(a, op("doctrines", "doctrines", http.MethodGet, "/doctrines", "Where practitioners disagree, and what you teach"),
		func(ctx context.Context, _ *struct{}) (*record[app.Doctrines], error) {
			out, err := of(ctx).Doctrines(ctx)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("doctrines", "teach", http.MethodPut, "/doctrines", "Choose what you teach"),
		func(ctx context.Context, in *struct {
			IfMatch
			Body app.Chosen
		}) (*record[app.Doctrines], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			out, err := of(ctx).Teach(ctx, app.Chosen{Doctrines: in.Body.Doctrines, Revision: revision})
			return kept(ctx, out, out.Revision, err)
		})
}

// created says that the usual answer is 201, and 200 where the record was there already.
func created(o huma.Operation) huma.Operation {
	o.DefaultStatus = http.StatusCreated
	return o
}
