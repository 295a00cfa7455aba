// Command withcluster starts one PostgreSQL for a test run, runs a command
// with MOKREN_TEST_CLUSTER set, and stops it again.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"syscall"

	"mokren/store/cluster"
	"mokren/store/storetest"
)

func main() {
	code, err := run(os.Args[1:])
	if err != nil {
		fmt.Fprintln(os.Stderr, "withcluster:", err)
		code = 1
	}
	os.Exit(code)
}

func run(args []string) (int, error) {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	dir, err := os.MkdirTemp("", "mokren-run-")
	if err != nil {
		return 1, err
	}
	defer os.RemoveAll(dir)
	c, err := cluster.Open(ctx, dir)
	if err != nil {
		return 1, err
	}
	defer c.Stop() //nolint:errcheck // the folder goes anyway
	if err := storetest.Prepare(ctx, c); err != nil {
		return 1, err
	}
	cmd := exec.CommandContext(ctx, args[0], args[1:]...)
	cmd.Stdout, cmd.Stderr = os.Stdout, os.Stderr
	cmd.Env = append(os.Environ(), c.Env())
	cmd.Cancel = func() error { return cmd.Process.Signal(syscall.SIGTERM) }
	err = cmd.Run()
	var exit *exec.ExitError
	if errors.As(err, &exit) {
		return exit.ExitCode(), nil
	}
	return 0, err
}
