package sequence

import _ "embed" // the shipped sequences

// One by one: a file system would bring the clock into the browser's core.
var (
	//go:embed data/neck.json
	neckJSON string
	//go:embed data/shoulder-girdle.json
	shoulderGirdleJSON string
	//go:embed data/stiff-shoulder-painful-stage.json
	stiffShoulderPainfulStageJSON string
	//go:embed data/stiff-shoulder-stiff-stage.json
	stiffShoulderStiffStageJSON string
	//go:embed data/low-back-side-lying.json
	lowBackSideLyingJSON string
	//go:embed data/hip-flexors-side-lying.json
	hipFlexorsSideLyingJSON string
	//go:embed data/hip-flexors-face-up.json
	hipFlexorsFaceUpJSON string
	//go:embed data/buttock-and-outer-hip.json
	buttockAndOuterHipJSON string
	//go:embed data/hamstrings-and-adductors.json
	hamstringsAndAdductorsJSON string
	//go:embed data/calf-and-sole.json
	calfAndSoleJSON string
	//go:embed data/forearm-and-hand.json
	forearmAndHandJSON string
	//go:embed data/jaw-and-temple.json
	jawAndTempleJSON string
	//go:embed data/ten-quiet-minutes.json
	tenQuietMinutesJSON string
)

var files = []string{
	neckJSON,
	shoulderGirdleJSON,
	stiffShoulderPainfulStageJSON,
	stiffShoulderStiffStageJSON,
	lowBackSideLyingJSON,
	hipFlexorsSideLyingJSON,
	hipFlexorsFaceUpJSON,
	buttockAndOuterHipJSON,
	hamstringsAndAdductorsJSON,
	calfAndSoleJSON,
	forearmAndHandJSON,
	jawAndTempleJSON,
	tenQuietMinutesJSON,
}
