package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"runtime/debug"
	"strconv"
	"strings"
	"syscall"
	"time"

	"mokren/api"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/picture"
	"mokren/demo"
	"mokren/devices/algometer"
	"mokren/devices/inclinometer"
	"mokren/devices/pressurepad"
	"mokren/store"
)

type serveCmd struct {
	database
	Addr             string `env:"MOKREN_ADDR"          default:"127.0.0.1:7470" help:"Address to listen on."`
	SignInsPerMinute int    `env:"MOKREN_SIGN_INS"      default:"10"             help:"Sign-in attempts per minute from one address."`
	Inclinometer     string `env:"MOKREN_INCLINOMETER"                           help:"WebSocket at which an inclinometer streams to the browser; empty: none."`
	Algometer        string `env:"MOKREN_ALGOMETER"                              help:"WebSocket at which a pressure algometer streams to the browser; empty: none."`
	PressurePad      string `env:"MOKREN_PRESSUREPAD"                            help:"WebSocket at which a pressure pad streams to the browser; empty: none."`
	SecureCookie     bool   `env:"MOKREN_SECURE_COOKIE"                          help:"Set when a proxy serves this over TLS."`
	TLSCert          string `env:"MOKREN_TLS_CERT"                               help:"Certificate file, PEM; with the key, it is served over TLS here."`
	TLSKey           string `env:"MOKREN_TLS_KEY"                                help:"Key file of the certificate, PEM."`
	MetricsAddr      string `env:"MOKREN_METRICS_ADDR"                           help:"Address of its own for Prometheus, within the house; empty: none."`
}

type demoCmd struct{ serveCmd }

type openapiCmd struct {
	Indent bool `help:"On many lines, so that a change can be read."`
}

type figureCmd struct {
	View   body.View       `arg:"" help:"front, back, left, right, head-left, head-right, sole-left, sole-right, or section"`
	At     string          `       help:"Level of a section, percent of the height below the crown, such as 62%."`
	Layers []picture.Layer `       help:"bones, landmarks, muscles, structures, referral"`
	Depth  int             `       help:"muscles of this layer only, 1 superficial to 4 deep"`
	Only   []ids.Muscle    `       help:"these muscles only"`
}

// Run prints a view as SVG.
func (c *figureCmd) Run() error {
	if c.View == "section" {
		return c.section()
	}
	if c.At != "" {
		return fmt.Errorf("--at: given %q; allowed: with section only", c.At)
	}
	w := picture.LayerRequest{
		View:   c.View,
		Layers: append([]picture.Layer{}, c.Layers...),
		Depth:  c.Depth,
		Only:   c.Only,
	}
	raw, err := json.Marshal(w)
	if err != nil {
		return err
	}
	if err := decode.JSON(raw, &w); err != nil { // the same check as everywhere
		return err
	}
	fmt.Println(picture.SVG(w))
	return nil
}

// section prints a cross-section.
func (c *figureCmd) section() error {
	at, err := strconv.ParseFloat(strings.TrimSuffix(c.At, "%"), 64)
	if err != nil || !(at >= lowestSection && at <= highestSection) {
		return fmt.Errorf("--at: given %q; allowed: %g%% to %g%% of the height below the crown", c.At, lowestSection,
			highestSection)
	}
	fmt.Println(picture.Section(at * 10))
	return nil
}

// Sections are cut through head, trunk, arms and legs.
const lowestSection, highestSection = 1.0, 95.0

// Run prints the API description.
func (c *openapiCmd) Run() error {
	b, err := api.OpenAPI()
	if err != nil {
		return err
	}
	if c.Indent {
		var out bytes.Buffer
		if err := json.Indent(&out, b, "", " "); err != nil {
			return err
		}
		b = out.Bytes()
	}
	fmt.Println(string(b))
	return nil
}

// Run serves until it is told to stop.
func (c *serveCmd) Run() error { return c.serve(nil) }

// Run fills the invented practice, switches the instrument on, then serves.
func (c *demoCmd) Run() error {
	return c.serve(func(ctx context.Context, st *store.Store) error {
		for _, x := range []struct {
			at   *string
			addr string
			is   http.Handler
		}{
			{&c.Inclinometer, "127.0.0.1:7475", inclinometer.Handler(inclinometer.Options{})},
			{&c.Algometer, "127.0.0.1:7476", algometer.Handler(algometer.Options{})},
			{&c.PressurePad, "127.0.0.1:7477", pressurepad.Handler(pressurepad.Options{})},
		} {
			if *x.at != "" {
				continue
			}
			var err error
			if *x.at, err = standIn(ctx, x.addr, x.is); err != nil {
				return err
			}
		}
		return demo.Fill(ctx, st, time.Now())
	})
}

// gcPercent: what is live between two readings is small, and a reading allocates
// much; collecting half as often costs some 20 MB.
const gcPercent = 200

// memoryLimit: near it, and not before, memory is collected more often, so that a crowd of writers
// stays within the 400 MB that are promised.
const memoryLimit = 320 << 20

func (c *serveCmd) serve(prepare func(context.Context, *store.Store) error) error {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(gcPercent)
	}
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(memoryLimit)
	}
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	st, stop, err := c.open(ctx)
	if err != nil {
		return err
	}
	err = c.listen(ctx, st, prepare)
	return errors.Join(err, stop())
}

func (c *serveCmd) listen(ctx context.Context, st *store.Store,
	prepare func(context.Context, *store.Store) error,
) error {
	if prepare != nil {
		if err := prepare(ctx, st); err != nil {
			return err
		}
	}
	if (c.TLSCert == "") != (c.TLSKey == "") {
		return errors.New("TLS needs both: --tls-cert and --tls-key")
	}
	secure := c.SecureCookie || c.TLSCert != ""
	metrics := api.NewMetrics(st)
	if err := c.serveMetrics(ctx, metrics); err != nil {
		return err
	}
	h, err := api.New(st, api.Options{
		SignInsPerMinute: c.SignInsPerMinute, SecureCookie: secure, Metrics: metrics, Listen: ctx, SharedLimits: true,
		Inclinometer: c.Inclinometer, Algometer: c.Algometer, PressurePad: c.PressurePad,
	})
	if err != nil {
		return err
	}
	l, err := net.Listen("tcp", c.Addr)
	if errors.Is(err, syscall.EADDRINUSE) && prepare != nil {
		l, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return fmt.Errorf("listening on %s: %w", c.Addr, err)
	}
	srv := &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 2 * time.Minute}
	scheme := map[bool]string{false: "http", true: "https"}[c.TLSCert != ""]
	fmt.Printf("\n  Mokren is at  %s://%s\n", scheme, l.Addr())
	if prepare != nil {
		for _, l := range demo.Logins {
			fmt.Printf("  %-12s  %-28s %s\n", l.Name, l.Email, l.Password)
		}
	}
	if err := firstStart(ctx, st, scheme+"://"+l.Addr().String()); err != nil {
		return err
	}
	fmt.Println("  Ctrl-C stops it.")
	done := make(chan error, 1)
	go func() {
		if c.TLSCert != "" {
			done <- srv.ServeTLS(l, c.TLSCert, c.TLSKey)
			return
		}
		done <- srv.Serve(l)
	}()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	slog.Info("stopping")
	grace, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	return srv.Shutdown(grace)
}

// serveMetrics lets Prometheus ask, on an address of its own.
func (c *serveCmd) serveMetrics(ctx context.Context, m *api.Metrics) error {
	if c.MetricsAddr == "" {
		return nil
	}
	l, err := net.Listen("tcp", c.MetricsAddr)
	if err != nil {
		return fmt.Errorf("listening on %s for metrics: %w", c.MetricsAddr, err)
	}
	srv := &http.Server{Handler: m.Handler(), ReadHeaderTimeout: 10 * time.Second}
	go srv.Serve(l) //nolint:errcheck // ends with the program
	context.AfterFunc(ctx, func() { srv.Close() })
	return nil
}
