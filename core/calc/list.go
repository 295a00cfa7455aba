package calc

import "mokren/core/assess"

// inBrowser are those that a page asks for too: only these, and what they need, go into the
// browser's core.
func inBrowser() []Calc {
	return []Calc{
		document("algometry", "How the pressure pain threshold is measured: trials, rest, ramp",
			`{}`, Algometry),
		document("atlas", "Muscles by name, region, action or position",
			`{"text":"trapezus"}`, Atlas),
		document("cells", "The cells of some regions in a view",
			`{"view":"back","regions":[{"region":"heel","side":"left"}]}`, Cells),
		document("change", "Is the change of a measure meaningful?",
			`{"measure":"nprs","before":7,"after":4}`, Change),
		document("drawing", "Two pain drawings compared",
			`{"before":{"back":["back:-4,31","back:-4,32"]},"after":{"back":["back:-4,31"]},"height_cm":170}`, Drawing),
		document("evidence", "How findings are weighted, with its source",
			`{}`, Evidence),
		document("gauges", "Toe-touch, lunge, straight-leg raise and breathing: how they are taken",
			`{}`, Gauges),
		document("hurts", "Muscles whose usual referral covers a place",
			`{"view":"back","x":212,"y":150}`, Hurts),
		document("layers", "Everything that can be laid on a view",
			`{"view":"back","layers":["landmarks","structures"]}`, Layers),
		document("level", "Vertebral level at a landmark, or what lies beside one",
			`{"landmark":"iliac-crest"}`, Level),
		document("load", "What a hand bore, by day and over the week",
			`{"holds":[{"contact":"thumb-pad","seconds":90,"day":1},{"contact":"elbow","seconds":120,"day":1}]}`, Load),
		document("movements", "The movements with a reference range",
			`{}`, Movements),
		document("number", "A number of another scale on 0 to 10",
			`{"given":3.5,"scale":"0-5"}`, Number),
		document("pad", "What a pressure pad's samples come to: first resistance, band, steadiness",
			`{"samples":[{"t":0,"depth_mm":0,"force_n":0},{"t":0.05,"depth_mm":0.4,"force_n":0.6}],"at_n":12}`, Pad),
		document("palpate", "How to find and confirm a muscle on this client",
			`{"muscle":"infraspinatus","side":"left","site":"upper-inner","height_cm":168}`, Palpate),
		document("place", "Where a place on a muscle's fibres lies on the figure",
			`{"muscle":"soleus","side":"left","place":{"fibre":0,"along_pct":55,"across_mm":0}}`, Place),
		document("pose", "How a movement is measured, drawn: what turns, about which joint, which way",
			`{"movement":"knee.flexion","side":"left"}`, Pose),
		document("position", "How a muscle is set on stretch or on slack, or what a test asks for, drawn",
			`{"muscle":"levator-scapulae","set":"tension","side":"right","lies":"seated"}`, Position),
		document("ppt", "Pressure pain threshold from an algometer's trials",
			`{"trials":[{"samples":[{"t":0,"force_n":0},{"t":2,"force_n":8},{"t":6,"force_n":24}],"stopped_at_t":5.5}],"tip_area_cm2":1}`, PPT),
		document("questions", "The questions of the screening, with what a yes means",
			`{}`, Questions),
		document("range", "Is a range of motion reading short?",
			`{"movement":"cervical.rotation","active_deg":60,"other_side_deg":74,"age":44}`, Range),
		document("signs", "Where signs of squat and toe-touch, and measures of posture, are touched on the figure",
			`{}`, Signs),
		document("slope", "The third value of a caliper-inclinometer reading",
			`{"distance_cm":34,"height_difference_cm":1.8}`, SlopeOf),
		document("stations", "Where attachment strokes are given on a muscle",
			`{"muscle":"supraspinatus","side":"right","stations":5}`, Stations),
		document("steady", "Is an instrument's streamed reading steady enough to be taken?",
			`{"watch":{"mode":"range","share":0},"samples":[{"t_ms":0,"deg":0.1}]}`, Steady),
		document("tests", "The tests that the evidence knows, with instructions",
			`{}`, Tests),
		document("thresholds", "Where each posture flag begins, with its source",
			`{}`, Thresholds),
		document("under", "Which muscles lie under a touched place",
			`{"view":"back","x":195,"y":770,"height_cm":170}`, Under),
		document("views", "Which views of the body the work wants: one, or two where it lies in both",
			`{"muscle":"soleus","side":"left","points":["front","back"]}`, Views),
	}
}

// others are asked for by the command line and the API alone.
func others() []Calc {
	return []Calc{
		coach(),
		document("judge", "Points judged: certainty, activity, part beside the others",
			judgeExample, Judge),
		document("plan", "Which points, in which order and position, within the minutes",
			planExample, Plan),
		document("suspects", "Muscles ranked by the evidence, with the next best tests",
			suspectsExample, Suspects),

		document("near", "What lies near a line of pressure, how to move off it, what is limited there",
			`{"muscle":"popliteus","side":"left","site":"lower"}`, Near),
		document("photo", "Angles and offsets of a photograph, corrected for camera roll",
			`{"view":"left","plumb":[[400,50],[405,1150]],"landmarks":{"tragus":[380,180],"C7":[440,260]},"height_cm":170}`, assess.MeasurePhoto),
		document("resistance", "Where tissue first resists: the knee of force against depth",
			resistanceExample, FirstResistance),
		document("schools", "The protocols, with what a practice may tune",
			`{}`, Protocols),
		document("screen", "Judge the answers of a screening",
			`{"answers":[{"question":"anticoagulant","answer":"yes"},{"question":"fever","answer":"no"}]}`, Screen),
		document("sequence", "A sequence laid out for a client today: sides, what is ruled out, times, what fits",
			`{"sequence":"calf-and-sole","minutes":10,"screening":[{"question":"high-blood-pressure","answer":"yes"}]}`,
			Sequence),
		document("suggest", "A protocol for a point, with its limits and the reason",
			`{"point":{"id":"a","muscle":"infraspinatus","side":"left","taut_band":"yes","grade":2,"familiar":"yes"},"worked_before":"pulses"}`, Suggest),
		document("trace", "Where a stubborn or unfamiliar point may come from",
			traceExample, Trace),
	}
}

const suspectsExample = `{"pain":[{"region":"heel","side":"left","intensity":7},{"region":"achilles","side":"left","intensity":5}],
"rom":[{"movement":"ankle.dorsiflexion-knee-bent","side":"left","active_deg":9,"felt":"pull","felt_region":"lower-calf"},{"movement":"ankle.dorsiflexion-knee-bent","side":"right","active_deg":20}],
"loads":["running"]}`

const judgeExample = `{"points":[
{"id":"a","muscle":"infraspinatus","side":"left","site":"belly","taut_band":"yes","grade":3,"nprs":7,"familiar":"yes"},
{"id":"b","muscle":"deltoid-anterior","side":"left","taut_band":"unsure","grade":2,"nprs":5,"familiar":"no"}],
"painful_actions":[{"movement":"shoulder.external-rotation","side":"left"}]}`

const traceExample = `{"point":"a","points":[
{"id":"a","muscle":"soleus","side":"left","taut_band":"yes","grade":3,"nprs":6,"familiar":"no"}],
"searched":[{"muscle":"gluteus-minimus","side":"left"}]}`

const planExample = `{"minutes":45,"points":[
{"id":"a","muscle":"gluteus-maximus","side":"left","activity":"active","role":"primary","complaint_region":true},
{"id":"b","muscle":"piriformis","side":"left","activity":"active","role":"satellite","satellite_of":"a"},
{"id":"c","muscle":"infraspinatus","side":"right","activity":"latent","role":"primary","hours_since_treated":20}]}`
