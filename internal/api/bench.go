package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"oarweed/core/bench"
	"oarweed/core/say"
	"oarweed/internal/app"
	"oarweed/internal/export"
)

// mostTrace is how long a file of readings may be, base64.
const mostTrace = 64 << 20

// TraceFile is a file of readings.
type TraceFile struct {
	Data []byte `json:"data" doc:"the file, base64"`
	// How it is to be read; left out: it is found out.
	How *bench.Columns `json:"how,omitempty"`
}

// KeyPath is the path of a pull by the key of whoever makes it.
type KeyPath struct {
	Key string `path:"key" maxLength:"64"`
}

func benches(a huma.API) {
	records[bench.Series]{"a series of pulls", "Series of pulls, the last changed first", "series",
		(*app.School).AllSeries, (*app.School).Series, (*app.School).SaveSeries, (*app.School).DeleteSeries,
		func(x *bench.Series, id, revision int64) { x.ID, x.Revision = id, revision },
		func(x bench.Series) (int64, int64) { return x.ID, x.Revision }}.register(a, "bench")
	records[bench.Pull]{"a pull", "Pulls of all series, the last changed first", "pulls",
		(*app.School).AllPulls, (*app.School).Pull, (*app.School).SavePull, (*app.School).DeletePull,
		func(p *bench.Pull, id, revision int64) { p.ID, p.Revision = id, revision },
		func(p bench.Pull) (int64, int64) { return p.ID, p.Revision }}.register(a, "bench")
	records[bench.Proof]{"a proof pull", "Proof pulls, the last changed first", "proofs",
		(*app.School).Proofs, (*app.School).Proof, (*app.School).SaveProof, (*app.School).DeleteProof,
		func(p *bench.Proof, id, revision int64) { p.ID, p.Revision = id, revision },
		func(p bench.Proof) (int64, int64) { return p.ID, p.Revision }}.register(a, "bench")
	huma.Register(a, op("bench", "series-page", http.MethodGet, "/series/{id}/page", "A series with all that its pulls say"),
		func(ctx context.Context, in *IDPath) (*body[*app.SeriesPage], error) {
			out, err := of(ctx).SeriesPage(ctx, in.ID)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "plan-specimens", http.MethodPost, "/bench/plan", "Lay out the specimens of a series"),
		func(ctx context.Context, in *struct{ Body bench.Plan }) (*body[[]bench.Specimen], error) {
			out, err := of(ctx).PlanSpecimens(in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "fit-pulls", http.MethodPost, "/bench/fit", "Fit strengths to pulls: Weibull with censoring, survival curves, log-rank"),
		func(ctx context.Context, in *struct {
			Body struct {
				Pulls []bench.Pulled `json:"pulls" nullable:"false"`
			}
		}) (*body[bench.Report], error) {
			out, err := bench.Fit(in.Body.Pulls)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "friction-trial", http.MethodPost, "/bench/friction", "Friction from two weights over a rail"),
		func(ctx context.Context, in *struct{ Body app.FrictionTrial }) (*body[app.FrictionFound], error) {
			out, err := of(ctx).FrictionOver(in.Body)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "creep", http.MethodPost, "/bench/creep", "How much end was drawn into a knot between two photographs"),
		func(ctx context.Context, in *struct {
			Body struct {
				Before bench.Gauge `json:"before"`
				After  bench.Gauge `json:"after"`
			}
		}) (*body[Crept], error) {
			mm, err := bench.Creep(in.Body.Before, in.Body.After)
			return answered(ctx, Crept{mm}, err)
		})
	huma.Register(a, op("bench", "bench-settings", http.MethodGet, "/bench/settings", "The load cell, and whether own pulls count in the choice"),
		func(ctx context.Context, _ *struct{}) (*record[app.BenchSettings], error) {
			out, err := of(ctx).BenchSettings(ctx)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("bench", "set-bench", http.MethodPut, "/bench/settings", "Set the load cell, and whether own pulls count in the choice"),
		func(ctx context.Context, in *struct {
			IfMatch
			Body app.BenchSettings
		}) (*record[app.BenchSettings], error) {
			revision, err := in.revision()
			if err != nil {
				return nil, err
			}
			in.Body.Revision = revision
			out, err := of(ctx).SetBench(ctx, in.Body)
			return kept(ctx, out, out.Revision, err)
		})
	huma.Register(a, op("bench", "ledger", http.MethodGet, "/bench/ledger", "Disputed claims beside own pulls and the class log"),
		func(ctx context.Context, _ *struct{}) (*body[[]app.LedgerCard], error) {
			out, err := of(ctx).Ledger(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "failures", http.MethodGet, "/bench/failures", "What a broken piece shows, and what it tells"),
		func(ctx context.Context, _ *struct{}) (*body[[]bench.Failure], error) {
			return &body[[]bench.Failure]{of(ctx).Trade().Failures}, nil
		})
	live(a)
	traceFiles(a)
	benchPapers(a)
}

// Crept is how much end was drawn in.
type Crept struct {
	MM float64 `json:"mm"`
}

// benchPapers are a series on paper and as a table.
func benchPapers(a huma.API) {
	huma.Register(a, op("bench", "series-results", http.MethodPost, "/series/{id}/results", "Read a table of results into a series; preview it first"),
		func(ctx context.Context, in *struct {
			IDPath
			Preview bool `query:"preview" doc:"keep nothing"`
			Body    Table
		}) (*body[*app.TakenResults], error) {
			table, err := export.ReadTable(in.Body.Data)
			if err != nil {
				return nil, fail(ctx, err)
			}
			out, err := of(ctx).ReadResults(ctx, in.ID, table, !in.Preview)
			return answered(ctx, out, err)
		})
	huma.Register(a, files(op("bench", "series-labels", http.MethodGet, "/series/{id}/labels.pdf", "Labels for the specimens of a series"), "application/pdf"),
		func(ctx context.Context, in *struct {
			IDPath
			At string `query:"at" maxLength:"300" pattern:"^https?://" doc:"where this application is reached, for the code on the label" example:"http://192.168.1.20:8080"`
		}) (*file, error) {
			page, err := of(ctx).SeriesPage(ctx, in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			var list []export.Label
			name := of(ctx).EndName
			for i, x := range page.Series.Specimens {
				list = append(list, export.Label{N: i + 1, A: name(x.A), B: name(x.B), Line: page.LineName + ", " + say.Wetness(page.Series.Wet),
					Link: fmt.Sprintf("%s/bench/%d?specimen=%d", in.At, in.ID, i+1)})
			}
			pdf, err := export.Labels(ctx, list)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{"application/pdf", "", pdf}, nil
		})
	huma.Register(a, files(op("bench", "series-pulls-file", http.MethodGet, "/series/{id}/pulls.csv", "The pulls of a series as a table"), "text/csv"),
		func(ctx context.Context, in *IDPath) (*file, error) {
			page, err := of(ctx).SeriesPage(ctx, in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			var pulls []bench.Pull
			for _, p := range page.Pulls {
				pulls = append(pulls, p.Pull)
			}
			text, err := export.PullsCSV(pulls, of(ctx).EndName)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{"text/csv; charset=utf-8", "", text}, nil
		})
}

// live is the cell: what it says now, and a pull on it.
func live(a huma.API) {
	o := op("bench", "bench-live", http.MethodGet, "/bench/live", "What the load cell says, as it says it")
	o.Description = "Lines of JSON, twenty a second: the state, and the readings since the line before."
	o.Responses = map[string]*huma.Response{"200": {Description: "State and readings",
		Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: a.OpenAPI().Components.Schemas.Schema(typeOf(bench.Live{}), true, "")}}}}
	huma.Register(a, o, func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		hub := of(ctx).Bench()
		return &huma.StreamResponse{Body: func(h huma.Context) {
			write := lineWriter(h)
			_ = hub.Watch(h.Context(), func(l bench.Live) error { return write(l) })
		}}, nil
	})
	huma.Register(a, op("bench", "bench-zero", http.MethodPost, "/bench/zero", "Take what the cell says now as zero"),
		func(ctx context.Context, _ *struct{}) (*body[bench.CellState], error) {
			err := of(ctx).Bench().Zero()
			return answered(ctx, of(ctx).Bench().State(), err)
		})
	huma.Register(a, op("bench", "start-pull", http.MethodPost, "/bench/pulls/{key}", "Begin a pull; its readings are kept as they come"),
		func(ctx context.Context, in *KeyPath) (*body[bench.CellState], error) {
			out, err := of(ctx).StartPull(in.Key)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "stop-pull", http.MethodPost, "/bench/stop", "End the pull, and say what its trace shows"),
		func(ctx context.Context, _ *struct{}) (*body[*app.Stopped], error) {
			out, err := of(ctx).StopPull(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "unrecorded", http.MethodGet, "/bench/pulls", "Pulls whose readings are kept and that were never recorded"),
		func(ctx context.Context, _ *struct{}) (*body[[]*app.Stopped], error) {
			out, err := of(ctx).Unrecorded(ctx)
			return answered(ctx, out, err)
		})
	huma.Register(a, op("bench", "discard-pull", http.MethodDelete, "/bench/pulls/{key}", "Remove the readings of a pull that is not recorded"),
		func(ctx context.Context, in *KeyPath) (*struct{}, error) {
			return gone(ctx, of(ctx).Discard(ctx, in.Key))
		})
}

// traceFiles are traces as files, in and out.
func traceFiles(a huma.API) {
	preview := op("bench", "preview-trace", http.MethodPost, "/bench/traces/preview", "Read a file of readings, and keep nothing")
	preview.MaxBodyBytes = mostTrace
	huma.Register(a, preview, func(ctx context.Context, in *struct{ Body TraceFile }) (*body[*app.ReadTrace], error) {
		out, err := of(ctx).PreviewTrace(ctx, in.Body.Data, in.Body.How)
		return answered(ctx, out, err)
	})
	take := op("bench", "take-trace", http.MethodPut, "/bench/pulls/{key}/readings", "Keep a file of readings as those of a pull that is to be recorded")
	take.MaxBodyBytes = mostTrace
	huma.Register(a, take, func(ctx context.Context, in *struct {
		KeyPath
		Body TraceFile
	}) (*body[*app.ReadTrace], error) {
		out, err := of(ctx).TakeTrace(ctx, in.Key, in.Body.Data, in.Body.How)
		return answered(ctx, out, err)
	})
	huma.Register(a, op("bench", "pull-trace", http.MethodGet, "/pulls/{id}/trace", "The trace of a pull, thinned for a picture"),
		func(ctx context.Context, in *struct {
			IDPath
			Points int `query:"points" default:"1200" minimum:"10" maximum:"20000"`
		}) (*body[Drawn], error) {
			t, err := of(ctx).Trace(ctx, in.ID, in.Points)
			return answered(ctx, Drawn{t.S, t.KN}, err)
		})
	huma.Register(a, files(op("bench", "pull-trace-file", http.MethodGet, "/pulls/{id}/trace.csv", "The whole trace of a pull as it was read"), "text/csv"),
		func(ctx context.Context, in *IDPath) (*file, error) {
			text, err := of(ctx).TraceFile(ctx, in.ID)
			if err != nil {
				return nil, fail(ctx, err)
			}
			return &file{"text/csv; charset=utf-8", "", text}, nil
		})
}

// Drawn is a trace for a picture.
type Drawn struct {
	S  []float64 `json:"t_s" nullable:"false"`
	KN []float64 `json:"load_kn" nullable:"false"`
}
