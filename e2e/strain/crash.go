package main

import (
	"fmt"
	"math/rand/v2"
	"net/http"
	"os/exec"
	"sync"
	"time"
)

type crash struct {
	Binary  string `required:"" help:"The application."`
	Times   int    `default:"200" help:"How often it is killed."`
	Writers int    `default:"4" help:"Clients that write at the same time."`
	Seed    uint64 `default:"1" help:"Chooses the moments."`
}

func (c *crash) Run() error {
	dir, remove, err := scratch()
	if err != nil {
		return err
	}
	defer remove()
	r := rand.New(rand.NewPCG(c.Seed, 0))
	var hand sync.Mutex
	var acknowledged []string
	for round := range c.Times {
		s, err := start(c.Binary, "serve", dbIn(dir))
		if err != nil {
			return fmt.Errorf("after %d kills: %w", round, err)
		}
		if round == 0 {
			if err := do(http.MethodPost, s.url+"/api/v1/learners", map[string]string{"name": "Ailsa"}, nil); err != nil {
				s.kill()
				return err
			}
		}
		var writers sync.WaitGroup
		for w := range c.Writers {
			writers.Go(func() {
				for n := 0; ; n++ {
					a := attempt{fmt.Sprintf("%d-%d-%d", round, w, n), 1, "bowline", "right", 9}
					// An error is the server's end: what was under way was not acknowledged.
					if do(http.MethodPost, s.url+"/api/v1/attempts", a, nil) != nil {
						return
					}
					hand.Lock()
					acknowledged = append(acknowledged, a.Key)
					hand.Unlock()
				}
			})
		}
		time.Sleep(time.Duration(20+r.IntN(180)) * time.Millisecond)
		s.kill()
		writers.Wait()
	}
	found, err := keys(c.Binary, dbIn(dir))
	if err != nil {
		return err
	}
	if out, err := exec.Command(c.Binary, "verify", "--db", dbIn(dir)).CombinedOutput(); err != nil {
		return fmt.Errorf("verify: %w: %s", err, out)
	}
	fmt.Printf("killed %d times; %d attempts acknowledged, %d kept\n", c.Times, len(acknowledged), len(found))
	return lost(acknowledged, found)
}
