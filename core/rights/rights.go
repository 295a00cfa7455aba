package rights

import (
	"maps"
	"slices"
)

// Role is what a person is in a practice.
type Role string

// The roles (handbook 2). Client is a client on an own device, who holds a
// code; Nobody has not signed in.
const (
	Owner     Role = "owner"
	Therapist Role = "therapist"
	Student   Role = "student"
	FrontDesk Role = "front-desk"
	Client    Role = "client"
	Nobody    Role = "nobody"
)

// Roles lists them all, the one with most rights first.
var Roles = []Role{Owner, Therapist, Student, FrontDesk, Client, Nobody}

// Licensed reports whether the role may decide alone: override, clear, and
// countersign for a student.
func (r Role) Licensed() bool { return r == Owner || r == Therapist }

// Clinical reports whether the role sees what is clinical.
func (r Role) Clinical() bool { return r.Licensed() || r == Student }

var (
	owner    = []Role{Owner}
	licensed = []Role{Owner, Therapist}
	clinical = []Role{Owner, Therapist, Student}
	staff    = []Role{Owner, Therapist, Student, FrontDesk}
	byCode   = []Role{Client}
	// withCode may compute: everyone who has signed in or holds a code.
	withCode = []Role{Owner, Therapist, Student, FrontDesk, Client}
	everyone = Roles
)

// operations are those of the API, by operation id.
var operations = map[string][]Role{
	"sign-in":               everyone,
	"sign-out":              everyone,
	"me":                    staff,
	"put-finger":            clinical,
	"put-introduced":        clinical,
	"put-password":          staff,
	"second-factor":         staff,
	"new-second-factor":     staff,
	"confirm-second-factor": staff,
	"drop-second-factor":    staff,
	"own-devices":           staff,
	"end-device":            staff,

	"people":       owner,
	"invite":       owner,
	"put-person":   owner,
	"reset-person": owner,
	"leave":        owner,
	"ticket":       byCode,
	"redeem":       byCode,
	"set-up":       byCode,

	"hold-by-law":  owner,
	"erase-client": owner,
	"erasures":     owner,

	"instruments":           clinical,
	"put-practice-settings": owner,
	"letterhead":            staff,
	"put-letterhead":        owner,

	"day":            staff,
	"list-clients":   staff,
	"alike-clients":  staff,
	"put-client":     staff,
	"book-visit":     staff,
	"archive-client": licensed,
	"restore-client": licensed,
	"client-course":  clinical,
	"compare-visits": clinical,

	"open-visit":       clinical,
	"send-events":      clinical,
	"new-link":         clinical,
	"visit-entries":    clinical,
	"take-entry":       clinical,
	"bring-entry-back": clinical,

	"put-photo":     clinical,
	"client-photos": clinical,
	"photo-image":   clinical,
	"photo-thumb":   clinical,
	"mark-photo":    clinical,
	"remove-photo":  clinical,
	"restore-photo": clinical,

	"own-atlas":       clinical,
	"put-note":        clinical,
	"put-site":        clinical,
	"remove-site":     clinical,
	"restore-atlas":   licensed,
	"weights":         clinical,
	"put-weight":      licensed,
	"reset-weight":    licensed,
	"thresholds":      clinical,
	"put-threshold":   licensed,
	"reset-threshold": licensed,
	"sequences":       clinical,
	"put-sequence":    licensed,
	"drop-sequence":   licensed,
	"protocols":       clinical,
	"put-protocol":    licensed,
	"drop-protocol":   licensed,

	"pad":             byCode,
	"put-pad-drawing": byCode,
	"put-pad-story":   byCode,
	"put-pad-answers": byCode,
	"hand":            byCode,
	"new-hand-link":   clinical,
	"end-hand-link":   clinical,
	"after":           byCode,
	"new-after-link":  clinical,

	"diary":           staff,
	"book":            staff,
	"rebook":          staff,
	"cancel-series":   staff,
	"put-waiting":     staff,
	"next-visit":      staff,
	"own-calendar":    staff,
	"put-calendar":    staff,
	"visit-date":      staff,
	"new-date-link":   staff,
	"prices":          staff,
	"put-prices":      owner,
	"receipts":        staff,
	"issue-receipt":   staff,
	"cancel-receipt":  staff,
	"print-receipt":   staff,
	"receipts-file":   owner,
	"practice-view":   clinical,
	"outcomes":        licensed,
	"print-visit":     clinical,
	"print-client":    clinical,
	"print-blank":     clinical,
	"visit-note":      clinical,
	"export-client":   licensed,
	"export-practice": owner,
	"audit":           owner,
	"audit-file":      owner,
	"import":          owner,
	"imports":         owner,
	"undo-import":     owner,

	"bench-results":          staff,
	"keep-bench-result":      staff,
	"bench-result":           staff,
	"bench-class":            licensed,
	"bench-file":             licensed,
	"bench-assignments":      staff,
	"put-bench-assignment":   licensed,
	"close-bench-assignment": licensed,
	"sit-exam":               staff,
	"act-in-exam":            staff,
	"visit-agreement":        clinical,

	"figure":     everyone,
	"lattice":    everyone,
	"figure-svg": everyone,
	"calc":       withCode,
}

// MayCall reports whether a role may call an operation of the API.
func MayCall(r Role, operation string) bool { return slices.Contains(operations[operation], r) }

// Operations lists what the table has a row for, in order.
func Operations() []string { return slices.Sorted(maps.Keys(operations)) }
