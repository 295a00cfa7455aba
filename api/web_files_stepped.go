//go:build stepped

package api

import "embed"

// The front end with the clock that the browser tests step.
//
//go:embed all:webstepped
var webFiles embed.FS

const webFolder = "webstepped"
