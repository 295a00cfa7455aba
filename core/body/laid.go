package body

import (
	"encoding/json"
	"fmt"
)

// What a build may have laid out as values of Go in the place of this file, so that nothing is read
// when the program starts (cmd/slim).

// fromFile reads an embedded data file; the tests have read each of them strictly.
func fromFile[T any](raw []byte) (out T) {
	if err := json.Unmarshal(raw, &out); err != nil {
		panic(fmt.Errorf("reading %T: %w", out, err))
	}
	return out
}

func regionsData() regionData { return fromFile[regionData](regionsJSON) }

func sidesData() sideData { return fromFile[sideData](sidesJSON) }

func frontAndBackData() frontBackData { return fromFile[frontBackData](frontBackJSON) }

func handsData() handData { return fromFile[handData](handsJSON) }

func solesData() soleData { return fromFile[soleData](solesJSON) }

func bonesData() authored[lineData] { return fromFile[authored[lineData]](bonesJSON) }

func landmarksData() authored[markData] { return fromFile[authored[markData]](landmarksJSON) }

// StartData gives each of them by the name of its function.
func StartData() map[string]any {
	return map[string]any{
		"regionsData":      regionsData(),
		"sidesData":        sidesData(),
		"frontAndBackData": frontAndBackData(),
		"handsData":        handsData(),
		"solesData":        solesData(),
		"bonesData":        bonesData(),
		"landmarksData":    landmarksData(),
	}
}
