// Command mokren serves the application and answers from the command line.
package main

import (
	"os"

	"github.com/alecthomas/kong"
)

type cli struct {
	Serve    serveCmd    `cmd:"" help:"Serve the application."`
	Demo     demoCmd     `cmd:"" help:"Serve the application with an invented practice in it."`
	Calc     calcCmd     `cmd:"" help:"Ask the core: JSON on standard input, JSON on standard output."`
	Backup   backupCmd   `cmd:"" help:"Write the whole database into an encrypted file, and prove it."`
	Restore  restoreCmd  `cmd:"" help:"Bring a backup back."`
	Check    checkCmd    `cmd:"" help:"Hold every visit's tables against its log."`
	Generate generateCmd `cmd:"" help:"Add an invented practice of a size, for sizing a server."`
	Reset    resetCmd    `cmd:"" help:"Print a one-time link by which someone chooses a new password."`
	SealKey  sealKeyCmd  `cmd:"" help:"Make the key of the second factors, for several copies of the program."`
	Migrate  migrateCmd  `cmd:"" help:"Bring a configured database up to date."`
	Device   deviceCmd   `cmd:"" help:"Run a stand-in for an outside instrument."`
	OpenAPI  openapiCmd  `cmd:"" name:"openapi" help:"Print the description of the HTTP API."`
	Figure   figureCmd   `cmd:"" help:"Print a view of the body as SVG."`
}

func main() {
	var c cli
	ctx := kong.Parse(&c, kong.Name("mokren"), kong.Description("The tool beside the massage table."),
		kong.UsageOnError())
	if err := ctx.Run(); err != nil {
		os.Stderr.WriteString("mokren: " + err.Error() + "\n")
		os.Exit(1)
	}
}
