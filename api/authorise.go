package api

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/rights"
	"mokren/store"
)

// codeHeader carries a client's code where it is not in the address.
const codeHeader = "Mokren-Code"

type callerKey struct{}

// authorise asks the table of rights before every operation. A signed-in
// person's role is read anew each time, so that a change of it takes hold at
// once; an operation with a code in its address is a client's, whose code the
// operation itself looks up.
func (s *server) authorise(a huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		op := ctx.Operation()
		name := op.OperationID
		if strings.HasPrefix(name, "calc-") {
			name = "calc"
		}
		who, role, err := s.caller(ctx, op.Path, name)
		if err != nil {
			var status huma.StatusError
			if !errors.As(err, &status) && !errors.As(problem(err), &status) {
				return // the caller went away
			}
			huma.WriteErr(a, ctx, status.GetStatus(), status.Error()) //nolint:errcheck // the caller went away
			return
		}
		if rights.MayCall(role, name) {
			next(huma.WithValue(ctx, callerKey{}, who))
			return
		}
		if role == rights.Nobody {
			huma.WriteErr(a, ctx, http.StatusUnauthorized, "Please sign in.") //nolint:errcheck // the caller went away
			return
		}
		what := store.Action{Verb: "call", Kind: name, Subject: ctx.Param("id")}
		// The bench is no health data, and leaves no trace among it.
		if !strings.HasPrefix(ctx.Operation().Path, "/api/bench/") {
			if err := s.store.Refused(ctx.Context(), who, what); err != nil {
				slog.Error("auditing a refusal", "error", err)
			}
		}
		huma.WriteErr(a, ctx, http.StatusForbidden,
			"Your role does not allow this.") //nolint:errcheck // the caller went away
	}
}

// caller tells who calls and as what.
func (s *server) caller(ctx huma.Context, path, operation string) (store.Principal, rights.Role, error) {
	if strings.Contains(path, "{code}") {
		return store.Principal{}, rights.Client, nil
	}
	who, ok := s.session(ctx.Context())
	if ok {
		role, err := s.store.Role(ctx.Context(), who)
		if errors.Is(err, store.ErrNotFound) {
			return who, rights.Nobody, nil
		}
		who.Role = role
		return who, role, err
	}
	if code := ctx.Header(codeHeader); code != "" && operation == "calc" {
		nothing := func(*store.Tx, store.Link) error { return nil }
		err := s.link(ctx.Context(), code, forIntake, "compute", addressOf(ctx.RemoteAddr()), nothing)
		return who, rights.Client, err
	}
	return who, rights.Nobody, nil
}

// session gives the person who is signed in.
func (s *server) session(ctx context.Context) (store.Principal, bool) {
	if s.store == nil {
		return store.Principal{}, false
	}
	b := s.sessions.GetBytes(ctx, principalKey)
	var who store.Principal
	if b == nil || json.Unmarshal(b, &who) != nil || who.Practice == uuid.Nil {
		return who, false
	}
	return who, true
}

// principal gives who is signed in, or a 401.
func (s *server) principal(ctx context.Context) (store.Principal, error) {
	if who, ok := ctx.Value(callerKey{}).(store.Principal); ok && who.Practice != uuid.Nil {
		return who, nil
	}
	return store.Principal{}, huma.Error401Unauthorized("Please sign in.")
}

func addressOf(remote string) string {
	host, _, err := net.SplitHostPort(remote)
	if err != nil {
		return remote
	}
	return host
}
