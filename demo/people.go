package demo

import "mokren/core/ids"

// people are invented: a practice near a river, clients of many kinds.
var people = []person{
	{given: "Marta", family: "Olsen-Brandt", activity: "Reading for an hour", age: 44, height: 168, work: "Draws maps at a screen", by: ines, today: "09:00",
		complaint: "A pulling ache from the neck to the temple, worse on Thursdays", reason: "Neck and temple ache", cautions: []string{"Wears contact lenses: no pressure on the face in prone"},
		weeksAgo: []float64{6, 5, 4, 2, 1},
		spots: []spot{
			{muscle: "upper-trapezius", side: ids.Right, site: "free-edge", numbers: []float64{8, 7, 6, 4, 3}, release: 1.1, familiar: "yes", referral: []ids.Region{"temple", "lateral-neck", "mastoid"}, note: "Client named the temple without being asked."},
			{muscle: "levator-scapulae", side: ids.Right, site: "corner", numbers: []float64{7, 7, 5, 4, 2}, release: 0.9, familiar: "partly", referral: []ids.Region{"neck-angle"}},
			{muscle: "upper-trapezius", side: ids.Left, site: "free-edge", numbers: []float64{5, 5, 4, 3, 3}, release: 1.2, familiar: "no"},
		},
		ranges: []motion{
			{"cervical.rotation", ids.Left, []float64{58, 60, 64, 70, 72}, 6}, {"cervical.rotation", ids.Right, []float64{66, 68, 70, 74, 76}, 4},
			{"cervical.lateral-flexion", ids.Left, []float64{28, 30, 33, 36, 39}, 5}, {"cervical.lateral-flexion", ids.Right, []float64{36, 36, 38, 40, 41}, 2},
		}},
	{given: "Jonah", family: "Petrak", activity: "Running ten kilometres", age: 31, height: 186, work: "Carpenter, runs half marathons", by: ines, today: "10:30",
		kind: "sharp", complaint: "Left heel hurts with the first steps; calf feels like a rope after long runs", reason: "Heel and calf, before the spring race",
		weeksAgo: []float64{5, 4, 3, 2, 1},
		spots: []spot{
			{muscle: "soleus", side: ids.Left, site: "lower-inner", numbers: []float64{8, 7, 6, 5, 3}, release: 1.0, familiar: "yes", referral: []ids.Region{"heel", "achilles"}},
			{muscle: "gastrocnemius-medial", side: ids.Left, site: "inner-belly", numbers: []float64{7, 6, 6, 4, 3}, release: 1.1, familiar: "partly", referral: []ids.Region{"medial-arch"}},
			{muscle: "flexor-digitorum-brevis", side: ids.Left, site: "inner", numbers: []float64{0, 6, 5, 4, 0}, release: 0.8, familiar: "no", referral: []ids.Region{"metatarsal-heads"}},
		},
		ranges: []motion{
			{"ankle.dorsiflexion-knee-straight", ids.Left, []float64{2, 3, 4, 6, 8}, 3}, {"ankle.dorsiflexion-knee-straight", ids.Right, []float64{9, 9, 10, 10, 10}, 0},
			{"ankle.dorsiflexion-knee-bent", ids.Left, []float64{9, 10, 12, 15, 17}, 3}, {"ankle.dorsiflexion-knee-bent", ids.Right, []float64{19, 19, 20, 20, 20}, 0},
		}},
	{given: "Adaeze", family: "Lindqvist", activity: "Playing a whole rehearsal", age: 58, height: 161, work: "Teaches the violin", by: tomas, today: "11:30",
		complaint: "Deep ache in the front of the right shoulder when reaching back", reason: "Right shoulder", yes: []ids.Question{"high-blood-pressure"}, cautions: []string{"Blood pressure tablets: sit up slowly"},
		weeksAgo: []float64{7, 6, 5, 3, 2, 1},
		spots: []spot{
			{muscle: "infraspinatus", side: ids.Right, site: "upper-inner", numbers: []float64{7, 6, 6, 6, 6, 6}, release: 0.35, familiar: "yes", referral: []ids.Region{"anterior-shoulder"}, note: "Slow to let go; think of what lies behind it."},
			{muscle: "infraspinatus", side: ids.Right, site: "belly", numbers: []float64{6, 6, 5, 5, 5, 5}, release: 0.5, familiar: "partly", referral: []ids.Region{"lateral-shoulder"}},
			{muscle: "levator-scapulae", side: ids.Right, site: "corner", numbers: []float64{0, 0, 5, 5, 4, 4}, release: 0.8, familiar: "no"},
		},
		ranges: []motion{{"cervical.rotation", ids.Left, []float64{68, 68, 69, 70, 70, 70}, 2}, {"cervical.rotation", ids.Right, []float64{70, 71, 70, 71, 71, 71}, 1}}},
	{given: "Bertram", family: "Okonkwo-Hale", activity: "Getting out of the car", age: 66, height: 174, work: "Retired bus driver, keeps bees", by: tomas, today: "14:00",
		complaint: "Low back catches on getting out of the car, left more than right", reason: "Low back", cautions: []string{"Screened: no red flags, screening due again next month"},
		weeksAgo: []float64{4, 3, 2, 1},
		spots: []spot{
			{muscle: "quadratus-lumborum", side: ids.Left, site: "crest-edge", numbers: []float64{8, 6, 4, 2}, release: 1.3, familiar: "yes", referral: []ids.Region{"lateral-hip"}},
			{muscle: "gluteus-minimus", side: ids.Left, site: "front", numbers: []float64{6, 5, 3, 2}, release: 1.2, familiar: "partly", referral: []ids.Region{"lateral-thigh"}},
		},
		ranges: []motion{
			{"lumbar.flexion", ids.Midline, []float64{38, 42, 50, 54}, 4}, {"lumbar.lateral-flexion", ids.Right, []float64{12, 14, 18, 21}, 3}, {"lumbar.lateral-flexion", ids.Left, []float64{17, 18, 20, 22}, 2},
		}},
	{given: "Wilhelmina-Charlotte", family: "von Asperen-Dubrovnická", activity: "Lying on the right side", age: 37, height: 179, work: "Stage technician", by: ines, today: "15:30",
		kind: "burning", complaint: "Right outer hip and thigh, worse lying on it", reason: "Outer hip",
		weeksAgo: []float64{3, 2, 1},
		spots: []spot{
			{muscle: "gluteus-minimus", side: ids.Right, site: "rear", numbers: []float64{7, 8, 8}, release: 0.3, familiar: "yes", referral: []ids.Region{"posterior-thigh", "upper-calf"}, note: "Worse after the second visit; asked to see her doctor before we go on."},
		},
		ranges: []motion{{"lumbar.lateral-flexion", ids.Left, []float64{20, 18, 17}, 0}, {"lumbar.lateral-flexion", ids.Right, []float64{23, 23, 22}, 0}}},
	{given: "Sung-ho", family: "Iversen", age: 24, height: 171, work: "Bakes at night", by: ines, today: "17:00",
		complaint: "First visit: shoulders and neck after kneading", reason: "First visit"},
}
