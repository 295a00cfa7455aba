package api

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/decode"
	"mokren/store"
	"mokren/store/seal"
)

// problem turns an error of the store into the right status.
func problem(err error) error {
	var conflict *store.Conflict
	switch {
	case err == nil:
		return nil
	case errors.As(err, &conflict):
		return huma.Error409Conflict("The record has something else here. Look at both, then save again.",
			&huma.ErrorDetail{Location: "stored", Message: "what the record has", Value: storedOut(conflict.Stored)})
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such record in this practice.")
	case errors.Is(err, store.ErrErased):
		return huma.Error410Gone("The record of this id was erased. Register the client anew, under a new id.")
	case errors.Is(err, store.ErrEmailTaken):
		return huma.Error409Conflict("Someone signs in by this e-mail already. Ask for a link for another one.")
	case errors.Is(err, store.ErrStale):
		return huma.Error409Conflict("Someone else changed this meanwhile. Look at their version, then save again.")
	case errors.Is(err, seal.ErrShut):
		slog.Error("a second factor cannot be opened: is MOKREN_SEAL_KEY_FILE the file of before?", "error", err)
		return huma.Error503ServiceUnavailable("The server cannot open your second factor: its key is missing or " +
			"another one. Tell whoever looks after the server; an owner can switch your second factor off.")
	case errors.Is(err, store.ErrTooMany):
		return huma.Error429TooManyRequests("This code has brought as much as it may. Ask your therapist for a " +
			"new one.")
	case errors.Is(err, context.Canceled), errors.Is(err, errJustLooking):
		return err
	}
	var status huma.StatusError
	if errors.As(err, &status) {
		return status
	}
	slog.Error("request failed", "error", err)
	if store.Full(err) {
		return huma.Error503ServiceUnavailable("The server's disk is full. What you write stays on this device " +
			"until there is room again; tell whoever looks after the server.")
	}
	return huma.Error503ServiceUnavailable("The record is not reachable just now. Nothing is lost; try again.")
}

// storedOut is what the record has, as the API gives it.
func storedOut(stored any) any {
	switch v := stored.(type) {
	case store.Client:
		return clientOut(v, time.Now())
	case store.Visit:
		return visitOut(v)
	case store.Photo:
		return photoOut(v)
	}
	return nil
}

// refused turns a core refusal into a 422 that names the field.
func refused(err error) error {
	var e *decode.Error
	if errors.As(err, &e) {
		return huma.Error422UnprocessableEntity("Please correct the field.",
			&huma.ErrorDetail{Location: e.Path, Message: "allowed: " + e.Allowed, Value: e.Given})
	}
	return problem(err)
}

// refuseField writes a 422 that names the field, before an operation is reached.
func refuseField(w http.ResponseWriter, location, allowed, given string) {
	writeModel(w, huma.ErrorModel{
		Status: http.StatusUnprocessableEntity, Title: http.StatusText(http.StatusUnprocessableEntity),
		Detail: "Please correct the field.",
		Errors: []*huma.ErrorDetail{{Location: location, Message: "allowed: " + allowed, Value: given}},
	})
}

func writeProblem(w http.ResponseWriter, status int, detail string) {
	writeModel(w, huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail})
}

func writeModel(w http.ResponseWriter, m huma.ErrorModel) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(m.Status)
	json.NewEncoder(w).Encode(m) //nolint:errcheck // the client went away
}

// invalid is a 422 that names the field.
func invalid(field, given, allowed string) error {
	return huma.Error422UnprocessableEntity("Please correct the field.",
		&huma.ErrorDetail{Location: field, Message: "allowed: " + allowed, Value: given})
}
