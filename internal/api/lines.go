package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/leader"
	"oarweed/core/locker"
	"oarweed/core/mooring"
	"oarweed/core/rig"
	"oarweed/core/towline"
	"oarweed/core/usage"
	"oarweed/internal/app"
	"oarweed/internal/export"
)

// onTheWater are lines in use: the locker, leaders, tow lines, moorings, the log of use.
func onTheWater(a huma.API) {
	lockers(a)
	uses(a)
	leaders(a)
	towLines(a)
	moorings(a)
	quayside(a)
	recordFiles(a)
	huma.Register(a, op("records", "to-do", http.MethodGet, "/to-do", "All that is due: what cannot wait first"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.ToDo], error) {
			out, err := of(ctx).ToDo(ctx)
			return answered(ctx, out, err)
		})
}

// CodePath is a line by the code on its label.
type CodePath struct {
	Code string `path:"code" maxLength:"12"`
}

func lockers(a huma.API) {
	huma.Register(a, op("records", "locker", http.MethodGet, "/locker", "Lines as they are now, those to be seen to first"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.LineCard], error) {
			out, err := of(ctx).Locker(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "line-page", http.MethodGet, "/locker/{code}", "A line with its whole history, by the code on its label"),
		func(ctx context.Context, in *CodePath) (*body[*app.LinePage], error) {
			out, err := of(ctx).LineByCode(ctx, in.Code)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "look-over", http.MethodPost, "/lines/{id}/looks", "Record that a line was looked over; its wear becomes what was found"),
		func(ctx context.Context, in *struct {
			IDPath
			IfMatch
			Body locker.Look
		}) (*record[locker.Line], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			out, err := of(ctx).LookOver(ctx, in.ID, revision, in.Body)
			return kept(ctx, out, out.Revision, err)
		})
}

// UsesNarrowed lets only some uses pass.
type UsesNarrowed struct {
	Line    string        `query:"line" maxLength:"12"`
	Knot    string        `query:"knot" maxLength:"60"`
	Outcome usage.Outcome `query:"outcome" enum:"held,slipped,jammed,broke,chafed,late"`
	Wrong   bool          `query:"wrong" doc:"only what went wrong"`
	Where   string        `query:"where" maxLength:"120"`
	From    string        `query:"from" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"day, counted"`
	To      string        `query:"to" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"day, counted"`
}

func (n UsesNarrowed) filter() usage.Filter {
	return usage.Filter{Line: n.Line, Knot: n.Knot, Outcome: n.Outcome, Wrong: n.Wrong, Where: n.Where, From: n.From, To: n.To}
}

// KnotUse is what the log of use says of a knot.
type KnotUse struct {
	Says string `json:"says" doc:"empty where it says nothing"`
}

func uses(a huma.API) {
	huma.Register(a, op("records", "uses", http.MethodGet, "/uses", "The log of use, newest first"),
		func(ctx context.Context, in *struct {
			UsesNarrowed
			Limit  int    `query:"limit" default:"50" minimum:"1" maximum:"1000"`
			Cursor string `query:"cursor" maxLength:"200"`
		}) (*body[*app.UsePage], error) {
			out, err := of(ctx).Uses(ctx, in.filter(), app.Page{Limit: in.Limit, Cursor: in.Cursor})
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "use-sums", http.MethodGet, "/uses/sums", "What the log of use comes to, by line and by knot"),
		func(ctx context.Context, in *struct{ UsesNarrowed }) (*body[*app.UseSums], error) {
			out, err := of(ctx).UseSums(ctx, in.filter())
			return answered(ctx, out, err)
		})
	huma.Register(a, created(op("records", "add-use", http.MethodPost, "/uses", "Record a use")),
		func(ctx context.Context, in *struct{ Body usage.Entry }) (*record[usage.Entry], error) {
			in.Body.ID = 0
			out, added, err := of(ctx).AddUse(ctx, in.Body)
			return made(ctx, out, "uses", out.ID, out.ID, added, err)
		})
	huma.Register(a, op("records", "remove-use", http.MethodDelete, "/uses/{id}", "Take a use back"),
		func(ctx context.Context, in *IDPath) (*struct{}, error) {
			return gone(ctx, of(ctx).DeleteUse(ctx, in.ID))
		})
	huma.Register(a, op("records", "restore-use", http.MethodPost, "/uses/{id}/restoration", "Bring back a use that was taken back"),
		func(ctx context.Context, in *IDPath) (*body[usage.Entry], error) {
			out, err := of(ctx).RestoreUse(ctx, in.ID)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("knots", "knot-use", http.MethodGet, "/knots/{id}/use", "What the log of use says of a knot"),
		func(ctx context.Context, in *KnotPath) (*body[KnotUse], error) {
			out, err := of(ctx).KnotUse(ctx, in.ID)
			return answered(ctx, KnotUse{out}, err)
		})
}

// leaders are the leaders in use.
func leaders(a huma.API) {
	records[leader.Book]{"a leader in use", "Leaders in use, the last changed first", "leaders",
		(*app.School).LeaderBooks, (*app.School).LeaderBook, (*app.School).SaveLeader, (*app.School).DeleteLeader,
		func(b *leader.Book, id, revision int64) { b.ID, b.Revision = id, revision },
		func(b leader.Book) (int64, int64) { return b.ID, b.Revision }}.register(a, "records")
	huma.Register(a, op("records", "leaders-left", http.MethodGet, "/leaders/left", "Leaders in use with what is left of each"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.LeaderCard], error) {
			out, err := of(ctx).Leaders(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "new-tippet", http.MethodPost, "/leaders/{id}/tippet", "A tippet is joined on: the leader is what it was, its spool shorter"),
		func(ctx context.Context, in *IDPath) (*record[leader.Book], error) {
			out, err := of(ctx).NewTippet(ctx, in.ID)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("jobs", "leader-trip", http.MethodPost, "/leaders/trip", "What a trip takes off the spools"),
		func(ctx context.Context, in *struct{ Body leader.Trip }) (*body[[]leader.Needed], error) {
			out, err := of(ctx).LeaderTrip(in.Body)
			return answered(ctx, out, err)
		})
}

func towLines(a huma.API) {
	records[towline.Book]{"a tow line", "Tow lines, the last changed first", "tow-lines",
		(*app.School).TowBooks, (*app.School).TowBook, (*app.School).SaveTow, (*app.School).DeleteTow,
		func(b *towline.Book, id, revision int64) { b.ID, b.Revision = id, revision },
		func(b towline.Book) (int64, int64) { return b.ID, b.Revision }}.register(a, "records")
	huma.Register(a, op("records", "tow-places", http.MethodGet, "/tow-lines/places", "Tow lines with the place of each rider"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.TowCard], error) {
			out, err := of(ctx).TowLines(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("records", "record-run", http.MethodPost, "/tow-lines/{id}/runs", "Record a run of a rider: a hitch rubs the cover where it sits"),
		func(ctx context.Context, in *struct {
			IDPath
			Body struct {
				Rider int `json:"rider" minimum:"0" maximum:"99" doc:"which of its riders, from 0"`
			}
		}) (*record[towline.Book], error) {
			out, err := of(ctx).RecordRun(ctx, in.ID, in.Body.Rider)
			return kept(ctx, out, out.Revision, err)
		})
}

// UsualBerth asks for a plan of a boat as she usually lies.
type UsualBerth struct {
	Boat mooring.Boat `json:"boat"`
	Kind string       `json:"kind" enum:"alongside,posts"`
	Line rig.Line     `json:"line"`
}

func moorings(a huma.API) {
	huma.Register(a, op("jobs", "moor", http.MethodPost, "/moorings/solve", "Share the wind on a moored boat among her lines"),
		func(ctx context.Context, in *struct{ Body mooring.Plan }) (*body[*app.MooringAnswer], error) {
			out, err := of(ctx).Moor(ctx, in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "usual-berth", http.MethodPost, "/moorings/usual", "A plan for a boat as she usually lies"),
		func(ctx context.Context, in *struct{ Body UsualBerth }) (*body[mooring.Plan], error) {
			out, err := of(ctx).UsualBerth(in.Body.Boat, in.Body.Kind, in.Body.Line)
			return answered(ctx, out, err)
		})
	records[mooring.Berth]{"a mooring plan", "Mooring plans, the last changed first", "moorings",
		(*app.School).Berths, (*app.School).Berth, (*app.School).SaveBerth, (*app.School).DeleteBerth,
		func(b *mooring.Berth, id, revision int64) { b.ID, b.Revision = id, revision },
		func(b mooring.Berth) (int64, int64) { return b.ID, b.Revision }}.register(a, "records")
	huma.Register(a, op("records", "wind", http.MethodGet, "/wind", "Where the wind comes from"),
		func(ctx context.Context, _ *struct{}) (*record[app.WindSettings], error) {
			out, err := of(ctx).WindSettings(ctx)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("records", "set-wind", http.MethodPut, "/wind", "Set the instrument that the wind is listened to from"),
		func(ctx context.Context, in *struct {
			IfMatch
			Body app.WindSettings
		}) (*record[app.WindSettings], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			in.Body.Revision = revision
			out, err := of(ctx).SetWind(ctx, in.Body)
			return kept(ctx, out, out.Revision, err)
		})
	o := op("records", "wind-live", http.MethodGet, "/wind/live", "The wind as it blows, held against the berths at which she lies")
	o.Description = "Lines of JSON, two a second."
	o.Responses = map[string]*huma.Response{"200": {Description: "Wind and berths",
		Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: a.OpenAPI().Components.Schemas.Schema(typeOf(app.Afloat{}), true, "")}}}}
	huma.Register(a, o, func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		school := of(ctx)
		return &huma.StreamResponse{Body: func(h huma.Context) {
			write := lineWriter(h)
			_ = school.WatchAfloat(h.Context(), func(x *app.Afloat) error { return write(x) })
		}}, nil
	})
}

// lineWriter writes lines of JSON as they come, each within the time that a stream may pause.
func lineWriter(h huma.Context) func(any) error {
	h.SetHeader("Content-Type", "application/x-ndjson")
	w := h.BodyWriter()
	out := json.NewEncoder(w)
	return func(v any) error {
		if rw, ok := w.(http.ResponseWriter); ok {
			_ = http.NewResponseController(rw).SetWriteDeadline(time.Now().Add(streamPause))
		}
		err := out.Encode(v)
		if flush, ok := w.(http.Flusher); ok {
			flush.Flush()
		}
		return err
	}
}

// quayside are sums of the quay.
func quayside(a huma.API) {
	huma.Register(a, op("jobs", "slip-line", http.MethodGet, "/slip-line", "A line led through a ring and back aboard"),
		func(ctx context.Context, in *struct{ app.SlipQuery }) (*body[*app.SlipAnswer], error) {
			out, err := of(ctx).SlipLine(in.SlipQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "heaving-line", http.MethodGet, "/heaving-line", "A heaving line and its messenger"),
		func(ctx context.Context, in *struct{ app.HeaveQuery }) (*body[*app.HeaveAnswer], error) {
			out, err := of(ctx).HeavingLine(in.HeaveQuery)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("jobs", "fender-tide", http.MethodGet, "/fender-tide", "A fender at a wall while the water rises and falls"),
		func(ctx context.Context, in *struct{ app.TideQuery }) (*body[*app.TideAnswer], error) {
			out, err := of(ctx).FenderTide(in.TideQuery)
			return answered(ctx, out, err)
		})
}

// KindPath is a kind of records that go out and come in as files.
type KindPath struct {
	Kind string `path:"kind" enum:"locker,use,leaders,tow-lines,moorings"`
}

// recordFiles are records as files, out and in.
func recordFiles(a huma.API) {
	huma.Register(a, files(op("records", "records-table", http.MethodGet, "/files/{kind}/table.csv", "Records of a kind as a table"), "text/csv"),
		func(ctx context.Context, in *KindPath) (*file, error) {
			table, err := of(ctx).TableOf(ctx, in.Kind)
			if err != nil {
				return nil, fail(ctx, err)
			}
			text, err := export.CSV(table)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{"text/csv; charset=utf-8", "", text}, nil
		})
	huma.Register(a, files(op("records", "records-json", http.MethodGet, "/files/{kind}/records.json", "Records of a kind as they are kept"), "application/json"),
		func(ctx context.Context, in *KindPath) (*file, error) {
			list, err := of(ctx).RecordsOf(ctx, in.Kind)
			if err != nil {
				return nil, fail(ctx, err)
			}
			text, err := json.MarshalIndent(list, "", "  ")
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{"application/json", "", text}, nil
		})
	take := op("records", "take-file", http.MethodPost, "/files/{kind}", "Take records in from a table or from JSON, all of it or nothing; preview it first")
	take.MaxBodyBytes = mostTrace
	huma.Register(a, take, func(ctx context.Context, in *struct {
		KindPath
		Preview bool `query:"preview" doc:"keep nothing"`
		Body    Table
	}) (*body[*app.TakenFile], error) {
		if text := in.Body.Data; json.Valid(text) {
			out, err := of(ctx).TakeRecords(ctx, in.Kind, text, !in.Preview)
			return answered(ctx, out, err)
		}
		table, err := export.ReadRows(in.Body.Data, mostLogged)
		if err != nil {
			return nil, fail(ctx, err)
		}
		out, err := of(ctx).TakeTable(ctx, in.Kind, table, !in.Preview)
		return answered(ctx, out, err)
	})
}

// mostLogged rows are taken in at once.
const mostLogged = 100_000
