package main

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// memory is what segments make of a memory of zeros.
func memory(segments []segment) []byte {
	all := make([]byte, 1<<16)
	for _, s := range segments {
		copy(all[s.at:], s.bytes)
	}
	return all
}

// module has a section before and one behind its data.
func module(data []byte) []byte {
	m := append([]byte("\x00asm\x01\x00\x00\x00"), 1, 2, 0xaa, 0xbb, dataSection)
	m = append(m, byte(len(data)&0x7f)|0x80, byte(len(data)>>7&0x7f)|0x80, byte(len(data)>>14))
	return append(append(m, data...), 12, 1, 0xcc)
}

func TestJoinedSegmentsMakeTheSameMemory(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 33))
	for range 100 {
		var segments []segment
		for at := r.IntN(2000); at < 40_000; at += 1 + r.IntN(600) {
			some := make([]byte, 1+r.IntN(300))
			for i := range some {
				some[i] = byte(r.IntN(5))
			}
			segments = append(segments, segment{at, some})
			at += len(some)
		}
		out, err := join(module(writeSegments(segments)))
		require.NoError(t, err)
		head := len("\x00asm\x01\x00\x00\x00") + 4
		assert.Equal(t, module(nil)[:head], out[:head])
		assert.Equal(t, []byte{12, 1, 0xcc}, out[len(out)-3:])

		read, err := readSegments(out[head+1+sizeOf(out[head+1:]) : len(out)-3])
		require.NoError(t, err)
		assert.Less(t, len(read), len(segments))
		assert.Equal(t, memory(segments), memory(read))
		for i := range read[1:] {
			assert.Greater(t, read[i+1].at, read[i].at+len(read[i].bytes)+gap)
		}
	}
}

// sizeOf is how many bytes an unsigned number takes.
func sizeOf(b []byte) int { return 1 + slices.IndexFunc(b, func(c byte) bool { return c&0x80 == 0 }) }

func TestSignedNumbersComeBack(t *testing.T) {
	for _, v := range []int{0, 1, 63, 64, 127, 128, 8191, 8192, 1 << 30, -1, -64, -65, -1 << 31} {
		b := appendSigned(nil, v)
		got, n := signed(append(b, 0x7f))
		assert.Equal(t, v, got)
		assert.Len(t, b, n)
	}
}

func TestWhatIsNoModuleIsRefused(t *testing.T) {
	good := module(writeSegments([]segment{{5, []byte("abc")}}))
	_, err := join(good)
	require.NoError(t, err)
	for cut := range len(good) {
		if cut == 8 || cut == 12 || cut == len(good)-3 { // whole sections
			continue
		}
		_, err := join(good[:cut])
		assert.Error(t, err, cut)
	}
	_, err = join(module([]byte{1, 1, 0}))
	assert.ErrorContains(t, err, "segment 0: not at a constant place")
}
