package main

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"sync"
	"time"
)

type load struct {
	Binary string        `required:"" help:"The application."`
	Rate   int           `default:"250" help:"Requests a second, whether or not answers come."`
	Writes int           `default:"20" help:"Attempts recorded a second beside them."`
	For    time.Duration `default:"60s" help:"How long."`
	P99    time.Duration `default:"50ms" help:"Fail where one in a hundred takes longer."`
}

// took is what was measured, by kind of request. Time counts from when the request was
// due, not from when it could be sent: a server that stalls is not spared those who wait.
type took struct {
	sync.Mutex
	by     map[string][]time.Duration
	errors []error
	kept   []string
}

func (m *took) add(kind string, due time.Time, err error) {
	d := time.Since(due)
	m.Lock()
	defer m.Unlock()
	m.by[kind] = append(m.by[kind], d)
	if err != nil {
		m.errors = append(m.errors, err)
	}
}

// rig of a mooring line; n makes each a little different.
func rig(n int) map[string]any {
	return map[string]any{"version": 1, "peak_kn": 0.5 + float64(n%97)/20, "chain": []any{
		map[string]any{"fitting": map[string]any{"kind": "ring", "size_mm": 40}},
		map[string]any{"joint": map[string]any{"task": "moor"}},
		map[string]any{"line": map[string]any{"material": "polyester", "construction": "braid", "diameter_mm": 8 + n%13}},
	}}
}

func (l *load) Run() error {
	dir, remove, err := scratch()
	if err != nil {
		return err
	}
	defer remove()
	s, err := start(l.Binary, "demo", dbIn(dir))
	if err != nil {
		return err
	}
	defer s.kill()
	var catalogue struct{ Knots []struct{ ID string } }
	if err := do(http.MethodGet, s.url+"/api/v1/catalogue", nil, &catalogue); err != nil {
		return err
	}
	knot := func(n int) string { return catalogue.Knots[n%len(catalogue.Knots)].ID }
	m := &took{by: map[string][]time.Duration{}}
	asks := []func(n int, due time.Time){
		func(_ int, due time.Time) { m.add("page", due, do(http.MethodGet, s.url+"/", nil, nil)) },
		func(n int, due time.Time) {
			m.add("choice", due, do(http.MethodPost, s.url+"/api/v1/choices", rig(n), nil))
		},
		func(n int, due time.Time) {
			m.add("drawing", due, do(http.MethodGet, s.url+"/api/v1/knots/"+knot(n)+fmt.Sprintf("/drawing.svg?step=%d", n%3), nil, nil))
		},
		func(n int, due time.Time) {
			m.add("knot", due, do(http.MethodGet, s.url+"/api/v1/knots/"+knot(n), nil, nil))
		},
	}
	write := func(n int, due time.Time) {
		a := attempt{fmt.Sprintf("load-%d", n), int64(1 + n%6), "bowline", "right", float64(5 + n%20)}
		err := do(http.MethodPost, s.url+"/api/v1/attempts", a, nil)
		m.add("write", due, err)
		if err == nil {
			m.Lock()
			m.kept = append(m.kept, a.Key)
			m.Unlock()
		}
	}
	var all sync.WaitGroup
	steady := func(rate int, ask func(n int, due time.Time)) {
		all.Go(func() {
			begin := time.Now()
			for n := 0; ; n++ {
				due := begin.Add(time.Duration(n) * time.Second / time.Duration(rate))
				if due.Sub(begin) >= l.For {
					return
				}
				time.Sleep(time.Until(due))
				all.Go(func() { ask(n, due) })
			}
		})
	}
	steady(l.Rate, func(n int, due time.Time) { asks[n%len(asks)](n/len(asks), due) })
	steady(l.Writes, write)
	all.Wait()
	if err := s.stop(); err != nil {
		return fmt.Errorf("stopping: %w", err)
	}
	return m.report(l, dbIn(dir))
}

// report prints what was measured and fails where it is not good enough.
func (m *took) report(l *load, db string) error {
	var everything []time.Duration
	line := func(kind string, d []time.Duration) time.Duration {
		slices.Sort(d)
		at := func(q float64) time.Duration { return d[min(len(d)-1, int(q*float64(len(d))))] }
		fmt.Printf("%-8s %6d   median %7.2f ms   p99 %7.2f ms   longest %7.2f ms\n", kind, len(d), ms(at(0.5)), ms(at(0.99)), ms(d[len(d)-1]))
		return at(0.99)
	}
	for _, kind := range []string{"page", "choice", "drawing", "knot", "write"} {
		everything = append(everything, m.by[kind]...)
		line(kind, m.by[kind])
	}
	p99 := line("all", everything)
	found, err := keys(l.Binary, db)
	if err != nil {
		return err
	}
	fmt.Printf("%d errors, %d attempts acknowledged\n", len(m.errors), len(m.kept))
	bad := errors.Join(m.errors[:min(5, len(m.errors))]...)
	if p99 > l.P99 {
		bad = errors.Join(bad, fmt.Errorf("one in a hundred took %v, and %v is allowed", p99, l.P99))
	}
	return errors.Join(bad, lost(m.kept, found))
}

func ms(d time.Duration) float64 { return float64(d) / float64(time.Millisecond) }
