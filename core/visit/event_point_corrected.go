package visit

import "mokren/core/rights"

var pointCorrected = kind{
	name: "point-corrected",
	body: func() Body { return new(PointCharted) },
	by:   rights.Role.Clinical,
	acts: first,
}
