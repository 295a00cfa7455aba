package visit

import "mokren/core/rights"

var pointCorrected = kind{
	name: "point-corrected",
	body: func() Body { return new(Charted) },
	by:   rights.Role.Clinical,
	acts: first,
}
