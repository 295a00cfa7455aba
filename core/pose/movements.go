package pose

import "mokren/core/ids"

// start is how the client is placed for a measurement; what turns the whole figure and the joints
// before the movement begins.
type start struct {
	name string
	// lies turns the whole figure, clockwise.
	lies float64
	// joints are set before the movement begins, in degrees clockwise on the picture.
	joints map[part]float64
}

var (
	standing = start{name: "Standing"}
	seated   = start{name: "Seated", joints: map[part]float64{thigh: -90, shank: 90}}
	supine   = start{name: "On the back", lies: -90}
	prone    = start{name: "Face down", lies: 90}
	// The knee bends along, so that the muscles behind the thigh do not hold it back.
	kneeAlong = start{name: "On the back; the knee bends along", lies: -90}
	// The thigh hangs over the table's edge toward the one who looks: from the front only the
	// lower leg is seen to move.
	seatedFront = start{name: "Seated"}
	elbowBent   = start{name: "Seated, elbow bent to 90°", joints: map[part]float64{
		thigh: -90, shank: 90, forearm: -90,
	}}
	armOut = start{name: "On the back, arm out to the side, elbow bent to 90°", lies: -90}
	kneeUp = start{name: "Seated, knee bent to 90°", joints: map[part]float64{thigh: -90, shank: 90}}
)

// seen is how one movement is drawn.
type seen struct {
	plane Plane
	turns part
	// sense is +1 where the movement turns the part clockwise, on the picture of the plane.
	sense float64
	start start
	// keep is what is held still.
	keep string
	// own: a movement to the person's right turns the other way round from the front.
	own bool
	// axial: it turns about its own length, which no plane shows.
	axial bool
	// along is a part further out that bends the other way by as many degrees; "" for none.
	along part
}

// table has the movements that are measured in degrees; jaw.opening is a distance.
var table = map[ids.Movement]seen{
	// Neck and back are carried by what is below them and seen from the side; sideways they are seen
	// from the front. Seated, the pelvis is held by the bench; for the low back the client stands, so
	// that the hips are straight and the pelvis can be watched.
	"cervical.flexion":         {Side, head, 1, seated, "the shoulders", false, false, ""},
	"cervical.extension":       {Side, head, -1, seated, "the shoulders", false, false, ""},
	"cervical.lateral-flexion": {Front, head, 1, seatedFront, "the shoulders", true, false, ""},
	"cervical.rotation":        {Front, head, 1, seatedFront, "the shoulders", true, true, ""},
	"thoracic.rotation":        {Front, trunk, 1, seatedFront, "the pelvis, by sitting", true, true, ""},
	"lumbar.flexion":           {Side, trunk, 1, standing, "the pelvis", false, false, ""},
	"lumbar.extension":         {Side, trunk, -1, standing, "the pelvis", false, false, ""},
	"lumbar.lateral-flexion":   {Front, trunk, 1, standing, "the pelvis", true, false, ""},

	// An arm that hangs is at zero. It goes forward against the clock on a picture that looks right,
	// and outward against the clock for the left arm, which is on the picture's right.
	"shoulder.flexion":   {Side, upperArm, -1, seated, "the ribs", false, false, ""},
	"shoulder.extension": {Side, upperArm, 1, seated, "the shoulder blade", false, false, ""},
	"shoulder.abduction": {Front, upperArm, -1, seatedFront, "the shoulder blade", true, false, ""},
	"shoulder.adduction": {Front, upperArm, 1, seatedFront, "the shoulder blade", true, false, ""},
	// Across the chest it is seen from above, in no plane of ours.
	"shoulder.horizontal-adduction": {Front, upperArm, 1, seatedFront, "the shoulder blade", true, true, ""},
	// With the arm out to the side and the elbow bent, the upper arm points at the one who looks,
	// and its turn is the swing of the forearm: inward toward the feet, outward toward the head.
	"shoulder.internal-rotation": {Side, forearm, 1, armOut, "the shoulder blade and the upper arm", false, false, ""},
	"shoulder.external-rotation": {Side, forearm, -1, armOut, "the shoulder blade and the upper arm", false, false, ""},

	// At the wrist the forearm lies level, so that gravity does not help. Palm down it bends up and
	// down; thumb up the same picture shows the two deviations.
	"elbow.flexion":          {Side, forearm, -1, seated, "the upper arm", false, false, ""},
	"elbow.extension":        {Side, forearm, 1, seated, "the upper arm", false, false, ""},
	"forearm.pronation":      {Front, forearm, 1, seatedFront, "the elbow, at the side", true, true, ""},
	"forearm.supination":     {Front, forearm, -1, seatedFront, "the elbow, at the side", true, true, ""},
	"wrist.flexion":          {Side, hand, 1, elbowBent, "the forearm, palm down", false, false, ""},
	"wrist.extension":        {Side, hand, -1, elbowBent, "the forearm, palm down", false, false, ""},
	"wrist.radial-deviation": {Side, hand, -1, elbowBent, "the forearm, thumb up", false, false, ""},
	"wrist.ulnar-deviation":  {Side, hand, 1, elbowBent, "the forearm, thumb up", false, false, ""},

	// On the back the leg goes up, face down it goes back; the other leg stays on the table and keeps
	// the pelvis. Rotation is the swing of the lower leg below a bent knee: turning the thigh inward
	// takes the foot outward.
	"hip.flexion":           {Side, thigh, -1, kneeAlong, "the pelvis", false, false, shank},
	"hip.extension":         {Side, thigh, 1, prone, "the pelvis", false, false, ""},
	"hip.abduction":         {Front, thigh, -1, standing, "the pelvis", true, false, ""},
	"hip.adduction":         {Front, thigh, 1, standing, "the pelvis", true, false, ""},
	"hip.internal-rotation": {Front, shank, -1, seatedFront, "the thigh", true, false, ""},
	"hip.external-rotation": {Front, shank, 1, seatedFront, "the thigh", true, false, ""},
	"knee.flexion":          {Side, shank, 1, prone, "the thigh", false, false, ""},
	"knee.extension":        {Side, shank, -1, supine, "the thigh", false, false, ""},

	// The foot stands at a right angle to the lower leg at zero. Knee straight and knee bent are two
	// readings, for the calf crosses the knee and soleus does not.
	"ankle.dorsiflexion-knee-straight": {Side, foot, -1, supine, "the lower leg", false, false, ""},
	"ankle.dorsiflexion-knee-bent":     {Side, foot, -1, kneeUp, "the lower leg", false, false, ""},
	"ankle.plantarflexion":             {Side, foot, 1, supine, "the lower leg", false, false, ""},
	"ankle.inversion":                  {Front, foot, 1, seatedFront, "the lower leg", true, false, ""},
	"ankle.eversion":                   {Front, foot, -1, seatedFront, "the lower leg", true, false, ""},
	"great-toe.extension":              {Side, toes, -1, supine, "the foot", false, false, ""},
}
