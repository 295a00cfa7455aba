package main

import (
	"encoding/binary"
	"errors"
	"fmt"
)

const (
	dataSection = 11
	i32Const    = 0x41
	end         = 0x0b

	// gap is the longest run of zeros that stays within a segment. The linker begins a segment
	// anew after nine of them, a hundred thousand times, and brotli makes less of the headers
	// than of the zeros.
	gap = 256
)

var errShort = errors.New("not a WebAssembly module: it ends early")

// segment is bytes of a module's memory at its start, and where they lie.
type segment struct {
	at    int
	bytes []byte
}

// join is a WebAssembly module whose data segments are joined where little lies between them.
// Memory is the same once it is loaded: what is not written at the start is zero.
func join(module []byte) ([]byte, error) {
	if len(module) < 8 || string(module[:4]) != "\x00asm" {
		return nil, errors.New("not a WebAssembly module: it does not begin with \\0asm")
	}
	out := append([]byte{}, module[:8]...)
	for rest := module[8:]; len(rest) > 0; {
		id, size, n := rest[0], uint64(0), 0
		if size, n = binary.Uvarint(rest[1:]); n <= 0 || uint64(len(rest)-1-n) < size {
			return nil, errShort
		}
		whole := 1 + n + int(size)
		if id != dataSection {
			out, rest = append(out, rest[:whole]...), rest[whole:]
			continue
		}
		segments, err := readSegments(rest[1+n : whole])
		if err != nil {
			return nil, err
		}
		all := joined(segments)
		withoutNames(all)
		body := writeSegments(all)
		out = append(binary.AppendUvarint(append(out, id), uint64(len(body))), body...)
		rest = rest[whole:]
	}
	return out, nil
}

// withoutNames takes out of the memory at the start what only a printed stack shows.
func withoutNames(segments []segment) {
	if len(segments) == 0 {
		return
	}
	last := segments[len(segments)-1]
	memory := make([]byte, last.at+len(last.bytes))
	for _, s := range segments {
		copy(memory[s.at:], s.bytes)
	}
	if !unnamed(memory) {
		return
	}
	for _, s := range segments {
		copy(s.bytes, memory[s.at:])
	}
}

// joined fills the short gaps between segments with the zeros that they stand for.
func joined(segments []segment) (all []segment) {
	for _, s := range segments {
		if len(all) > 0 {
			last := &all[len(all)-1]
			between := s.at - last.at - len(last.bytes)
			if between >= 0 && between <= gap {
				last.bytes = append(append(last.bytes, make([]byte, between)...), s.bytes...)
				continue
			}
		}
		all = append(all, segment{s.at, append([]byte{}, s.bytes...)})
	}
	return all
}

// readSegments reads a data section: of each segment its memory, where it lies as a constant,
// and its bytes.
func readSegments(section []byte) (segments []segment, err error) {
	count, n := binary.Uvarint(section)
	if n <= 0 {
		return nil, errShort
	}
	rest := section[n:]
	for range count {
		if len(rest) < 2 || rest[0] != 0 || rest[1] != i32Const {
			return nil, fmt.Errorf("segment %d: not at a constant place of the first memory", len(segments))
		}
		at, n := signed(rest[2:])
		if n == 0 || len(rest) < 3+n || rest[2+n] != end {
			return nil, errShort
		}
		rest = rest[3+n:]
		size, n := binary.Uvarint(rest)
		if n <= 0 || uint64(len(rest)-n) < size {
			return nil, errShort
		}
		segments = append(segments, segment{at, rest[n : n+int(size)]})
		rest = rest[n+int(size):]
	}
	return segments, nil
}

func writeSegments(segments []segment) []byte {
	out := binary.AppendUvarint(nil, uint64(len(segments)))
	for _, s := range segments {
		out = append(appendSigned(append(out, 0, i32Const), s.at), end)
		out = append(binary.AppendUvarint(out, uint64(len(s.bytes))), s.bytes...)
	}
	return out
}

// signed reads a signed number of seven bits a byte, and how many bytes it took; 0 for none.
// The standard library's signed numbers are coded otherwise.
func signed(b []byte) (v, n int) {
	for shift := 0; n < len(b) && shift < 35; {
		c := b[n]
		n, v, shift = n+1, v|int(c&0x7f)<<shift, shift+7
		if c&0x80 == 0 {
			if c&0x40 != 0 {
				v -= 1 << shift
			}
			return v, n
		}
	}
	return 0, 0
}

func appendSigned(b []byte, v int) []byte {
	for {
		c := byte(v & 0x7f)
		v >>= 7
		if v == 0 && c&0x40 == 0 || v == -1 && c&0x40 != 0 {
			return append(b, c)
		}
		b = append(b, c|0x80)
	}
}
