package trade

import (
	"oarweed/core/problem"
	"oarweed/core/rig"
)

// Template is a rig to begin with.
type Template struct {
	ID  string       `json:"id"`
	Rig rig.Document `json:"rig"`
}

func (c *Catalogue) checkTemplates(l *problem.List) {
	for _, t := range c.Templates {
		if t.ID == "" || t.Rig.Name == "" {
			l.Add("templates.yaml", "a template lacks an id or a name", "fill it in")
		}
		_, _, err := c.ResolveAll(t.Rig)
		l.Take("templates.yaml."+t.ID, err)
	}
}
