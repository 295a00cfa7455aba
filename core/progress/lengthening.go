package progress

// Lengthening compares points that were lengthened after their hold with those that were not, over
// all that were found and rechecked. It shows what went together, not what caused what.
type Lengthening struct {
	With    Lengthened `json:"with"`
	Without Lengthened `json:"without"`
}

// Lengthened is what became of the points of one kind.
type Lengthened struct {
	// Clear is how often the score fell clearly.
	Clear Share `json:"clear"`
	// Drop is the mean change of the score, downwards positive; 0 where there are none.
	Drop float64 `json:"drop"`
}

// LengtheningAfter judges treatment results by whether lengthening came after the hold; nil where
// there is none of one kind, for then nothing is compared.
func LengtheningAfter(list []TreatmentResult) *Lengthening {
	var n, clear [2]int
	var drop [2]float64
	for _, t := range list {
		k := 0
		if t.Lengthened {
			k = 1
		}
		many := max(1, t.N)
		n[k] += many
		drop[k] += float64(many) * (t.Before - t.After)
		if rules["nprs"].judge(t.Before, t.After).Direction == Better {
			clear[k] += many
		}
	}
	if n[0] == 0 || n[1] == 0 {
		return nil
	}
	of := func(k int) Lengthened { return Lengthened{ShareOf(clear[k], n[k]), clean(drop[k] / float64(n[k]))} }
	return &Lengthening{With: of(1), Without: of(0)}
}
