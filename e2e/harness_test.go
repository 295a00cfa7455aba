// Package e2e drives the real interface in headless Chromium against the real
// program and PostgreSQL. Every test has a copy of the demo's database, a copy of
// the program and a browser context of its own, so tests run side by side.
package e2e

import (
	"context"
	"fmt"
	"log"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/utils"

	"mokren/devices/algometer"
	"mokren/devices/inclinometer"
	"mokren/devices/pressurepad"
	"mokren/store/storetest"
)

var (
	browser *rod.Browser
	// instrument streams as an inclinometer would, five times as fast as life.
	instrument *httptest.Server
	// algometers press five times as fast as life.
	algometers *httptest.Server
	// pads press a simulated tissue as the coach says, at the pace of life.
	pads *httptest.Server
)

// Limits that no sound test comes near, on a slow machine either. A step is one
// wait for something on a page; a test is all of its steps.
const (
	stepLimit = time.Minute
	testLimit = 5 * time.Minute
	// lookAgain is how often a page is asked whether it shows what is waited for.
	lookAgain = 20 * time.Millisecond
)

func TestMain(m *testing.M) { os.Exit(run(m)) }

func run(m *testing.M) int {
	if os.Getenv("MOKREN_BENCH") == "" {
		storetest.CheapPasswords()
	}
	dir, err := os.MkdirTemp("", "mokren-e2e-")
	if err != nil {
		log.Fatal(err)
	}
	defer os.RemoveAll(dir)
	closeRecords, err := openRecords(context.Background(), dir)
	if err != nil {
		log.Fatal(err)
	}
	defer closeRecords()
	instrument = httptest.NewServer(inclinometer.Handler(inclinometer.Options{
		Ranges: []float64{58, 66, 60, 64},
		Speed:  5,
	}))
	defer instrument.Close()
	algometers = httptest.NewServer(algometer.Handler(algometer.Options{Speed: 5}))
	defer algometers.Close()
	pads = httptest.NewServer(pressurepad.Handler(pressurepad.Options{}))
	defer pads.Close()
	l := chromium(filepath.Join(dir, "chromium"))
	if os.Getenv("MOKREN_BENCH") == "" {
		// A test's page lives for seconds: what the best compilers of Chromium cost it never
		// gives back. A tenth of the processor's time of all browser tests.
		l.Set("js-flags", "--no-turbofan --no-wasm-tier-up")
		// No test looks at a movement between two states, and each frame of one is painted.
		l.Set("force-prefers-reduced-motion")
	}
	defer l.Kill()
	address := l.MustLaunch()
	browserPID = l.PID()
	browser = rod.New().ControlURL(address).MustConnect().Sleeper(patient)
	defer browser.Close()
	code := m.Run()
	for _, end := range ends {
		end()
	}
	return code
}

// chromium is the browser that is not started yet, with its profile in a folder.
func chromium(dir string) *launcher.Launcher {
	path, err := exec.LookPath("chromium-headless-shell")
	if err != nil {
		var ok bool
		if path, ok = launcher.LookPath(); !ok {
			log.Fatal("Chromium is not installed: run `apt-get install chromium-headless-shell`")
		}
	}
	return launcher.New().
		Bin(path).
		Leakless(false).
		NoSandbox(os.Geteuid() == 0).
		Headless(true).
		UserDataDir(dir).
		Set("disable-background-networking").
		Set("disable-component-update").
		Set("disable-sync").
		Set("no-first-run").
		Set("disable-gpu").
		Set("hide-scrollbars")
}

// browserPID is the process of the browser of all tests.
var browserPID int

// ends are called when all tests are done.
var ends []func()

func atTheEnd(end func()) { ends = append(ends, end) }

// patient looks again and again for what is waited for, each wait within the limit of
// a step.
func patient() utils.Sleeper {
	began := time.Now()
	return func(ctx context.Context) error {
		if time.Since(began) > stepLimit {
			return fmt.Errorf("waited %s for it", stepLimit)
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(lookAgain):
			return nil
		}
	}
}
