package e2e

import (
	"fmt"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"oarweed/catalogue"
	"oarweed/core/shape/draw"
	"oarweed/core/shape/trace"
)

// A bowline seen from behind, on a picture drawn for this test, is traced over the photo with
// the pen and marked crossing by crossing: it is named; with one crossing wrong, that is shown
// and turned by one press; and it is still there when the page is loaded anew.
func TestNamingATracedKnot(t *testing.T) {
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		t.Run(fmt.Sprint(size[0]), func(t *testing.T) {
			s := serve(t, "demo", filepath.Join(t.TempDir(), "name.db"))
			p := open(t, size[0], size[1])
			p.met(s.url)
			p.goTo(s.url + "/teach")
			p.press(`button[aria-label="Find"]`)
			p.pressText("Name what you tied")
			p.see("h1", "Name what you tied")
			photo, err := filepath.Abs("testdata/tied.png")
			require.NoError(t, err)
			p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{photo}))
			p.until(`document.querySelector("svg image") !== null`, "the photo")
			points, over := traced(t)
			p.pen(points)
			p.until(fmt.Sprintf(`document.querySelectorAll("[data-spot]").length === %d`, len(over)), "its crossings")
			p.see(`[data-testid="named"]`, fmt.Sprintf("%d of %d crossings", len(over), len(over)))
			for i, side := range over {
				if i == 2 {
					side = map[string]string{"a": "b", "b": "a"}[side] // a slip
				}
				p.mark(i, side)
			}
			p.until(`document.querySelector('[data-named="nearly bowline"]') !== null`, "nearly")
			p.pressText("Turn that crossing over")
			p.until(`document.querySelector('[data-named="bowline"]') !== null`, "the bowline")
			p.see(`[data-testid="named"]`, "Crossing by crossing as it is drawn here")
			p.goTo(s.url + "/knots/name")
			p.until(`document.querySelector('[data-named="bowline"]') !== null`, "what was traced, kept")
			p.pressText("Standing part and end the other way")
			p.see(`[data-testid="named"]`, "have changed places")
			p.pressText("Undo")
			p.until(`!document.querySelector('[data-testid="named"]').innerText.includes("changed places")`, "undone")
			wide := p.number(`document.documentElement.scrollWidth - innerWidth`)
			assert.LessOrEqual(t, wide, 0.0, "nothing is cut off")
		})
	}
}

// mark presses a crossing until the side lies over.
func (p *page) mark(i int, side string) {
	p.t.Helper()
	for range 2 {
		p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`document.querySelector('[data-spot="%d"]').click()`, i)))
		p.until(fmt.Sprintf(`document.querySelector('[data-spot="%d"]').dataset.over !== ""`, i), "it is marked")
		if now, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](fmt.Sprintf(`document.querySelector('[data-spot="%d"]').dataset.over`, i))); err == nil && now == side {
			return
		}
	}
}

// pen draws along points, given as shares of the picture drawn on.
func (p *page) pen(points [][2]float64) {
	p.t.Helper()
	box, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]float64](`(() => { const s = document.querySelector("svg[role=application]"); s.scrollIntoView({block: "center"}); const b = s.getBoundingClientRect(); return [b.left, b.top, b.width, b.height]; })()`))
	require.NoError(p.t, err)
	at := func(q [2]float64) (x, y float64) { return box[0] + q[0]*box[2], box[1] + q[1]*box[3] }
	x, y := at(points[0])
	pressed := chromedp.ButtonType(input.MouseButtonLeft)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, pressed))
	for _, q := range points[1:] {
		x, y = at(q)
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x, y, pressed))
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x, y, pressed))
}

// traced is the line of the picture, as shares of its width and height, and which strand is over
// at each crossing of it.
func traced(t *testing.T) (points [][2]float64, over []string) {
	t.Helper()
	c, err := catalogue.Load()
	require.NoError(t, err)
	sh, err := c.Drawing("bowline")
	require.NoError(t, err)
	file, err := os.Open("testdata/tied.png")
	require.NoError(t, err)
	defer file.Close()
	picture, err := png.DecodeConfig(file)
	require.NoError(t, err)
	frame := draw.Frame(sh)
	require.InDelta(t, frame[2]/frame[3], float64(picture.Width)/float64(picture.Height), 0.05, "the picture is of this drawing")
	line := trace.Of(sh)
	for _, q := range line.Ropes[0].Points {
		x, y := 1-(q[0]-frame[0])/frame[2], (q[1]-frame[1])/frame[3]
		if y > 0.01 && y < 0.99 { // the picture cuts the standing part off
			points = append(points, [2]float64{x, y})
		}
	}
	meets, err := line.Meetings()
	require.NoError(t, err)
	for _, m := range meets {
		over = append(over, map[string]string{"a": "b", "b": "a"}[m.Over]) // seen from behind
	}
	return points, over
}
