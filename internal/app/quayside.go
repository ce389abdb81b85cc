package app

import (
	"oarweed/core/evidence"
	"oarweed/core/job"
	"oarweed/core/say"
)

// SlipQuery is a slip line as typed.
type SlipQuery struct {
	Distance string `query:"distance" default:"4m" help:"from the cleat to the ring, along the deck"`
	Height   string `query:"height" default:"1m" help:"by how much the ring is higher or lower"`
	Line     string `query:"line" default:"12mm" help:"diameter of the line"`
}

// SlipAnswer is how long it is, and what runs out through the ring.
type SlipAnswer struct {
	LengthM float64 `json:"length_m"`
	RunsM   float64 `json:"runs_m" doc:"runs out through the ring when one end is let go"`
	Says    string  `json:"says"`
}

// SlipLine works out a line that is led through a ring and back aboard.
func (s *School) SlipLine(q SlipQuery) (*SlipAnswer, error) {
	x, err := job.SlipLine(s.Trade(), job.SlipInput(q))
	if err != nil {
		return nil, err
	}
	return &SlipAnswer{x.Length.M(), x.Runs.M(), say.SlipLine(x)}, nil
}

// HeaveQuery is a heaving line as typed.
type HeaveQuery struct {
	Distance string `query:"distance" default:"9m" help:"to the hand ashore"`
	Height   string `query:"height" default:"1m" help:"by how much that is higher"`
	Line     string `query:"line" default:"16mm" help:"diameter of the mooring line that follows"`
}

// HeaveAnswer is how long heaving line and messenger are.
type HeaveAnswer struct {
	HeavingM   float64 `json:"heaving_m"`
	MessengerM float64 `json:"messenger_m"`
	Far        bool    `json:"far" doc:"beyond what most people throw"`
	// Throw is how far a weighted line is thrown, m.
	Throw evidence.Figure `json:"throw_m"`
	Says  string          `json:"says"`
}

// HeavingLine works out a heaving line and its messenger.
func (s *School) HeavingLine(q HeaveQuery) (*HeaveAnswer, error) {
	x, err := job.HeavingLine(s.Trade(), job.HeaveInput(q))
	if err != nil {
		return nil, err
	}
	return &HeaveAnswer{x.Heaving.M(), x.Messenger.M(), x.Far, job.Throw, say.HeavingLine(x)}, nil
}

// TideQuery is a fender at a fixed wall as typed.
type TideQuery struct {
	Rail   string `query:"rail" default:"1.5m" help:"her rail above the water"`
	Edge   string `query:"edge" default:"2m" help:"edge of the wall above the water now"`
	Rise   string `query:"rise" default:"1m" help:"how much the water will still rise"`
	Fall   string `query:"fall" default:"1.5m" help:"how much it will fall"`
	Fender string `query:"fender" default:"600mm" help:"length of the fender"`
}

// TideAnswer is how it hangs.
type TideAnswer struct {
	DropM  float64 `json:"drop_m" doc:"from the rail down to its eye"`
	ClearM float64 `json:"clear_m"`
	Covers bool    `json:"covers" doc:"at high water the wall still reaches its middle"`
	OverM  float64 `json:"over_m" doc:"the rail above the edge at high water; below zero: under it"`
	UnderM float64 `json:"under_m" doc:"the rail below the edge at low water; below zero: above it"`
	LeadM  float64 `json:"lead_m" doc:"least lead of each line: three times the range (common practice, no source)"`
	Says   string  `json:"says"`
}

// FenderTide hangs a fender at a wall for all the water that is to come.
func (s *School) FenderTide(q TideQuery) (*TideAnswer, error) {
	x, err := job.FenderTide(job.TideInput(q))
	if err != nil {
		return nil, err
	}
	return &TideAnswer{x.Drop.M(), x.Clear.M(), x.Covers, x.Over.M(), x.Under.M(), x.Lead.M(), say.FenderTide(x)}, nil
}
