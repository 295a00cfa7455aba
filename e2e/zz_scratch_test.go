package e2e
import ("testing";"mokren/demo")
func TestZZ(t *testing.T){
	p := signedIn(t, startServer(t).addr, demo.Logins[2])
	p.MustNavigate(p.base + "/bench")
	p.see("[data-next]", "Practise this")
	begin(p, "Graded pressure", "Stiff neck at the desk")
	p.see("[aria-label='Simulated client']", "The point is charted")
	beginBy(p, "Hold to release")
	holdSimulated(p)
	p.lookAt("bench-hold")
	p.click("aside button", "Finish and review")
	p.see("[data-review=grading] [data-score]", "Below the ceilings")
	p.MustElement("[data-force-line]")
	p.lookAt("bench-review-grading")
	wholeVisit(p)
}
