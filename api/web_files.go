//go:build !stepped

package api

import "embed"

// The built front end. A placeholder is committed, so that the program builds on a
// clean clone.
//
//go:embed all:web
var webFiles embed.FS

const webFolder = "web"
