// Package web holds the built front end.
package web

import "embed"

// Dist is what "npm run build" wrote: index.html and assets/, each with a .gz
// beside it. Before the first build it holds only a placeholder.
//
//go:embed all:dist
var Dist embed.FS
