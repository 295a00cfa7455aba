package fhirr4

import (
	"fmt"
	"math"
	"strings"

	"github.com/samply/golang-fhir-models/fhir-models/fhir"
)

// Units of measures, by UCUM code, as what one of them is in the unit that is kept.
var (
	lengths = map[string]float64{
		"m": 100, "cm": 1, "mm": 0.1, "[in_i]": 2.54, "[in_us]": 100 / 39.37, "[ft_i]": 30.48,
		"[ft_us]": 1200.0 / 39.37,
	}
	angles = map[string]float64{"deg": 1, "rad": 180 / math.Pi, "gon": 0.9, "'": 1.0 / 60, "circ": 360}
	scores = map[string]float64{"{score}": 1, "1": 1, "": 1, "{0-10}": 1, "/10": 1}
)

// inCM, inMM, inDegrees and ofTen are the tables of a kind of measure; without a unit only a
// score is read.
func inCM(q fhir.Quantity) (float64, error)      { return converted(q, lengths, 1, "a length") }
func inMM(q fhir.Quantity) (float64, error)      { return converted(q, lengths, 10, "a length") }
func inDegrees(q fhir.Quantity) (float64, error) { return converted(q, angles, 1, "an angle") }
func ofTen(q fhir.Quantity) (float64, error)     { return converted(q, scores, 1, "a score of 0 to 10") }

// words are units as people write them, where no code is given.
var words = map[string]string{
	"cm": "cm", "centimeter": "cm", "centimetre": "cm", "m": "m", "meter": "m", "metre": "m", "mm": "mm",
	"millimeter": "mm", "millimetre": "mm", "in": "[in_i]", "inch": "[in_i]", "inches": "[in_i]", "ft": "[ft_i]",
	"feet": "[ft_i]", "deg": "deg", "degree": "deg", "degrees": "deg", "°": "deg", "rad": "rad", "radian": "rad",
	"radians": "rad", "score": "{score}", "": "", "points": "{score}",
}

// converted gives a value in the unit that is kept, or which unit is not one of such a measure. It is
// rounded where it was converted, so that 66.1 in are 167.894 cm.
func converted(q fhir.Quantity, table map[string]float64, scale float64, what string) (float64, error) {
	v, err := q.Value.Float64()
	if err != nil || math.IsInf(v, 0) || math.IsNaN(v) {
		return 0, fmt.Errorf("a number, not %q", q.Value.String())
	}
	if q.Comparator != nil {
		return 0, fmt.Errorf("a value as it was measured, not one that is only %s it", q.Comparator.Display())
	}
	code := ""
	switch {
	case q.Code != nil:
		code = *q.Code
		if q.System != nil && *q.System != ucum {
			return 0, fmt.Errorf("a unit of UCUM, not of %s", *q.System)
		}
	case q.Unit != nil:
		word, known := words[strings.ToLower(strings.TrimSpace(*q.Unit))]
		if !known {
			return 0, fmt.Errorf("the unit of %s, not %q", what, *q.Unit)
		}
		code = word
	}
	one, known := table[code]
	if !known {
		if code == "" {
			return 0, fmt.Errorf("the unit of %s; none is given", what)
		}
		return 0, fmt.Errorf("the unit of %s, not %q", what, code)
	}
	if one*scale == 1 {
		return v, nil
	}
	const fine = 1000
	return math.Round(v*one*scale*fine) / fine, nil
}
