package exchange

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func sample(w, h int) image.Image {
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			m.Set(x, y, color.RGBA{uint8(x), uint8(y), 90, 255})
		}
	}
	return m
}

func jpegOf(t *testing.T, w, h int) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, sample(w, h), nil))
	return b.Bytes()
}

// exif puts a metadata block with a camera turn (6: a quarter turn) and a
// place behind the first marker of a JPEG.
func exif(raw []byte) []byte {
	tiff := []byte("MM\x00\x2a\x00\x00\x00\x08\x00\x01\x01\x12\x00" +
		"\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00GPSLatitude48.2082N")
	body := append([]byte("Exif\x00\x00"), tiff...)
	head := []byte{0xff, 0xe1, 0, 0}
	binary.BigEndian.PutUint16(head[2:], uint16(len(body)+2))
	out := append([]byte{}, raw[:2]...)
	out = append(out, head...)
	out = append(out, body...)
	return append(out, raw[2:]...)
}

func TestAPhotographIsMadeSafe(t *testing.T) {
	in := exif(jpegOf(t, 300, 200))
	require.Contains(t, string(in), "GPSLatitude")
	p, err := ReadPhoto(in)
	require.NoError(t, err)
	assert.NotContains(t, string(p.JPEG), "GPS", "where it was taken is gone")
	assert.NotContains(t, string(p.JPEG), "Exif")
	assert.Equal(t, []int{200, 300}, []int{p.Width, p.Height}, "upright, as the camera meant it")
	thumb, err := jpeg.DecodeConfig(bytes.NewReader(p.Thumb))
	require.NoError(t, err)
	assert.LessOrEqual(t, max(thumb.Width, thumb.Height), thumbSide)

	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, sample(3000, 100)))
	p, err = ReadPhoto(b.Bytes())
	require.NoError(t, err)
	assert.Equal(t, longestSide, p.Width)
}

// bomb is a small PNG that says it is huge.
func bomb() []byte {
	ihdr := make([]byte, 17)
	copy(ihdr, "IHDR")
	binary.BigEndian.PutUint32(ihdr[4:], 60_000)
	binary.BigEndian.PutUint32(ihdr[8:], 60_000)
	ihdr[12], ihdr[13] = 8, 2
	out := []byte("\x89PNG\r\n\x1a\n")
	out = binary.BigEndian.AppendUint32(out, 13)
	out = append(out, ihdr...)
	return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(ihdr))
}

func TestWhatIsNoPhotographIsRefusedWithTheReason(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, sample(400, 400)))
	for name, c := range map[string]struct {
		raw  []byte
		says string
	}{
		"too large":      {append(jpegOf(t, 100, 100), make([]byte, 12<<20)...), "at most 10 MB"},
		"a text file":    {[]byte(strings.Repeat("not a picture ", 20)), "not a JPEG or PNG"},
		"cut off":        {b.Bytes()[:b.Len()/2], "broken or cut off"},
		"bomb":           {bomb(), "megapixels"},
		"a single pixel": {jpegOf(t, 1, 1), "50 × 50"},
		"nothing":        {nil, "not a JPEG or PNG"},
	} {
		_, err := ReadPhoto(c.raw)
		assert.ErrorContains(t, err, c.says, name)
	}
}
