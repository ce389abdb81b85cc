package bench

// Lost is why a cell is not connected.
type Lost string

const (
	Unreachable Lost = "unreachable" // nobody answers at the address
	Broken      Lost = "broken"      // the connection broke off
	Silent      Lost = "silent"      // nothing came that can be read
)

// CellState is what the load cell is doing.
type CellState struct {
	// Cell is the address dialled; empty: none.
	Cell string `json:"cell"`
	// Connected, or why not.
	Connected bool `json:"connected"`
	Lost      Lost `json:"lost,omitempty" enum:"unreachable,broken,silent" doc:"why it is not connected"`
	// Pull is the key of the pull that is being made; empty: none. Gap: readings are missing
	// in it, since the connection was lost for a while.
	Pull string `json:"pull,omitempty"`
	Gap  bool   `json:"gap,omitempty"`
	// ZeroKN was read before anything was drawn, and is subtracted from what is shown.
	ZeroKN   float64 `json:"zero_kn"`
	Readings int     `json:"readings" doc:"of the pull so far"`
}

// Live is what is shown at once: the state and the readings since the last, time since the
// pull began (else since the cell was switched on), zero subtracted.
type Live struct {
	CellState
	S  []float64 `json:"t_s" nullable:"false"`
	KN []float64 `json:"load_kn" nullable:"false"`
}
