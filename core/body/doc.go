// Package body is the figure: its views, its landmarks, the lattice of cells that pain
// drawings are made of, and the regions that give every cell its name.
//
//	p, err := body.FindLandmark(body.Back, "C7", "midline")
//	cell := body.CellAt(body.Back, p)
//	named, ok := body.RegionOf(cell)   // region and side, or beside the figure
//	fig := body.Draw(body.Back)        // the drawing, for core/picture
//
// The examples in example_test.go run as tests. Everything else that has a place stands on
// this package: core/solid gives it depth, core/atlas lays the muscles on it.
//
// # Vocabulary
//
//   - View: one way of looking at the figure: front, back, both sides, both sides of the head,
//     both soles.
//   - Point: a place in a view, in the view's units.
//   - Authored half: what is written down. The other half is its mirror image.
//   - Part: head, trunk, arm, hand, leg or foot. It keeps a hand from taking its name from the
//     hip beside it.
//   - Landmark: a place that a hand can find, such as acromion or C7.
//   - Cell: one hexagon of a view's lattice, written "back:-4,31". Cells are what is painted,
//     stored and counted.
//   - Region: a named area of the body. Each cell on the figure has one, and a side.
//   - Seed: the spine of a region. A cell takes the region whose seed is nearest, among the
//     seeds of its part.
//   - Level: a vertebra that is found by a landmark, or by counting from another.
//   - Contour, inner line, shade: what the drawing consists of.
//
// # Units
//
// View coordinates have their origin at the top left, x to the right, y down; every view is
// 1,000 units tall. What a unit is worth differs (View.CMPerUnit):
//
//	front, back, sides   1,000 units are the client's height
//	head close-ups       a fifth of the height, from the crown to below the collar-bones
//	soles                the length of the foot, 0.152 of the height
//
// Proportions follow Drillis and Contini (1966) and Winter (2009); a test compares the drawn
// heights and breadths with them. The curves between are drawn by eye, and no more is claimed
// of them.
//
// # How views are authored
//
// Front and back are authored as one half: x outward from the midline. A side view and a head
// close-up are authored once, for the left: x forward from the plumb line through ear,
// shoulder, hip and ankle. A sole is authored once: x outward to the little toe. Files in
// data/ hold such points, in thousandths of the height (of the foot in a sole). View.Place
// turns an authored point into a point of the view, on a side; View.Authored goes back.
//
// Seen from the front the client's left is at the right of the picture; seen from behind it is
// at the left. View.SideAt answers that, and nothing else should work it out again.
//
// # Data flow
//
//	data/*.json ─▶ contours, lines, landmarks, seeds (read once, when first needed)
//	contours ─▶ Draw ─▶ Figure ─▶ WriteSVG (core/picture makes the whole picture)
//	contours ─▶ Cells: rows of hexagons whose middle lies inside ─▶ regionAt ─▶ NamedCell
//
// A lattice is made when all cells of a view are asked for. A single cell is answered without
// it, by the row that it lies in: a touch must not wait for some 2,000 cells.
//
// # The lattice
//
// Cells lie 7 units apart, 12 mm at a height of 171 cm; in the close-ups they are scaled to
// the same size on the body. They are hexagons, so that every neighbour is equally far and a
// painted edge has no corners. Coordinates are axial (q, r), with the origin in the middle of
// the view's top edge; the centre is
//
//	x = middle + size·(q + r/2),  y = size·(√3/2)·r
//
// A drawing is a set of cells. Its area is their number times the area of one, at the client's
// height; a cell is counted in the view in which it was painted, so that what front and side
// both show is counted twice only when it was painted twice.
//
// # Example: how a level is found
//
//	level, err := body.LevelAt("iliac-crest")  // L4, plus or minus one
//	next, err := body.Count(level.Level, -2)   // two up: L2, and the error has grown
//	what, err := body.FindBeside("T7", 2, 0, 1.8)
//
// FindBeside tells what lies under a finger beside the spine: facet joint, transverse process,
// rib joint, rib angle, by the spacing of each region and the rule of threes, by which a
// thoracic spinous tip lies up to a level below its own transverse processes. It refuses what
// would lie beyond C1 or S4. Every palpated level is plus or minus one, and says so.
//
// # Example: a painted area
//
//	set := body.CellSet{}                      // the cells of a drawing
//	set[body.CellAt(body.Back, p)] = true      // one touch of the brush
//	cm2 := set.AreaCM2(172)                    // at the client's height
//
// The regions of a drawing are those with enough of their cells painted, in the view where it
// is most; a stroke that only brushes the edge of a region does not name it.
//
// # Versions
//
// Version names the drawing. It changes when a landmark moves or a contour changes so much
// that stored places would shift. Places name the version on which they were placed, and
// core/atlas carries them over. Adding a view leaves the version as it is.
//
// # Adding to it
//
//   - A landmark: its place in data/landmarks.json, its id in core/ids.
//   - A region: a seed in data/regions.json for each view that shows it, its id in core/ids.
//     A test says that every region has cells, and that no cell of the figure is left unnamed.
//   - A line of the drawing: data/front-and-back.json, side-view.json, hand.json or soles.json.
//
// # Invariants
//
//   - Left and right mirror exactly, in contours, landmarks, cells and regions.
//   - Every cell on the figure has exactly one region and side; a cell beside it has none.
//   - A midline region belongs to both sides and is named ids.Midline.
//   - CellAt and Cell.Center are inverse: the centre of a cell lies in it.
//   - Loops over views run in the order of Views: sums of floats depend on it, and a result
//     must be the same natively and in the browser.
//   - What is worked out from the files (lattices, landmarks, outlines) is kept for ever, for
//     they never change while the program runs.
//   - The files are embedded one by one. Embedding a folder would bring a file system, and with
//     it the clock, into the browser's core.
package body
