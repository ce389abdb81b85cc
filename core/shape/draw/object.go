package draw

import (
	"fmt"

	"oarweed/core/shape/curve"
	"oarweed/core/shape/source"
)

const (
	metal = "fill:var(--object,#a9b3ad);stroke:var(--object-edge,#46524c)"
	gleam = "stroke:var(--object-light,#dfe5e0)"
	dark  = "stroke:var(--object-edge,#46524c)"
)

// object draws one object, in front of the strands behind it.
func (d *drawing) object(o source.Object) {
	hx, hy := o.Half()
	at := func(x, y float64) curve.Point { return o.At.Add(curve.Pt(x, y)) }
	path := func(p, style string, w float64, more string) {
		fmt.Fprintf(&d.b, `<path d="%s" style="%s" stroke-width="%s" %s/>`, p, style, num(w), more)
	}
	// box with corner radius r, centred at dx, dy from the object.
	box := func(dx, dy, w, h, r float64) {
		a := d.tf(at(dx, dy))
		if d.o.Quarter {
			w, h = h, w
		}
		fmt.Fprintf(&d.b, `<rect x="%s" y="%s" width="%s" height="%s" rx="%s" style="%s" stroke-width=".06"/>`,
			num(a.X-w/2), num(a.Y-h/2), num(w), num(h), num(r), metal)
	}
	line := func(a, b curve.Point) string { return "M" + d.xy(a) + "L" + d.xy(b) }
	shine := func() {
		if o.Form() == source.Upright {
			path(line(at(-0.35*o.R, -hy), at(-0.35*o.R, hy)), gleam, 0.3*o.R, `stroke-opacity=".7"`)
		} else {
			path(line(at(-hx+o.R, -0.35*o.R), at(hx-o.R, -0.35*o.R)), gleam, 0.3*o.R, `stroke-opacity=".7" stroke-linecap="round"`)
		}
	}
	bent := func(p string, w float64) {
		path(p, dark, w+0.12, `stroke-linecap="round"`)
		path(p, "stroke:var(--object,#a9b3ad)", w, `stroke-linecap="round"`)
	}
	circle := func() {
		c := d.tf(o.At)
		for _, s := range []struct {
			style    string
			w, shift float64
		}{{dark, o.Len + 0.12, 0}, {"stroke:var(--object,#a9b3ad)", o.Len, 0}, {gleam, 0.28 * o.Len, -0.18 * o.Len}} {
			fmt.Fprintf(&d.b, `<circle cx="%s" cy="%s" r="%s" style="%s" stroke-width="%s"/>`, num(c.X), num(c.Y), num(o.R+s.shift), s.style, num(s.w))
		}
	}
	// oval is a ring seen at an angle: four cubics.
	oval := func() {
		const k = 0.5523 // 4/3·(√2−1)
		x, y := o.R, o.R*o.Tall()
		p := func(a, b float64) string { return d.xy(at(a*x, b*y)) }
		ring := "M" + p(1, 0) + "C" + p(1, k) + " " + p(k, 1) + " " + p(0, 1) + "C" + p(-k, 1) + " " + p(-1, k) + " " + p(-1, 0) +
			"C" + p(-1, -k) + " " + p(-k, -1) + " " + p(0, -1) + "C" + p(k, -1) + " " + p(1, -k) + " " + p(1, 0) + "Z"
		bent(ring, o.Len)
	}
	switch o.Kind {
	case source.EdgeOn:
		oval()
	case source.Bollard:
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
		box(0, -hy-0.45*o.R, 3*o.R, 0.9*o.R, 0.4*o.R)
	case source.Pylon:
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
		box(0, -hy-0.4*o.R, 2.6*o.R, 1.2*o.R, 0.6*o.R)
	case source.Cord:
		box(0, 0, 2*hx, 2*hy, 0)
		for y := -hy; y+1.3*o.R < hy; y += 0.9 * o.R {
			path("M"+d.xy(at(-0.9*o.R, y+0.9*o.R))+"Q"+d.xy(at(-0.2*o.R, y+0.8*o.R))+" "+d.xy(at(0.9*o.R, y)), dark, 0.06, `stroke-opacity=".45"`)
		}
	case source.Tails:
		box(0, 0, 2*hx, 2*hy, 0)
		for x := -hx; x+1.3*o.R < hx; x += 0.9 * o.R {
			path("M"+d.xy(at(x+0.9*o.R, 0.9*o.R))+"Q"+d.xy(at(x+0.8*o.R, 0.2*o.R))+" "+d.xy(at(x, -0.9*o.R)), dark, 0.06, `stroke-opacity=".45"`)
		}
	case source.Spike:
		path("M"+d.xy(at(-o.R, -hy-1.5*o.R))+"Q"+d.xy(at(0, -hy-2.3*o.R))+" "+d.xy(at(o.R, -hy-1.5*o.R))+"L"+d.xy(at(o.R, hy))+"L"+d.xy(at(0, hy+2.5*o.R))+"L"+d.xy(at(-o.R, hy))+"Z", metal, 0.06, "")
		shine()
	case source.Spar:
		box(0, 0, 2*hx, 2*hy, 0.3*o.R)
		for i, f := range []float64{-0.6, -0.15, 0.3, 0.7} { // the grain
			a, b := -hy+(0.5+0.7*float64(i%2))*o.R, hy-(0.4+0.8*float64(i%3))*o.R
			path("M"+d.xy(at(f*o.R, a))+"Q"+d.xy(at((f+0.16)*o.R, (a+b)/2))+" "+d.xy(at(f*o.R, b)), dark, 0.05, `stroke-opacity=".5"`)
		}
	case source.Bundle:
		for i := range 4 {
			f := -0.75 + 0.5*float64(i)
			box(f*o.R, []float64{0.3, -0.2, 0.1, -0.3}[i], 0.5*o.R, 2*hy-0.8, 0.22*o.R)
		}
	case source.Hook:
		bent("M"+d.xy(at(0, 0))+"L"+d.xy(at(0, -5.4*o.R)), 1.5*o.R)
		box(0, 0, 2*hx, 2*hy, o.R)
		shine()
	case source.Shank:
		bent("M"+d.xy(at(hx, 0))+"C"+d.xy(at(hx+4.5*o.R, 0))+" "+d.xy(at(hx+4.5*o.R, 8.5*o.R))+" "+d.xy(at(hx, 8.5*o.R))+"C"+d.xy(at(hx-1.5*o.R, 8.5*o.R))+" "+d.xy(at(hx-2.2*o.R, 7.4*o.R))+" "+d.xy(at(hx-2.2*o.R, 5.4*o.R)), 1.6*o.R)
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
	case source.Cleat:
		box(0, 0, 0.34*o.Len, 2.9*o.R, 0.5*o.R)
		for _, x := range []float64{-0.12, 0.12} {
			c := d.tf(at(x*o.Len, 0))
			for _, y := range []float64{-1.2, 1.2} {
				fmt.Fprintf(&d.b, `<circle cx="%s" cy="%s" r="%s" style="%s" stroke-width=".05"/>`, num(c.X), num(c.Y+y*o.R), num(0.16*o.R), dark)
			}
		}
		box(0, 0, 2*hx, 2*hy, o.R)
		shine()
	case source.Hole:
		for _, s := range []float64{-1, 1} {
			box(0, s*2.5*o.R, o.Len, 3*o.R, 0.15*o.Len)
		}
	case source.Shackle:
		circle()
		box(0, o.R*0.98, 2.2*o.R, 0.85*o.Len, 0.3*o.Len)
	case source.TowEye:
		box(hx+0.7*o.R, 0, 1.8*o.R, 2.4*o.R, 0.2*o.R)
		circle()
	case source.Shaft:
		// The hole lets the strands behind be seen. Arcs as four cubics each.
		const k = 0.5523 // 4/3·(√2−1)
		r, out, end := o.R-o.Len/2, o.R+o.Len/2, source.ShaftReach*o.R
		arc := func(x0, y0, x1, y1, r float64) string { // a quarter from x0, y0 to x1, y1, unit directions
			return "C" + d.xy(at(r*(x0+k*x1), r*(y0+k*y1))) + " " + d.xy(at(r*(x1+k*x0), r*(y1+k*y0))) + " " + d.xy(at(r*x1, r*y1))
		}
		path("M"+d.xy(at(end, out))+"L"+d.xy(at(0, out))+arc(0, 1, -1, 0, out)+arc(-1, 0, 0, -1, out)+"L"+d.xy(at(end, -out))+"Z"+
			"M"+d.xy(at(r, 0))+arc(1, 0, 0, 1, r)+arc(0, 1, -1, 0, r)+arc(-1, 0, 0, -1, r)+arc(0, -1, 1, 0, r)+"Z", metal, 0.06, `fill-rule="evenodd"`)
	case source.Eye:
		p := func(x, y float64) string { return d.xy(at(x*o.R, y*o.R)) }
		bent("M"+p(1, 0)+"L"+p(2.6, 0)+"C"+p(4.9, 0)+" "+p(4.9, 3.5)+" "+p(2.8, 3.5)+"C"+p(2, 3.5)+" "+p(1.7, 3)+" "+p(1.7, 1.9), o.Len)
		circle()
	default:
		if o.Form() == source.Round {
			circle()
			return
		}
		box(0, 0, 2*hx, 2*hy, 0)
		shine()
	}
}
