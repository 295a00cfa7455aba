package demo

import (
	"mokren/core/ids"
	"mokren/core/visit"
)

// people are invented: a practice near a river, clients of many kinds.
var people = []person{
	{
		given: "Marta", family: "Olsen-Brandt", phone: "0155 0100 21", emergency: "Her sister Liv, 0155 0100 22",
		hand: "right",
		told: told("Since the new desk in spring", "Builds up over the working week", "Warmth, a walk",
			"Long map days, looking up", "None", "keyboard", "long-sitting"), activity: "Reading for an hour",
		age: 44, height: 168, work: "Draws maps at a screen", by: ines, today: "09:00",
		complaint: "A pulling ache from the neck to the temple, worse on Thursdays", reason: "Neck and temple ache",
		cautions: []string{"Wears contact lenses: no pressure on the face in prone"},
		weeksAgo: []float64{6, 5, 4, 2, 1},
		spots: []spot{
			{
				muscle: "upper-trapezius", side: ids.Right, site: "free-edge", numbers: []float64{8, 7, 6, 4, 3},
				release: 1.1, familiar: "yes", referral: []ids.Region{"temple", "lateral-neck", "mastoid"},
				note: "Client named the temple without being asked.",
			},
			{
				muscle: "levator-scapulae", side: ids.Right, site: "corner", numbers: []float64{7, 7, 5, 4, 2},
				release: 0.9, familiar: "partly", referral: []ids.Region{"neck-angle"},
			},
			{
				muscle: "upper-trapezius", side: ids.Left, site: "free-edge", numbers: []float64{5, 5, 4, 3, 3},
				release: 1.2, familiar: "no",
			},
		},
		ranges: []motion{
			{"cervical.rotation", ids.Left, []float64{58, 60, 64, 70, 72}, 6},
			{"cervical.rotation", ids.Right, []float64{66, 68, 70, 74, 76}, 4},
			{"cervical.lateral-flexion", ids.Left, []float64{28, 30, 33, 36, 39}, 5},
			{"cervical.lateral-flexion", ids.Right, []float64{36, 36, 38, 40, 41}, 2},
		},
	},
	{
		given: "Jonah", family: "Petrak", phone: "0155 0100 34", hand: "left",
		told: told("Eight weeks", "First steps in the morning, then after runs", "Rest, rolling the sole",
			"Hills, ladders", "None", "running", "lifting"), activity: "Running ten kilometres", age: 31, height: 186,
		work: "Carpenter, runs half marathons", by: ines, today: "10:30",
		kind: "sharp", complaint: "Left heel hurts with the first steps; calf feels like a rope after long runs",
		reason:   "Heel and calf, before the spring race",
		weeksAgo: []float64{5, 4, 3, 2, 1},
		spots: []spot{
			{
				muscle: "soleus", side: ids.Left, site: "lower-inner", numbers: []float64{8, 7, 6, 5, 3}, release: 1.0,
				familiar: "yes", referral: []ids.Region{"heel", "achilles"},
			},
			{
				muscle: "gastrocnemius-medial", side: ids.Left, site: "inner-belly", numbers: []float64{7, 6, 6, 4, 3},
				release: 1.1, familiar: "partly", referral: []ids.Region{"medial-arch"},
			},
			{
				muscle: "flexor-digitorum-brevis", side: ids.Left, site: "inner", numbers: []float64{0, 6, 5, 4, 0},
				release: 0.8, familiar: "no", referral: []ids.Region{"metatarsal-heads"},
			},
		},
		ranges: []motion{
			{"ankle.dorsiflexion-knee-straight", ids.Left, []float64{2, 3, 4, 6, 8}, 3},
			{"ankle.dorsiflexion-knee-straight", ids.Right, []float64{9, 9, 10, 10, 10}, 0},
			{"ankle.dorsiflexion-knee-bent", ids.Left, []float64{9, 10, 12, 15, 17}, 3},
			{"ankle.dorsiflexion-knee-bent", ids.Right, []float64{19, 19, 20, 20, 20}, 0},
		},
	},
	{
		given: "Adaeze", family: "Lindqvist", emergency: "Her husband, 0155 0100 47", hand: "right",
		told: told("Two years, worse since autumn", "Worst in the evening", "Arm supported on a cushion",
			"Reaching back, long rehearsals", "Blood pressure tablets, mornings", "fine-hand-work"),
		activity: "Playing a whole rehearsal", age: 58, height: 161, work: "Teaches the violin", by: tomas,
		today:     "11:30",
		complaint: "Deep ache in the front of the right shoulder when reaching back", reason: "Right shoulder",
		yes: []ids.Question{"high-blood-pressure"}, cautions: []string{"Blood pressure tablets: sit up slowly"},
		weeksAgo: []float64{7, 6, 5, 3, 2, 1},
		spots: []spot{
			{
				muscle: "infraspinatus", side: ids.Right, site: "upper-inner", numbers: []float64{7, 6, 6, 6, 6, 6},
				release: 0.35, familiar: "yes", referral: []ids.Region{"anterior-shoulder"},
				note: "Slow to let go; think of what lies behind it.",
			},
			{
				muscle: "infraspinatus", side: ids.Right, site: "belly", numbers: []float64{6, 6, 5, 5, 5, 5},
				release: 0.5, familiar: "partly", referral: []ids.Region{"lateral-shoulder"},
			},
			{
				muscle: "levator-scapulae", side: ids.Right, site: "corner", numbers: []float64{0, 0, 5, 5, 4, 4},
				release: 0.8, familiar: "no",
			},
		},
		ranges: []motion{
			{"cervical.rotation", ids.Left, []float64{68, 68, 69, 70, 70, 70}, 2},
			{"cervical.rotation", ids.Right, []float64{70, 71, 70, 71, 71, 71}, 1},
		},
	},
	{
		given: "Bertram", family: "Okonkwo-Hale", hand: "right",
		told: told("Three months", "Stiff for half an hour in the morning", "Moving about",
			"Getting out of the car, lifting hives", "None", "driving", "lifting"),
		activity: "Getting out of the car", age: 66, height: 174, work: "Retired bus driver, keeps bees",
		by: tomas, today: "14:00",
		complaint: "Low back catches on getting out of the car, left more than right", reason: "Low back",
		cautions: []string{"Screened: no red flags, screening due again next month"},
		weeksAgo: []float64{4, 3, 2, 1},
		spots: []spot{
			{
				muscle: "quadratus-lumborum", side: ids.Left, site: "crest-edge", numbers: []float64{8, 6, 4, 2},
				release: 1.3, familiar: "yes", referral: []ids.Region{"lateral-hip"},
			},
			{
				muscle: "gluteus-minimus", side: ids.Left, site: "front", numbers: []float64{6, 5, 3, 2}, release: 1.2,
				familiar: "partly", referral: []ids.Region{"lateral-thigh"},
			},
		},
		ranges: []motion{
			{"lumbar.flexion", ids.Midline, []float64{38, 42, 50, 54}, 4},
			{"lumbar.lateral-flexion", ids.Right, []float64{12, 14, 18, 21}, 3},
			{"lumbar.lateral-flexion", ids.Left, []float64{17, 18, 20, 22}, 2},
		},
	},
	{
		given: "Wilhelmina-Charlotte", family: "von Asperen-Dubrovnická", activity: "Lying on the right side", age: 37,
		height: 179, work: "Stage technician", by: ines, today: "15:30",
		kind: "burning", complaint: "Right outer hip and thigh, worse lying on it", reason: "Outer hip",
		weeksAgo: []float64{3, 2, 1},
		spots: []spot{
			{
				muscle: "gluteus-minimus", side: ids.Right, site: "rear", numbers: []float64{7, 8, 8}, release: 0.3,
				familiar: "yes", referral: []ids.Region{"posterior-thigh", "upper-calf"},
				note: "Worse after the second visit; asked to see her doctor before we go on.",
			},
		},
		ranges: []motion{
			{"lumbar.lateral-flexion", ids.Left, []float64{20, 18, 17}, 0},
			{"lumbar.lateral-flexion", ids.Right, []float64{23, 23, 22}, 0},
		},
	},
	{
		given: "Sung-ho", family: "Iversen", age: 24, height: 171, work: "Bakes at night", by: ines, today: "17:00",
		complaint: "First visit: shoulders and neck after kneading", reason: "First visit",
	},
	{
		given: "Runa", family: "Castellane", activity: "Swimming butterfly", age: 15, height: 165,
		work: "At school, swims four times a week", by: tomas, guardian: "Her father Ruben, 0155 0100 58",
		told: told("Since the winter camp", "After training", "A day off", "Butterfly, rucksack", "None",
			"overhead-work"),
		complaint: "Back of the right shoulder after training", reason: "Swimmer's shoulder",
		yes:      []ids.Question{"minor"},
		weeksAgo: []float64{5, 3, 2},
		spots: []spot{
			{
				muscle: "teres-minor", side: ids.Right, site: "middle", numbers: []float64{5, 4, 2}, release: 1.2,
				familiar: "yes", referral: []ids.Region{"posterior-shoulder"},
			},
		},
		ranges: []motion{
			{"shoulder.internal-rotation", ids.Right, []float64{52, 56, 62}, 4},
			{"shoulder.internal-rotation", ids.Left, []float64{68, 68, 69}, 0},
		},
	},
	{
		given: "Odalys", family: "Fenwick-Moreau", activity: "Sitting through a lesson", age: 33, height: 170,
		work: "Teaches small children", by: ines, emergency: "Her partner, 0155 0100 63",
		told: told("Six weeks", "Worse through the day", "Lying on the side", "Small chairs", "Iron",
			"long-sitting", "standing"),
		complaint: "Deep in the right buttock, into the back of the thigh", reason: "Buttock, 24 weeks pregnant",
		yes: []ids.Question{"pregnancy"}, cautions: []string{"Pregnant: side-lying, supported; no abdominal work"},
		weeksAgo: []float64{4, 3, 1},
		spots: []spot{
			{
				muscle: "piriformis", side: ids.Right, site: "outer", numbers: []float64{6, 5, 4}, release: 0.9,
				familiar: "yes", referral: []ids.Region{"lower-buttock", "posterior-thigh"},
			},
		},
		ranges: []motion{
			{"hip.internal-rotation", ids.Right, []float64{30, 33, 38}, 3},
			{"hip.internal-rotation", ids.Left, []float64{42, 42, 43}, 0},
		},
	},
	{
		given: "Percival", family: "Adebayo", activity: "Opening jars", age: 52, height: 182, work: "Repairs bicycles",
		by: tomas, hand: "right",
		told: told("Four months", "Mornings are good", "Rest", "Screwdriver, jar lids", "None", "fine-hand-work",
			"lifting"),
		complaint: "Outer elbow and the grip gives way", reason: "Right elbow",
		weeksAgo: []float64{7, 6, 4, 3, 1},
		spots: []spot{
			{
				muscle: "extensor-carpi-radialis", side: ids.Right, site: "upper", numbers: []float64{7, 6, 5, 3, 2},
				release: 1.1, familiar: "yes", referral: []ids.Region{"lateral-elbow", "dorsal-hand"},
			},
		},
		ranges: []motion{
			{"wrist.flexion", ids.Right, []float64{54, 58, 63, 70, 74}, 4},
			{"wrist.flexion", ids.Left, []float64{76, 76, 77, 77, 78}, 0},
		},
	},
	{
		given: "Ilse", family: "Harrowgate", activity: "Chewing on the left", age: 47, height: 163, work: "Night nurse",
		by: ines, hand: "both",
		told: told("On and off for years", "On waking", "Warmth", "Hard bread, night shifts",
			"Blood thinner since last year", "standing"),
		complaint: "Jaw and side of the head, clenches at night", reason: "Jaw", yes: []ids.Question{"anticoagulant"},
		cautions: []string{"Blood thinner: gentle, broad, no deep work"},
		weeksAgo: []float64{6, 4, 2, 1}, kind: "headache",
		spots: []spot{
			{
				muscle: "masseter", side: ids.Left, site: "middle", numbers: []float64{5, 5, 4, 3}, release: 0.8,
				familiar: "yes", referral: []ids.Region{"jaw", "temple"},
			},
		},
		ranges: []motion{{"jaw.opening", ids.Midline, []float64{31, 33, 35, 37}, 2}},
	},
	{
		given: "Teodor", family: "Vasquez-Lindahl", activity: "Running downhill", age: 28, height: 190,
		work: "Delivers by bicycle", by: tomas,
		told:      told("Since a new saddle", "After long shifts", "Stretching", "Hills", "None", "running"),
		complaint: "Outer thigh and above the left knee", reason: "Left thigh",
		weeksAgo: []float64{5, 4, 2},
		spots: []spot{
			{
				muscle: "vastus-lateralis", side: ids.Left, site: "middle", numbers: []float64{6, 5, 2}, release: 1.3,
				familiar: "yes", referral: []ids.Region{"lateral-thigh", "lateral-knee"},
			},
		},
		ranges: []motion{
			{"knee.flexion", ids.Left, []float64{112, 118, 128}, 4},
			{"knee.flexion", ids.Right, []float64{134, 134, 135}, 0},
		},
	},
	{
		given: "Noor", family: "Thorsgard", activity: "Carrying the youngest", age: 39, height: 158,
		work: "Weaver, three children", by: ines, hand: "left",
		told: told("A year", "By the evening", "Lying flat", "Loom, lifting", "None", "one-sided-carrying",
			"fine-hand-work"),
		complaint: "Between the shoulder blades, as if a hand lay there", reason: "Between the blades",
		weeksAgo: []float64{8, 6, 4, 2},
		spots: []spot{
			{
				muscle: "rhomboids", side: ids.Left, site: "border", numbers: []float64{6, 4, 3, 2}, release: 1.2,
				familiar: "yes", referral: []ids.Region{"medial-scapular-border"},
			},
		},
		ranges: []motion{
			{"thoracic.rotation", ids.Left, []float64{22, 24, 27, 29}, 2},
			{"thoracic.rotation", ids.Right, []float64{28, 28, 29, 30}, 1},
		},
	},
}

// told is the story beside complaint, numbers and activity.
func told(since, pattern, eases, worsens, medication string, loads ...ids.Load) visit.ClientStory {
	return visit.ClientStory{InterviewNoted: visit.InterviewNoted{
		Since: since, Pattern: pattern, Eases: eases, Worsens: worsens,
		Medication: medication,
	}, Loads: loads}
}
