package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os/signal"
	"syscall"
	"time"

	"mokren/devices/algometer"
	"mokren/devices/clientpad"
	"mokren/devices/conform"
	"mokren/devices/inclinometer"
	"mokren/devices/pressurepad"
)

// deviceCmd runs a stand-in for an outside instrument.
type deviceCmd struct {
	Inclinometer inclinometerCmd `cmd:"" help:"Stream as a caliper-inclinometer would (WebSocket)."`
	Algometer    algometerCmd    `cmd:"" help:"Stream as a pressure algometer would (WebSocket)."`
	PressurePad  pressurePadCmd  `cmd:"" help:"Stream as a pressure pad would (WebSocket)."`
	ClientPad    clientPadCmd    `cmd:"" help:"Say numbers as a client with a pad would."`
	Check        checkDeviceCmd  `cmd:"" help:"Hold an instrument against docs/instruments.md, and name each rule that it breaks."`
}

type checkDeviceCmd struct {
	Address string        `arg:"" help:"Where it streams: ws://HOST:PORT/ or wss://HOST:PORT/"`
	As      string        `required:"" enum:"inclinometer,algometer,pressure-pad" help:"What it is: inclinometer, algometer or pressure-pad."`
	For     time.Duration `default:"3s" help:"How long its samples are listened to."`
}

// Run prints every rule with whether it is kept; a broken one fails the command.
func (c *checkDeviceCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	found, err := conform.Check(ctx, c.Address, conform.Kind(c.As), conform.Options{For: c.For})
	if err != nil {
		return err
	}
	broken := 0
	for _, f := range found {
		if f.Broken == "" {
			fmt.Println("kept    ", f.Rule)
			continue
		}
		broken++
		fmt.Println("BROKEN  ", f.Rule+":", f.Broken)
	}
	if broken > 0 {
		return fmt.Errorf("%d of %d rules are broken", broken, len(found))
	}
	return nil
}

type pressurePadCmd struct {
	Addr  string  `default:"127.0.0.1:7477" help:"Address to listen on; start the application with MOKREN_PRESSUREPAD=ws://ADDR/"`
	Speed float64 `default:"1" help:"How much faster than life."`
}

// Run streams until it is told to stop.
func (c *pressurePadCmd) Run() error {
	return runStandIn(c.Addr, "pressure pad", pressurepad.Handler(pressurepad.Options{Speed: c.Speed}))
}

type clientPadCmd struct {
	Code    string        `arg:"" help:"The code that the hold screen shows."`
	Server  string        `default:"http://127.0.0.1:7470" help:"Where the application is."`
	Numbers []float64     `default:"6,6,5,4,3,2" help:"What it says, one after the other; the last again and again."`
	Every   time.Duration `default:"8s" help:"From one number to the next."`
}

// Run says its numbers until it is told to stop.
func (c *clientPadCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	pad := clientpad.New(c.Server, c.Code)
	go func() {
		for i := 0; ; i++ {
			select {
			case <-ctx.Done():
				return
			case <-time.After(c.Every):
				pad.Say(c.Numbers[min(i, len(c.Numbers)-1)])
			}
		}
	}()
	fmt.Println("The pad says its numbers; Ctrl-C stops it.")
	pad.Run(ctx)
	return nil
}

type algometerCmd struct {
	Addr  string    `default:"127.0.0.1:7476" help:"Address to listen on; start the application with MOKREN_ALGOMETER=ws://ADDR/"`
	Ramp  []float64 `help:"Rise of each press in kPa/s, in turn."`
	Speed float64   `default:"1" help:"How much faster than life."`
}

// Run streams until it is told to stop.
func (c *algometerCmd) Run() error {
	return runStandIn(c.Addr, "algometer", algometer.Handler(algometer.Options{RampKPa: c.Ramp, Speed: c.Speed}))
}

type inclinometerCmd struct {
	Addr   string    `default:"127.0.0.1:7475" help:"Address to listen on; start the application with MOKREN_INCLINOMETER=ws://ADDR/"`
	Ranges []float64 `help:"Ends of the movements in degrees, in turn."`
	Speed  float64   `default:"1" help:"How much faster than life."`
}

// Run streams until it is told to stop.
func (c *inclinometerCmd) Run() error {
	return runStandIn(c.Addr, "inclinometer",
		inclinometer.Handler(inclinometer.Options{Ranges: c.Ranges, Speed: c.Speed}))
}

func runStandIn(addr, name string, is http.Handler) error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	at, err := standIn(ctx, addr, is)
	if err != nil {
		return err
	}
	fmt.Printf("The %s streams at %s; Ctrl-C stops it.\n", name, at)
	<-ctx.Done()
	return nil
}

// standIn serves the instrument in the background and gives its address as a
// browser needs it. A port that is taken is replaced by a free one.
func standIn(ctx context.Context, addr string, is http.Handler) (string, error) {
	l, err := net.Listen("tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		l, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return "", fmt.Errorf("listening for the instrument on %s: %w", addr, err)
	}
	srv := &http.Server{Handler: is, ReadHeaderTimeout: 10 * time.Second}
	go srv.Serve(l) //nolint:errcheck // ends with ctx
	context.AfterFunc(ctx, func() { srv.Close() })
	return "ws://" + l.Addr().String() + "/", nil
}
