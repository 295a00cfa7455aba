// Package exchange reads and writes the formats of the outside world.
package exchange

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	_ "image/png" // PNG is taken in too

	"github.com/disintegration/imaging"
)

// Limits of a photograph that comes in.
const (
	MaxPhotoBytes = 10 << 20
	maxPixels     = 50_000_000 // 50 megapixels: a bomb unpacks to far more
	longestSide   = 2400
	thumbSide     = 320
	quality       = 88
)

// Picture is a photograph made safe: upright, of bounded size, re-encoded so
// that nothing but pixels is left.
type Picture struct {
	Width, Height int
	JPEG, Thumb   []byte
}

// ReadPhoto takes a JPEG or PNG in. It refuses what is too large, what is no
// picture, what is cut off, and what would unpack beyond reason; the error
// says which, for the person to read.
func ReadPhoto(raw []byte) (Picture, error) {
	if len(raw) > MaxPhotoBytes {
		return Picture{}, fmt.Errorf("the file has %.1f MB; at most 10 MB", float64(len(raw))/(1<<20))
	}
	cfg, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil || kind != "jpeg" && kind != "png" {
		return Picture{}, errors.New("this is not a JPEG or PNG picture")
	}
	if cfg.Width < 50 || cfg.Height < 50 || cfg.Width*cfg.Height > maxPixels {
		return Picture{}, fmt.Errorf("the picture is %d × %d; from 50 × 50 to 50 megapixels", cfg.Width, cfg.Height)
	}
	// Upright first: the camera's turn is written in the metadata that goes.
	img, err := imaging.Decode(bytes.NewReader(raw), imaging.AutoOrientation(true))
	if err != nil {
		return Picture{}, errors.New("the picture is broken or cut off")
	}
	if b := img.Bounds(); max(b.Dx(), b.Dy()) > longestSide {
		img = imaging.Fit(img, longestSide, longestSide, imaging.Lanczos)
	}
	out := Picture{Width: img.Bounds().Dx(), Height: img.Bounds().Dy()}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality}); err != nil {
		return Picture{}, err
	}
	out.JPEG = bytes.Clone(b.Bytes())
	b.Reset()
	if err := jpeg.Encode(&b, imaging.Fit(img, thumbSide, thumbSide, imaging.Lanczos),
		&jpeg.Options{Quality: quality}); err != nil {
		return Picture{}, err
	}
	out.Thumb = bytes.Clone(b.Bytes())
	return out, nil
}

// OnlyPixels reports whether a JPEG is bare: within our bounds, and without the
// segments in which cameras write where and by whom.
func OnlyPixels(raw []byte, p Picture) bool {
	cfg, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil || kind != "jpeg" || cfg.Width != p.Width || cfg.Height != p.Height {
		return false
	}
	for at := 2; at+4 <= len(raw) && raw[at] == 0xff; {
		marker := raw[at+1]
		app, comment, scan := marker >= 0xe1 && marker <= 0xef, marker == 0xfe, marker == 0xda
		if app || comment {
			return false
		}
		if scan {
			return true
		}
		at += 2 + int(raw[at+2])<<8 + int(raw[at+3])
	}
	return false
}
