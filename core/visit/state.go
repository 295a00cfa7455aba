package visit

import (
	"encoding/json"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/safety"
	"mokren/core/treat"
)

// State is a visit as it stands: what Reduce makes of its log. Times are Unix ms by the
// server's clock, scores NPRS 0 to 10, places on today's figure. Lists are in the order in
// which things happened, but where a field says otherwise.
type State struct {
	// Reason is why the client comes, as it was written when the visit was opened.
	Reason string `json:"reason,omitempty"`
	// OpenedMS is 0 while nobody has opened the visit; ClosedMS is 0 while it is open, and
	// again after its closing was taken back.
	OpenedMS int64 `json:"opened_ms,omitempty"`
	ClosedMS int64 `json:"closed_ms,omitempty"`
	// NotTreated is what was advised, of a visit that was closed without a treatment.
	NotTreated string `json:"not_treated,omitempty"`
	// Note is the free text beside the structured record; Drafts and Signed are the note that
	// is written from it.
	Note string `json:"note,omitempty"`
	// Points are those that are charted now: a removed one is not among them.
	Points []Point `json:"points"`
	// Holds are all that were begun, rejected ones too: their status says what they are worth.
	Holds []Hold `json:"holds"`
	// Runs are the sequences that were begun, with what became of each step.
	Runs []Run `json:"runs,omitempty"`
	// Ranges has one entry for each movement and side that was measured.
	Ranges  []Range  `json:"ranges"`
	Drawing []Stroke `json:"drawing" doc:"the pain drawing, by kind and intensity"`
	// Answers of this visit's screening, what was cleared, and what they come to
	// with the answers of earlier visits.
	Answers   []GivenAnswer      `json:"answers"`
	Cleared   []ScreeningCleared `json:"cleared"`
	Overrides []BlockOverridden  `json:"overrides"`
	Screening safety.Screening   `json:"screening"`
	// Known are the answers that the screening judges: carried, given, of record.
	// Each has its age at this visit; the latest one to a question counts, but for those that
	// last until they are cleared.
	Known []safety.Answer `json:"known_answers"`
	// ScreenAgain: the client felt unwell; nothing is pressed before the screening
	// was asked again.
	ScreenAgain bool `json:"screen_again,omitempty"`
	// Pressed are the signs of this visit's holds, with where the hand was.
	Pressed []Pressed `json:"pressed_signs"`
	// PutOff tells why hands were on before consent and screening were asked for.
	PutOff *PutOff `json:"put_off,omitempty"`
	// Consents are the latest word on the visit and on each sensitive area. A consent that was
	// withdrawn stands here as not given.
	Consents []ConsentRecorded `json:"consents"`
	// Tests, Signs, Loads and Posture hold the latest result of each test, sign, load and
	// measure, on each side that it has.
	Tests   []TestDone       `json:"tests"`
	Signs   []SignSeen       `json:"signs"`
	Loads   []ids.Load       `json:"loads"`
	Posture []assess.Posture `json:"posture"`
	// PostureFlags judge the readings, in the same order.
	PostureFlags []assess.PostureFlag `json:"posture_flags"`
	Gauges       []GaugePair          `json:"gauges"`
	Interview    *InterviewNoted      `json:"interview,omitempty"`
	// Recheck is what is looked at again before the client goes; PostureAfter, SignsAfter and
	// After are what was found then, beside the ranges, gauges and points themselves.
	Recheck []ToRecheck `json:"recheck"`
	// SecondSide are points on the other side of what was pressed that wait to be.
	SecondSide []UUID `json:"second_side,omitempty"`
	// OneSided are steps of sequences that were done on one side only, in words.
	OneSided     []string         `json:"one_sided,omitempty"`
	PostureAfter []assess.Posture `json:"posture_after,omitempty"`
	SignsAfter   []SignSeen       `json:"signs_after,omitempty"`
	After        *RecheckNoted    `json:"after,omitempty"`
	// Searched are muscles in which no point was found.
	Searched []MuscleSearched `json:"searched"`
	// Plan is the latest one that the therapist accepted; nil while none was.
	Plan *PlanMade `json:"plan,omitempty"`
	// PlanMS is since when the minutes of the plan run: when they were last said.
	PlanMS   int64          `json:"plan_ms,omitempty"`
	Reaction *ReactionNoted `json:"reaction,omitempty"`
	Next     string         `json:"next,omitempty" doc:"what is to be done at the next visit"`
	// Conflicts are open: one goes when somebody who has seen both sets the thing again.
	Conflicts []Conflict `json:"conflicts"`
	// Rejected are shown with their reason and count nowhere.
	Rejected    []RejectedEvent `json:"aside"`
	Late        []LateEntry     `json:"late,omitempty" doc:"what came in after the visit was closed"`
	ClientNotes []ClientNote    `json:"client_notes,omitempty" doc:"what the client said, as it was said"`
	Incidents   []DatedIncident `json:"incidents,omitempty"`
	// Letters are signed ones; LetterDraft is of the one that is being written.
	Letters     []DatedLetter `json:"letters,omitempty"`
	LetterDraft *DatedLetter  `json:"letter_draft,omitempty"`
	Addenda     []DatedText   `json:"addenda" doc:"written after the visit was closed"`
	// Drafts are the note as it was edited, the latest last; Signed is the one that
	// stands.
	Drafts  []DatedNote `json:"drafts"`
	Signed  *SignedNote `json:"signed,omitempty"`
	Version int64       `json:"version" doc:"highest version among the events"`
}

// FoundPoint is a point as it was charted, and as it was found at the recheck:
// what later visits know of it.
type FoundPoint struct {
	PointCharted
	ChartedMS int64 `json:"charted_ms"`
	// AfterNPRS and AfterGrade are of the recheck, at test pressure; nil where there was none.
	AfterNPRS  *float64 `json:"after_nprs,omitempty"`
	AfterGrade *int     `json:"after_grade,omitempty"`
	// FirstMS is when the spot was first charted, of an earlier visit's.
	FirstMS int64 `json:"first_ms,omitempty"`
	// Worked is the protocol that let it go last, TreatedMS when it was pressed
	// last, at earlier visits.
	Worked    ids.Protocol `json:"worked,omitempty"`
	TreatedMS int64        `json:"treated_ms,omitempty"`
	// Answers are what the client has said of it over visits.
	Answers []SpotAnswer `json:"answers,omitempty"`
	// Own is where this client has felt it at two visits or more.
	Own []safety.Place `json:"own_referral,omitempty"`
}

// SpotAnswer is where pressing a spot was felt at one visit.
type SpotAnswer struct {
	AtMS   int64          `json:"at_ms"`
	Places []safety.Place `json:"places" doc:"none where it was felt nowhere else"`
}

// Point is a charted point with what may be done there now.
type Point struct {
	FoundPoint
	// Blocked tells why no hold may begin here now.
	Blocked string `json:"blocked,omitempty"`
	// Overridable are the answers that block, where a licensed person may press all the
	// same.
	Overridable []ids.Question `json:"overridable,omitempty"`
	// NeedsConsent is the area whose consent is the one thing still missing.
	NeedsConsent safety.Area `json:"needs_consent,omitempty" enum:"visit,groin,buttock,chest,abdomen,axilla,coccyx"`
	// Treated is how often its place was treated today, in all visits.
	Treated int `json:"treated,omitempty"`
	// Closed tells that no more pressure belongs here today, and why.
	Closed string `json:"closed,omitempty"`
	// Where it lies on the body; some regions have ceilings of their own.
	Where []safety.Place `json:"where"`
	// Threshold is the pressure pain threshold in kPa; ThresholdOther that of the same place
	// on the other side, beside which it is judged.
	Threshold      *PainThreshold `json:"threshold,omitempty"`
	ThresholdOther *PainThreshold `json:"threshold_other_side,omitempty"`
	// ThresholdAfter is that of the point after treatment.
	ThresholdAfter *PainThreshold `json:"threshold_after,omitempty"`
	// ByHand replaces what is computed, field by field; Chosen is the protocol in place of the
	// suggested one. Both are the therapist's, and neither passes a safety rule.
	ByHand *JudgementMade `json:"judged_by_hand,omitempty"`
	Chosen ids.Protocol   `json:"chosen_protocol,omitempty"`
	// Contacts and Positions are what one chooses from for a hold here.
	Contacts  []Choice `json:"contacts"`
	Positions []Choice `json:"positions"`
}

// Choice is one of a list to choose from; Why says why it may not be.
type Choice struct {
	ID  string `json:"id"`
	Why string `json:"why,omitempty"`
}

// DatedText is a text with when and by whom it was written.
type DatedText struct {
	AtMS   int64  `json:"at_ms"`
	Author string `json:"author"`
	Text   string `json:"text"`
}

// PutOff is a reason to ask later, with the sensitive areas that it waits with.
type PutOff struct {
	AtMS   int64         `json:"at_ms"`
	Author string        `json:"author"`
	Text   string        `json:"text"`
	Areas  []safety.Area `json:"areas,omitempty"`
}

// DatedIncident is an incident with when and by whom it was written.
type DatedIncident struct {
	AtMS   int64  `json:"at_ms"`
	Author string `json:"author"`
	Incident
}

// DatedNote is a note with when and by whom it was edited or signed.
type DatedNote struct {
	AtMS   int64  `json:"at_ms"`
	Author string `json:"author"`
	NoteText
}

// SignedNote is a signed note.
type SignedNote struct {
	DatedNote
	Name string `json:"name"`
	// ByStudent: it asks for a countersignature.
	ByStudent bool              `json:"by_student,omitempty"`
	Counter   *Countersignature `json:"countersigned,omitempty"`
}

// Countersignature is who stands for a student's note.
type Countersignature struct {
	AtMS   int64  `json:"at_ms"`
	Author string `json:"author"`
	Name   string `json:"name"`
}

// HoldStatus tells what a hold's log is worth.
type HoldStatus string

// Live: no end yet. Kept: ended. HoldRejected: kept and shown, but counted nowhere.
const (
	Live         HoldStatus = "live"
	Kept         HoldStatus = "kept"
	HoldRejected HoldStatus = "aside"
)

// Hold is one hold with its replayed result. Its log is run through the coach under the rules
// that it was begun with, so the summary is computed and never taken from a device.
type Hold struct {
	ID        UUID  `json:"id"`
	Point     UUID  `json:"point"`
	StartedMS int64 `json:"started_ms" doc:"by the server's clock, Unix ms"`
	DeviceMS  int64 `json:"device_ms" doc:"by the clock of the device that began it"`
	EndedMS   int64 `json:"ended_ms,omitempty" doc:"by the server's clock; absent while it is live"`
	// Start has the resolved plan and limits; what the screening or the place lowered is in it.
	Start     treat.Start    `json:"start"`
	Contact   ids.Contact    `json:"contact,omitempty"`
	Position  ids.Position   `json:"position,omitempty"`
	MuscleSet string         `json:"muscle_set,omitempty"`
	Log       []HoldHappened `json:"log"`
	Status    HoldStatus     `json:"status"`
	// Why is the reason of a rejected hold; empty for the others.
	Why     string        `json:"why,omitempty"`
	Summary treat.Summary `json:"summary"`
	// Result is what it came to, in words.
	Result string `json:"result"`
	Author string `json:"author"`
	// Under is whom a student's hold names, Countersigned who has signed it.
	Under         UUID   `json:"under,omitempty"`
	Countersigned string `json:"countersigned,omitempty"`
	// Remarks are what was learned later, or what differs; they take nothing away.
	Remarks []string `json:"remarks"`

	// Spot is where the hand was.
	Spot Spot `json:"-"`

	event    Event         // that began it
	events   []treat.Event // Log as the coach reads it, sorted by time before it is run
	ended    *Event        // nil while it is live
	claim    *HoldEnded    // what the device that ended it says it came to
	memo     *memo
	late     int            // entries of other devices that came after the end
	clock    string         // what was wrong with a device's clock, for a remark
	stored   *treat.Summary // what the projection holds, to compare with
	storedAt int64          // version of the visit at which it was stored
}

// Range is one movement on one side, before and after treatment, in degrees (in cm where the
// movement is measured so). Active where nothing else is said; nil was not measured.
type Range struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	// Before and After are active readings; their difference is what a visit has changed.
	Before      *float64  `json:"before,omitempty"`
	After       *float64  `json:"after,omitempty"`
	Trials      []float64 `json:"trials,omitempty" doc:"active readings before treatment; before is their mean"`
	AfterTrials []float64 `json:"after_trials,omitempty"`
	// BeforePain and AfterPain are scores at the end of the movement.
	BeforePain *float64 `json:"before_pain,omitempty"`
	AfterPain  *float64 `json:"after_pain,omitempty"`
	// Passive is what the therapist's hand reaches.
	Passive *float64 `json:"passive,omitempty" doc:"before treatment"`
	// Felt tells a pull on the long side from a pinch on the short one, which speaks for the
	// joint.
	Felt   string     `json:"felt,omitempty" enum:"pull,pinch,pain"`
	FeltAt ids.Region `json:"felt_region,omitempty"`
	// EndFeel is what the hand feels at the end of a passive movement.
	EndFeel string `json:"end_feel,omitempty" enum:"soft,firm,hard,empty,springy"`
	Tool    string `json:"tool,omitempty" doc:"used before treatment; the close-out uses the same"`
	// Change compares before with after, where both were read.
	Change *progress.Change `json:"change,omitempty"`
}

// Conflict is two events that set the same thing without having seen each
// other; the later one shows until someone who saw both sets it again.
type Conflict struct {
	Key   string `json:"key"`
	Kept  string `json:"kept" doc:"event id"`
	Other string `json:"other" doc:"event id"`
	Text  string `json:"text"`
}

// RejectedEvent is an event that could not stand.
type RejectedEvent struct {
	Event  string          `json:"event"`
	Type   string          `json:"type"`
	Reason string          `json:"reason"`
	Body   json.RawMessage `json:"body"`
}
