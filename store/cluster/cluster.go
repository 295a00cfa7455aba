// Package cluster makes and runs Mokren's own PostgreSQL when no server is
// configured: in a folder of the project, on loopback, on a free port, as the
// right user, stopped cleanly, and found again after a kill.
package cluster

import (
	"bytes"
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/url"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
)

// Roles of the cluster. The app role cannot bypass row-level security.
const (
	adminRole = "mokren_admin"
	ownerRole = "mokren_owner"
	appRole   = "mokren_app"
)

// Cluster is a running PostgreSQL that this process looks after.
type Cluster struct {
	dir string // holds data/, a secret for each role, lock, server.log
	// bin is the folder of PostgreSQL's programs.
	bin     string
	cred    *syscall.Credential // nil: run as ourselves
	secrets map[string]string   // by role: who has one has not the others
	// port on loopback, another one at each start.
	port int
	// lock keeps two programs from running one folder.
	lock *os.File

	// mu guards what follows: a server that ends by itself is noticed by another goroutine.
	mu       sync.Mutex
	pid      int
	stopping bool
	// done is closed when the server has ended.
	done chan struct{}
}

// Open finds, makes, starts or adopts the cluster in dir. When root's folder
// is closed to the postgres user it moves to /var/lib/mokren.
func Open(ctx context.Context, dir string) (*Cluster, error) {
	bin, err := binaries()
	if err != nil {
		return nil, err
	}
	dir, err = filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	c := &Cluster{bin: bin, done: make(chan struct{})}
	if c.dir, c.cred, err = home(dir); err != nil {
		return nil, err
	}
	if err := c.takeLock(ctx); err != nil {
		return nil, err
	}
	if err := c.begin(ctx); err != nil {
		c.lock.Close()
		return nil, err
	}
	go c.watch()
	return c, nil
}

// begin makes the folder a cluster, or checks that the programs of this machine can read the
// one that is there.
func (c *Cluster) begin(ctx context.Context) error {
	made, err := os.ReadFile(filepath.Join(c.data(), "PG_VERSION"))
	if err == nil {
		err = c.binariesFor(strings.TrimSpace(string(made)))
	} else {
		err = c.initdb(ctx)
	}
	if err != nil {
		return err
	}
	if c.secrets, err = c.readSecrets(); err != nil {
		return err
	}
	if pid, port, ok := c.running(); ok {
		slog.Info("found our PostgreSQL still running", "pid", pid)
		c.pid, c.port = pid, port
	} else {
		if c.port, err = freePort(); err != nil {
			return err
		}
		if err := c.start(); err != nil {
			return err
		}
	}
	if err := c.waitReady(ctx); err != nil {
		c.Stop()
		return err
	}
	if err := c.roles(ctx); err != nil {
		c.Stop()
		return err
	}
	return nil
}

func (c *Cluster) data() string { return filepath.Join(c.dir, "data") }

// binaries finds Debian's server programs.
func binaries() (string, error) {
	if found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/postgres"); len(found) > 0 {
		return filepath.Dir(found[len(found)-1]), nil
	}
	if p, err := exec.LookPath("postgres"); err == nil {
		return filepath.Dir(p), nil
	}
	return "", errors.New("PostgreSQL's server is not installed: run `apt-get install postgresql`, or set " +
		"MOKREN_DATABASE_URL")
}

// home decides where the cluster lives and as whom it runs.
func home(dir string) (string, *syscall.Credential, error) {
	if os.Geteuid() != 0 {
		return dir, nil, os.MkdirAll(dir, 0o700)
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return "", nil, errors.New("started as root, but there is no user postgres to run the database as: run " +
			"`apt-get install postgresql`")
	}
	uid, _ := strconv.Atoi(u.Uid)
	gid, _ := strconv.Atoi(u.Gid)
	cred := &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}
	for _, d := range []string{dir, filepath.Join("/var/lib/mokren",
		strings.ReplaceAll(strings.Trim(dir, "/"), "/", "-"))} {
		if err := os.MkdirAll(d, 0o755); err != nil {
			return "", nil, err
		}
		if err := os.Chown(d, uid, gid); err != nil {
			return "", nil, err
		}
		try := exec.Command("/usr/bin/test", "-w", d)
		try.SysProcAttr = &syscall.SysProcAttr{Credential: cred}
		if try.Run() == nil {
			return d, cred, nil
		}
	}
	return "", nil, fmt.Errorf("the postgres user can reach neither %s nor /var/lib/mokren", dir)
}

// lockFor is how long a new Mokren waits for one that is just going.
const lockFor = 5 * time.Second

// takeLock keeps a second Mokren out of the same folder. One that was killed a
// moment ago may still hold it, so it is waited for.
func (c *Cluster) takeLock(ctx context.Context) error {
	f, err := os.OpenFile(filepath.Join(c.dir, "lock"), os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return err
	}
	for deadline := time.Now().Add(lockFor); ; {
		if err = syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err == nil {
			c.lock = f
			return nil
		}
		if time.Now().After(deadline) || ctx.Err() != nil {
			f.Close()
			return fmt.Errorf("another Mokren is running on %s", c.dir)
		}
		time.Sleep(50 * time.Millisecond)
	}
}

// secretFile is where a role's secret lies; the administrator's is the file
// that initdb reads.
func (c *Cluster) secretFile(role string) string {
	if role == adminRole {
		return filepath.Join(c.dir, "secret")
	}
	return filepath.Join(c.dir, "secret-"+strings.TrimPrefix(role, "mokren_"))
}

// readSecrets reads each role's, and makes those that are missing: an older
// cluster had one for all.
func (c *Cluster) readSecrets() (map[string]string, error) {
	out := map[string]string{}
	for _, role := range []string{adminRole, ownerRole, appRole} {
		b, err := os.ReadFile(c.secretFile(role))
		if errors.Is(err, os.ErrNotExist) && role != adminRole {
			b = []byte(rand.Text())
			err = c.writeSecret(role, string(b))
		}
		if err != nil {
			return nil, fmt.Errorf("reading the secret of %s: %w", role, err)
		}
		out[role] = strings.TrimSpace(string(b))
	}
	return out, nil
}

// writeSecret keeps a role's password in a file that nobody else reads.
func (c *Cluster) writeSecret(role, secret string) error {
	file := c.secretFile(role)
	if err := os.WriteFile(file, []byte(secret+"\n"), 0o600); err != nil {
		return err
	}
	if c.cred == nil || role != adminRole {
		return nil
	}
	return os.Chown(file, int(c.cred.Uid), int(c.cred.Gid)) // initdb reads it
}

// command runs one of PostgreSQL's programs as the user that owns the folder.
func (c *Cluster) command(name string, args ...string) *exec.Cmd {
	cmd := exec.Command(filepath.Join(c.bin, name), args...)
	// A group of its own, so that Ctrl-C reaches us first and we stop it in order.
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Credential: c.cred}
	cmd.Dir = "/"
	return cmd
}

// initdb makes a cluster with passwords for everybody, also from this machine.
func (c *Cluster) initdb(ctx context.Context) error {
	slog.Info("making a PostgreSQL cluster", "folder", c.dir)
	if err := c.writeSecret(adminRole, rand.Text()); err != nil {
		return err
	}
	cmd := c.command("initdb", "-D", c.data(), "-U", adminRole, "--pwfile", c.secretFile(adminRole), "-A",
		"scram-sha-256", "-E", "UTF8",
		"--locale", "C.UTF-8", "--no-sync")
	if out, err := cmd.CombinedOutput(); err != nil {
		os.RemoveAll(c.data())
		return fmt.Errorf("initdb: %w: %s", err, bytes.TrimSpace(out))
	}
	return ctx.Err()
}

// running reads the postmaster's own note of itself.
func (c *Cluster) running() (pid, port int, ok bool) {
	b, err := os.ReadFile(filepath.Join(c.data(), "postmaster.pid"))
	if err != nil {
		return 0, 0, false
	}
	l := strings.Split(string(b), "\n")
	if len(l) < 4 {
		return 0, 0, false
	}
	pid, _ = strconv.Atoi(strings.TrimSpace(l[0]))
	port, _ = strconv.Atoi(strings.TrimSpace(l[3]))
	cmdline, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", pid))
	return pid, port, err == nil && port > 0 && bytes.Contains(cmdline, []byte(c.data()))
}

// freePort asks the system for one. Somebody else could take it before the server does; then
// the start says so.
func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

// silent keeps statements and values, and so anyone's health, out of the
// server's log: an error goes to the program that caused it, and only what ends
// a session or the server is logged.
var silent = []string{
	"-c", "log_min_messages=fatal", "-c", "log_min_error_statement=panic", "-c", "log_error_verbosity=terse",
	"-c", "log_statement=none", "-c", "log_min_duration_statement=-1", "-c", "log_parameter_max_length=0",
	"-c", "log_parameter_max_length_on_error=0",
}

// start runs the server on loopback, with errors and statements kept out of its log: they
// could hold health data.
func (c *Cluster) start() error {
	logFile, err := os.OpenFile(filepath.Join(c.dir, "server.log"), os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	defer logFile.Close()
	cmd := c.command("postgres", "-D", c.data(), "-p", strconv.Itoa(c.port),
		"-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories=", "-c", "max_connections=400")
	cmd.Args = append(cmd.Args, silent...)
	cmd.Stdout, cmd.Stderr = logFile, logFile
	if err := cmd.Start(); err != nil {
		return fmt.Errorf("starting PostgreSQL: %w", err)
	}
	c.pid = cmd.Process.Pid
	go cmd.Wait() //nolint:errcheck // reaped; watch notices the end
	return nil
}

// url is how a role connects.
func (c *Cluster) url(role, db string) string {
	u := url.URL{
		Scheme: "postgres", User: url.UserPassword(role, c.secrets[role]),
		Host: fmt.Sprintf("127.0.0.1:%d", c.port), Path: "/" + db,
	}
	return u.String()
}

// AdminURL reaches a database as the cluster's superuser (tests, template).
func (c *Cluster) AdminURL(db string) string { return c.url(adminRole, db) }

// OwnerURL and AppURL reach a database as the role that migrates and the role
// that serves.
func (c *Cluster) OwnerURL(db string) string { return c.url(ownerRole, db) }
func (c *Cluster) AppURL(db string) string   { return c.url(appRole, db) }

// waitReady waits for the server's first answer, a minute at most: after a crash it first
// reads its log.
func (c *Cluster) waitReady(ctx context.Context) error {
	db, err := sql.Open("pgx", c.AdminURL("postgres"))
	if err != nil {
		return err
	}
	defer db.Close()
	deadline := time.Now().Add(60 * time.Second)
	for {
		if err = db.PingContext(ctx); err == nil {
			return nil
		}
		if why := c.foreign(err); why != nil {
			return why
		}
		if time.Now().After(deadline) || ctx.Err() != nil {
			return fmt.Errorf("PostgreSQL did not answer (see %s): %w", filepath.Join(c.dir, "server.log"), err)
		}
		time.Sleep(50 * time.Millisecond)
	}
}

// roles makes owner and app role, and sets their passwords anew at each start.
func (c *Cluster) roles(ctx context.Context) error {
	db, err := sql.Open("pgx", c.AdminURL("postgres"))
	if err != nil {
		return err
	}
	defer db.Close()
	for _, role := range []string{ownerRole, appRole} {
		q := fmt.Sprintf(`do $$ begin
			if not exists (select from pg_roles where rolname = '%[1]s') then
				create role %[1]s login nosuperuser nobypassrls nocreaterole;
			end if;
			alter role %[1]s password '%[2]s'; end $$`, role, c.secrets[role])
		if _, err := db.ExecContext(ctx, q); err != nil {
			return fmt.Errorf("making role %s: %w", role, err)
		}
	}
	return c.CreateDatabase(ctx, "mokren", "")
}

// CreateDatabase makes a database of the owner unless it exists, from a
// template when one is named.
func (c *Cluster) CreateDatabase(ctx context.Context, name, template string) error {
	db, err := sql.Open("pgx", c.AdminURL("postgres"))
	if err != nil {
		return err
	}
	defer db.Close()
	var exists bool
	if err := db.QueryRowContext(ctx, `select exists (select from pg_database where datname = $1)`,
		name).Scan(&exists); err != nil || exists {
		return err
	}
	q := fmt.Sprintf(`create database %s owner %s`, name, ownerRole)
	if template != "" {
		q += " template " + template
	}
	_, err = db.ExecContext(ctx, q)
	return err
}

// DropDatabase removes a test's copy.
func (c *Cluster) DropDatabase(ctx context.Context, name string) error {
	db, err := sql.Open("pgx", c.AdminURL("postgres"))
	if err != nil {
		return err
	}
	defer db.Close()
	_, err = db.ExecContext(ctx, fmt.Sprintf(`drop database if exists %s with (force)`, name))
	return err
}

func alive(pid int) bool { return pid > 0 && syscall.Kill(pid, 0) == nil }

// watch brings PostgreSQL back when it dies under us.
func (c *Cluster) watch() {
	for {
		select {
		case <-c.done:
			return
		case <-time.After(500 * time.Millisecond):
		}
		c.mu.Lock()
		if !c.stopping && !alive(c.pid) {
			slog.Warn("PostgreSQL ended unexpectedly; starting it again")
			if err := c.start(); err != nil {
				slog.Error("restarting PostgreSQL", "error", err)
			}
		}
		c.mu.Unlock()
	}
}

// Kill ends the server at once, as a crash would (tests).
func (c *Cluster) Kill() error {
	c.mu.Lock()
	defer c.mu.Unlock()
	return syscall.Kill(c.pid, syscall.SIGQUIT)
}

// Stop ends the server in order (fast shutdown) and releases the folder.
func (c *Cluster) Stop() error {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.stopping {
		return nil
	}
	c.stopping = true
	close(c.done)
	defer c.lock.Close()
	if !alive(c.pid) {
		return nil
	}
	if err := syscall.Kill(c.pid, syscall.SIGINT); err != nil {
		return fmt.Errorf("stopping PostgreSQL: %w", err)
	}
	for range 600 {
		if _, err := os.Stat(filepath.Join(c.data(), "postmaster.pid")); err != nil && !alive(c.pid) {
			return nil
		}
		time.Sleep(50 * time.Millisecond)
	}
	return errors.New("PostgreSQL did not stop within 30 s")
}

// Env tells another process of the same run how to reach the cluster.
func (c *Cluster) Env() string {
	return fmt.Sprintf("MOKREN_TEST_CLUSTER=%d:%s:%s:%s", c.port, c.secrets[adminRole], c.secrets[ownerRole],
		c.secrets[appRole])
}

// Reach gives a cluster that another process runs; it makes URLs and
// databases but starts and stops nothing.
func Reach(env string) (*Cluster, error) {
	parts := strings.Split(env, ":")
	n, err := strconv.Atoi(parts[0])
	if len(parts) != 4 || err != nil {
		return nil, errors.New("MOKREN_TEST_CLUSTER is not port:admin:owner:app")
	}
	return &Cluster{port: n, secrets: map[string]string{adminRole: parts[1], ownerRole: parts[2], appRole: parts[3]}},
		nil
}
