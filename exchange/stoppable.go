package exchange

import (
	"bytes"
	"context"
	"io"
)

// stoppable reads a file until its caller goes away: whoever waits for nothing any more
// keeps no processor busy.
func stoppable(ctx context.Context, raw []byte) io.Reader {
	return stopping{ctx, bytes.NewReader(raw)}
}

type stopping struct {
	ctx context.Context
	r   *bytes.Reader
}

func (s stopping) Read(p []byte) (int, error) {
	if err := s.ctx.Err(); err != nil {
		return 0, err
	}
	return s.r.Read(p)
}
