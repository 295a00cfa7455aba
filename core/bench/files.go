package bench

import _ "embed" // the shipped cases

// One by one: a file system would bring the clock into the browser's core.
var (
	//go:embed data/stiff-neck-desk.json
	stiffNeckDeskJSON string
	//go:embed data/cannot-turn.json
	cannotTurnJSON string
	//go:embed data/front-shoulder-ache.json
	frontShoulderAcheJSON string
	//go:embed data/arm-down-to-thumb.json
	armDownToThumbJSON string
	//go:embed data/between-the-blades.json
	betweenTheBladesJSON string
	//go:embed data/elbow-of-the-gardener.json
	elbowOfTheGardenerJSON string
	//go:embed data/low-back-over-the-hip.json
	lowBackOverTheHipJSON string
	//go:embed data/buttock-to-thigh.json
	buttockToThighJSON string
	//go:embed data/deep-in-the-buttock.json
	deepInTheButtockJSON string
	//go:embed data/runner-behind-thigh.json
	runnerBehindThighJSON string
	//go:embed data/calf-at-night.json
	calfAtNightJSON string
	//go:embed data/heel-in-the-morning.json
	heelInTheMorningJSON string
	//go:embed data/jaw-and-ear.json
	jawAndEarJSON string
	//go:embed data/front-of-the-thigh.json
	frontOfTheThighJSON string
	//go:embed data/swimmers-side.json
	swimmersSideJSON string
	//go:embed data/headache-behind-the-eye.json
	headacheBehindTheEyeJSON string
	//go:embed data/knee-that-gives-way.json
	kneeThatGivesWayJSON string
	//go:embed data/warm-calf.json
	warmCalfJSON string
	//go:embed data/both-legs-and-saddle.json
	bothLegsAndSaddleJSON string
	//go:embed data/left-arm-on-the-stairs.json
	leftArmOnTheStairsJSON string
	//go:embed data/new-headache-at-the-temple.json
	newHeadacheAtTheTempleJSON string
	//go:embed data/nothing-to-find.json
	nothingToFindJSON string
	//go:embed data/wants-it-hard.json
	wantsItHardJSON string
	//go:embed data/does-not-give.json
	doesNotGiveJSON string
	//go:embed data/tingling-little-finger.json
	tinglingLittleFingerJSON string
)

var files = []string{
	stiffNeckDeskJSON,
	cannotTurnJSON,
	frontShoulderAcheJSON,
	armDownToThumbJSON,
	betweenTheBladesJSON,
	elbowOfTheGardenerJSON,
	lowBackOverTheHipJSON,
	buttockToThighJSON,
	deepInTheButtockJSON,
	runnerBehindThighJSON,
	calfAtNightJSON,
	heelInTheMorningJSON,
	jawAndEarJSON,
	frontOfTheThighJSON,
	swimmersSideJSON,
	headacheBehindTheEyeJSON,
	kneeThatGivesWayJSON,
	warmCalfJSON,
	bothLegsAndSaddleJSON,
	leftArmOnTheStairsJSON,
	newHeadacheAtTheTempleJSON,
	nothingToFindJSON,
	wantsItHardJSON,
	doesNotGiveJSON,
	tinglingLittleFingerJSON,
}
