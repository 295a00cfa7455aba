package e2e

import (
	"net"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// A cheap tablet on a practice's line: a quarter of a core, 10 Mbit/s and 40 ms there and back.
const (
	stopped, running = 12 * time.Millisecond, 4 * time.Millisecond
	lineBytesPerS    = 10_000_000 / 8
	thereAndBack     = 40 * time.Millisecond
)

// parcel is what has come to one end of a line, and when it is at the other.
type parcel struct {
	at   time.Time
	data []byte
}

// slowLine is a TCP proxy to an address: all that comes back shares one line, and takes its time in
// either direction.
func slowLine(t testing.TB, to string) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { l.Close() })
	var mu sync.Mutex
	var free time.Time // when the line has passed on what it was given
	arrives := func(n int) time.Time {
		mu.Lock()
		defer mu.Unlock()
		free = later(free, time.Now()).Add(time.Second * time.Duration(n) / lineBytesPerS)
		return free.Add(thereAndBack / 2)
	}
	go func() {
		for {
			a, err := l.Accept()
			if err != nil {
				return
			}
			b, err := net.Dial("tcp", to)
			if err != nil {
				a.Close()
				continue
			}
			go carry(a, b, func(int) time.Time { return time.Now().Add(thereAndBack / 2) })
			go carry(b, a, arrives)
		}
	}()
	return l.Addr().String()
}

func later(a, b time.Time) time.Time {
	if a.After(b) {
		return a
	}
	return b
}

// carry passes on what comes, each piece at its time, until either end closes.
func carry(from, to net.Conn, arrives func(bytes int) time.Time) {
	parcels := make(chan parcel, 64)
	go func() {
		defer to.Close()
		for p := range parcels {
			time.Sleep(time.Until(p.at))
			if _, err := to.Write(p.data); err != nil {
				from.Close()
			}
		}
	}()
	defer close(parcels)
	for {
		b := make([]byte, 16<<10)
		n, err := from.Read(b)
		if n > 0 {
			parcels <- parcel{arrives(n), b[:n]}
		}
		if err != nil {
			return
		}
	}
}

// squeezed stops a process and all that it has started for 12 of every 16 ms, until the function
// that it gives is called: the browser's own throttling slows a page's main thread only.
func squeezed(pid int) (end func()) {
	done, ended := make(chan struct{}), make(chan struct{})
	go func() {
		defer close(ended)
		var all []int
		for i := 0; ; i++ {
			if i%8 == 0 { // a page may have begun a process
				all = family(pid)
			}
			signal(all, syscall.SIGSTOP)
			time.Sleep(stopped)
			signal(all, syscall.SIGCONT)
			select {
			case <-done:
				return
			case <-time.After(running):
			}
		}
	}()
	return func() {
		close(done)
		<-ended
	}
}

func signal(all []int, s syscall.Signal) {
	for _, pid := range all {
		syscall.Kill(pid, s) //nolint:errcheck // it may have ended
	}
}

// family is a process and those that come from it.
func family(pid int) []int {
	parents := map[int]int{}
	stats, _ := filepath.Glob("/proc/[0-9]*/stat")
	for _, name := range stats {
		raw, err := os.ReadFile(name)
		if err != nil {
			continue
		}
		text := string(raw)
		fields := strings.Fields(text[strings.LastIndexByte(text, ')')+1:])
		id, _ := strconv.Atoi(filepath.Base(filepath.Dir(name)))
		parents[id], _ = strconv.Atoi(fields[1])
	}
	all := []int{pid}
	for child := range parents {
		for up := parents[child]; up > 1; up = parents[up] {
			if up == pid {
				all = append(all, child)
				break
			}
		}
	}
	return all
}

// used is the processor time of a process and those that come from it.
func used(t testing.TB, pid int) time.Duration {
	t.Helper()
	const ticksPerS = 100 // USER_HZ of Linux
	var ticks int
	for _, id := range family(pid) {
		raw, err := os.ReadFile("/proc/" + strconv.Itoa(id) + "/stat")
		if err != nil {
			continue
		}
		text := string(raw)
		fields := strings.Fields(text[strings.LastIndexByte(text, ')')+1:])
		for _, f := range fields[11:13] {
			n, err := strconv.Atoi(f)
			require.NoError(t, err)
			ticks += n
		}
	}
	return time.Duration(ticks) * time.Second / ticksPerS
}
