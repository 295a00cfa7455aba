module mokren/tools

go 1.26.0

tool (
	github.com/golangci/golines
	github.com/ultraware/funlen/cmd/funlen
	golang.org/x/tools/cmd/deadcode
	mvdan.cc/gofumpt
)

require (
	github.com/alecthomas/kingpin/v2 v2.4.0 // indirect
	github.com/alecthomas/units v0.0.0-20240927000941-0f3dac36c52b // indirect
	github.com/dave/dst v0.28.0 // indirect
	github.com/golangci/golines v0.16.1 // indirect
	github.com/ldez/structtags v0.6.2 // indirect
	github.com/rogpeppe/go-internal v1.16.0 // indirect
	github.com/ultraware/funlen v0.2.0 // indirect
	github.com/xhit/go-str2duration/v2 v2.1.0 // indirect
	golang.org/x/mod v0.42.0 // indirect
	golang.org/x/sync v0.24.0 // indirect
	golang.org/x/sys v0.49.0 // indirect
	golang.org/x/telemetry v0.0.0-20261009151841-97e8ea77aa2a // indirect
	golang.org/x/term v0.47.0 // indirect
	golang.org/x/tools v0.52.0 // indirect
	mvdan.cc/gofumpt v0.12.0 // indirect
)
