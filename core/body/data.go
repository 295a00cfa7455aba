package body

import (
	"embed"
	"encoding/json"
	"fmt"
	"sync"

	"mokren/core/ids"
)

//go:embed data/*.json
var data embed.FS

// loaded reads an embedded data file; the tests have read each of them strictly.
func loaded[T any](name string) func() T {
	return sync.OnceValue(func() T {
		var out T
		raw, err := data.ReadFile("data/" + name)
		if err == nil {
			err = json.Unmarshal(raw, &out)
		}
		if err != nil {
			panic(fmt.Errorf("reading %s: %w", name, err))
		}
		return out
	})
}

// placed is a point as the data files write it: x, y.
type placed [2]float64

type course []placed

func (o course) points() []Point {
	out := make([]Point, len(o))
	for i, p := range o {
		out[i] = Point{p[0], p[1]}
	}
	return out
}

// seedData is a seed as data/regions.json has it.
type seedData struct {
	Region ids.Region `json:"region"`
	Part   Part       `json:"part" enum:"head,trunk,arm,hand,leg,foot"`
	Middle bool       `json:"middle,omitempty"`
	Line   course     `json:"line" minItems:"1"`
}

// regionData is data/regions.json: seeds by the drawing in which they lie.
// HeadAndNeck is of both the side views and the head close-ups.
type regionData struct {
	Front       []seedData `json:"front"`
	Back        []seedData `json:"back"`
	Soles       []seedData `json:"soles"`
	HeadAndNeck []seedData `json:"head_and_neck"`
	Head        []seedData `json:"head"`
	Sides       []seedData `json:"sides"`
	Hand        []seedData `json:"hand" doc:"the back of a hand, to be laid on a pose"`
}

// sideData is data/side-view.json. The side view is authored once: x forward
// from the plumb line through ear, shoulder, hip joint and ankle, y down,
// thousandths of the height. Depths follow published proportions (head length
// 113, chest 118, hip 114, foot 152); the curves between them are drawn by eye.
// The arm swings a little forward, so that flank and hip stay in sight.
type sideData struct {
	Contours struct {
		Head         course `json:"head"`
		Ear          course `json:"ear"`
		NeckAndChest course `json:"neck_and_chest"`
		ThighToToes  course `json:"thigh_to_toes"`
		HeelToNeck   course `json:"heel_to_neck"`
		Arm          course `json:"arm"`
		Bust         course `json:"bust"`
	} `json:"contours"`
	Body []lineData `json:"body_lines"`
	Arm  []lineData `json:"arm_lines"`
	Head []lineData `json:"head_lines"`
}

// lineData is a light line inside the figure.
type lineData struct {
	ID     string  `json:"id"`
	Weight float64 `json:"weight" minimum:"0" maximum:"1"`
	Line   course  `json:"line" minItems:"2"`
}

func innerLines(list []lineData) []innerLine {
	out := make([]innerLine, len(list))
	for i, l := range list {
		out[i] = innerLine{l.ID, l.Weight, l.Line.points()}
	}
	return out
}

var (
	regionFile = loaded[regionData]("regions.json")
	sideFile   = loaded[sideData]("side-view.json")
)
