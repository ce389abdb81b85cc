package app

import (
	"context"
	"errors"
	"runtime"
	"sync"

	"golang.org/x/sync/semaphore"

	"oarweed/core/whatif"
)

// Gate queues heavy computations before the processors: as many steps run at once as
// there are processors, those that came first go first, and one browser has one
// computation going. A computation of many steps queues again for each, so that a long
// one holds nobody up for longer than a step.
type Gate struct {
	steps *semaphore.Weighted
	hand  sync.Mutex
	mine  map[string]*turn
	// waiting counts the computations that are under way or wait.
	waiting int
	most    int
}

type turn struct {
	*semaphore.Weighted
	users int
}

// ErrBusy is what a gate says when too many wait already.
var ErrBusy = errors.New("too many computations are waiting")

// NewGate makes a gate for this machine's processors; beyond most computations under
// way or waiting a further one is refused.
func NewGate(most int) *Gate {
	return &Gate{steps: semaphore.NewWeighted(int64(runtime.GOMAXPROCS(0))), mine: map[string]*turn{}, most: most}
}

type browserKey struct{}

// FromBrowser says in a context which browser asks, by its cookie or its connection.
func FromBrowser(ctx context.Context, id string) context.Context {
	return context.WithValue(ctx, browserKey{}, id)
}

// enter waits until the browser has no other computation going; leave must be called.
func (g *Gate) enter(ctx context.Context) (leave func(), err error) {
	id, _ := ctx.Value(browserKey{}).(string)
	g.hand.Lock()
	if g.waiting >= g.most {
		g.hand.Unlock()
		return nil, ErrBusy
	}
	g.waiting++
	t := g.mine[id]
	if t == nil {
		t = &turn{Weighted: semaphore.NewWeighted(1)}
		g.mine[id] = t
	}
	t.users++
	g.hand.Unlock()
	done := func() {
		g.hand.Lock()
		defer g.hand.Unlock()
		g.waiting--
		if t.users--; t.users == 0 {
			delete(g.mine, id)
		}
	}
	if id == "" {
		return done, nil // nobody in particular: the command line, a test
	}
	if err := t.Acquire(ctx, 1); err != nil {
		done()
		return nil, err
	}
	return func() { t.Release(1); done() }, nil
}

// heavy runs a computation of one step through the school's gate.
func heavy[T any](ctx context.Context, s *School, f func() (T, error)) (out T, err error) {
	if s.gate == nil {
		return f()
	}
	leave, err := s.gate.enter(ctx)
	if err != nil {
		return out, err
	}
	defer leave()
	if err := s.gate.steps.Acquire(ctx, 1); err != nil {
		return out, err
	}
	defer s.gate.steps.Release(1)
	return f()
}

// each works out a computation of many steps, in order as far as the processors allow,
// and hands the results over one at a time.
func (g *Gate) each(ctx context.Context, steps []int, work func(context.Context, int) (whatif.Row, error), take func(whatif.Row) error) error {
	if g == nil {
		g = NewGate(1)
	}
	leave, err := g.enter(ctx)
	if err != nil {
		return err
	}
	defer leave()
	ctx, stop := context.WithCancelCause(ctx)
	defer stop(nil)
	todo := make(chan int)
	go func() {
		defer close(todo)
		for _, s := range steps {
			select {
			case todo <- s:
			case <-ctx.Done():
				return
			}
		}
	}()
	var hand sync.Mutex
	var all sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		all.Go(func() {
			for s := range todo {
				if g.steps.Acquire(ctx, 1) != nil {
					return
				}
				out, err := work(ctx, s)
				g.steps.Release(1)
				if err == nil {
					hand.Lock()
					err = take(out)
					hand.Unlock()
				}
				if err != nil {
					stop(err)
					return
				}
			}
		})
	}
	all.Wait()
	return context.Cause(ctx)
}
