package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// saved is a rig as the API keeps it.
type saved struct {
	ID, Revision int
	Rig          map[string]any
}

func (s *server) rigs(t *testing.T) []saved {
	t.Helper()
	res, err := http.Get(s.url + "/api/v1/rigs")
	require.NoError(t, err)
	defer res.Body.Close()
	var list []saved
	require.NoError(t, json.NewDecoder(res.Body).Decode(&list))
	return list
}

// Two people change the same rig: the second is shown both and chooses.
func TestTwoWhoChangeTheSameRigLoseNothing(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.refuses = true
	p.goTo(s.url)
	p.takeMenu("Saved rigs", "Lugger fenders")
	p.see(`[data-ranked]:first-child`, "Clove hitch")
	p.enter("load", "0.9 kN")
	p.see(`[data-testid="sentence"]`, "takes 0.9 kN")

	before := s.rigs(t)
	var theirs saved
	for _, r := range before {
		if r.Rig["name"] == "Lugger fenders" {
			theirs = r
		}
	}
	require.NotZero(t, theirs.ID)
	theirs.Rig["peak_kn"] = 0.3
	body, err := json.Marshal(map[string]any{"rig": theirs.Rig})
	require.NoError(t, err)
	req, err := http.NewRequest(http.MethodPut, fmt.Sprintf("%s/api/v1/rigs/%d", s.url, theirs.ID), bytes.NewReader(body))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("If-Match", fmt.Sprintf(`"%d"`, theirs.Revision))
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	require.Equal(t, http.StatusOK, res.StatusCode)

	p.rigs()
	p.pressText("Save")
	p.see(`[data-testid="conflict"]`, "highest load")
	p.see(`[data-testid="conflict"]`, "0.9")
	p.see(`[data-testid="conflict"]`, "0.3")
	load := func() any {
		for _, r := range s.rigs(t) {
			if r.ID == theirs.ID {
				return r.Rig["peak_kn"]
			}
		}
		return nil
	}
	assert.Equal(t, 0.3, load(), "nothing is saved before it is settled")
	p.pressText("Keep mine")
	p.see(`[role="status"]`, "Saved")
	assert.Equal(t, 0.9, load())
	assert.Len(t, s.rigs(t), len(before), "one rig, not two")
}

// A change is taken back by key, and comes back after the page was closed.
func TestTakenBackByKeyAndKeptOnTheDevice(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.goTo(s.url)
	p.see(`[data-testid="sentence"]`, "12 mm polyester braid")
	for _, size := range []string{"14 mm", "16 mm"} {
		p.enter("line_size", size)
		p.see(`[data-testid="sentence"]`, "A "+size)
		p.until(`document.querySelector("[role=dialog]") === null`, "the editor to close")
		time.Sleep(300 * time.Millisecond) // what follows within a quarter of a second is the same change
	}
	p.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see(`[data-testid="sentence"]`, "A 14 mm")
	p.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see(`[data-testid="sentence"]`, "A 12 mm")
	p.do(chromedp.KeyEvent("y", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see(`[data-testid="sentence"]`, "A 14 mm")
	// Saved by nobody, it is still there in the next window; a link is for sending on.
	p.until(`localStorage.length > 0 && location.search.includes("rig=")`, "the device to keep it")
	p.goTo(s.url + "/knots")
	p.see("h1", "Knots")
	p.goTo(s.url + "/")
	p.see(`[data-testid="sentence"]`, "A 14 mm")
}

// block keeps the page from fetching what fits the patterns.
func (p *page) block(patterns ...*network.BlockPattern) {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		if _, err := cdp.Call(ctx, t, network.Enable, network.EnableParams{}); err != nil {
			return err
		}
		_, err := cdp.Call(ctx, t, network.SetBlockedURLs, network.SetBlockedURLsParams{URLPatterns: patterns})
		return err
	}))
}

// A view that fails says so in its place, and the rest goes on.
func TestAViewThatFailsIsNotTheWholePage(t *testing.T) {
	s := serve(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	p := open(t, 1280, 800)
	p.refuses = true
	p.goTo(s.url + "/knots")
	p.see("h1", "Knots")
	// The script of the log cannot be fetched.
	p.block(&network.BlockPattern{URLPattern: s.url + "/assets/*", Block: true})
	p.pressText("Log")
	p.see(`[data-testid="broken"]`, "could not be fetched")
	p.see("nav", "Knots")
	p.block()
	p.pressText("Try again")
	p.do(chromedp.WaitVisible(chromedp.CSS("[data-attempt]"))) // on the page loaded anew
	p.see("h1", "Log")
}
