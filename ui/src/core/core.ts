// The Go core, compiled to WebAssembly and loaded when a visit opens. It is
// the same code that the server runs; nothing here decides anything.
import type { Schemas } from "../api/client";
import type { HoldRequest } from "./holdRequest";

type MuscleID = Schemas["MuscleID"];
type Side = Schemas["Side"];
type View = Schemas["View"];

export interface Raw {
  calc(name: string, json: string): string;
  reduce(context: string, events: string): string;
  begin(request: string, adaptation: string, where: string): string;
  after(state: string, earlier: string): string;
  suspects(context: string, state: string, earlier: string, weights: string, startsMS: number): string;
  hold(start: string, log: string, ms: number): string;
  same(earlier: string, muscle: string, side: string, place: string, height: number): string;
  work(context: string, state: string, earlier: string, suspects: string): string;
  trace(context: string, state: string, earlier: string, suspects: string, point: string): string;
  plan(context: string, state: string, earlier: string, wanted: string, nowMS: number): string;
  note(visit: string): string;
  rules: string;
}

/** A refusal by the core; it names the field. */
export class CoreError extends Error {
  constructor(
    readonly path: string,
    given: string,
    allowed: string,
  ) {
    super(`${path}: given ${given}; allowed: ${allowed}`);
  }
}

function open<T>(text: string): T {
  const a = JSON.parse(text) as { ok?: T; error?: { Path: string; Given: string; Allowed: string } };
  if (a.error) throw new CoreError(a.error.Path, a.error.Given, a.error.Allowed);
  return a.ok as T;
}

export interface HoldView {
  line: Schemas["Line"];
  summary: Schemas["Summary"];
  /** When the line changes next by itself, in ms from the start. */
  due_ms?: number;
}

/** A visit's state as the core reads it beside earlier ones. */
export interface Read {
  open: Pick<Schemas["OpenVisit"], "context" | "earlier">;
  state: Schemas["State"];
}

const texts = ({ open, state }: Read) =>
  [JSON.stringify(open.context), JSON.stringify(state), JSON.stringify(open.earlier)] as const;

type NoteText = Pick<Schemas["NoteOut"], "subjective" | "objective" | "assessment" | "plan">;

export class Core {
  constructor(private readonly raw: Raw) {}
  /** A computation by its name; every one of them is described in the API too. */
  private calc<T>(name: string, input: object): T {
    return open(this.raw.calc(name, JSON.stringify(input)));
  }
  under(view: View, x: number, y: number, height_cm: number): Schemas["UnderOut"] {
    return this.calc("under", { view, x, y, height_cm });
  }
  palpate(
    muscle: MuscleID,
    side: Side,
    height_cm: number,
    site?: string,
    finger_cm?: number,
  ): Schemas["Guide"] {
    return this.calc("palpate", { muscle, side, site, height_cm, finger_cm });
  }
  atlas(query: Schemas["Query"]): Schemas["AtlasEntry"][] {
    return this.calc<Schemas["AtlasOut"]>("atlas", query).muscles;
  }
  hurts(view: View, x: number, y: number): Schemas["HurtsOut"] {
    return this.calc("hurts", { view, x, y });
  }
  layers(wanted: Partial<Schemas["Wanted"]> & Pick<Schemas["Wanted"], "view" | "layers">): Schemas["Drawn"] {
    return this.calc("layers", wanted);
  }
  place(muscle: MuscleID, side: Side, place: Schemas["FibrePlace"]): Schemas["PlaceOut"] {
    return this.calc("place", { muscle, side, place });
  }
  stations(muscle: MuscleID, side: Side, stations: number, height_cm: number): Schemas["StationsOut"] {
    return this.calc("stations", { muscle, side, stations, height_cm });
  }
  slope(input: Schemas["SlopeIn"]): Schemas["Slope"] {
    return this.calc("slope", input);
  }
  steady(watch: Schemas["Watch"], samples: Schemas["Sample"][]): Schemas["SteadyOut"] {
    return this.calc("steady", { watch, samples });
  }
  signs(): Schemas["SignSpot"][] {
    return this.calc<Schemas["SignsOut"]>("signs", {}).spots;
  }
  gauges(): Schemas["GaugeInfo"][] {
    return this.calc<Schemas["GaugesOut"]>("gauges", {}).gauges;
  }
  thresholds(): Schemas["FlagThreshold"][] {
    return this.calc<Schemas["ThresholdsOut"]>("thresholds", {}).thresholds;
  }
  change(measure: string, before: number, after: number): Schemas["Change"] {
    return this.calc("change", { measure, before, after });
  }
  questions(): Schemas["Question"][] {
    return this.calc<Schemas["QuestionsOut"]>("questions", {}).questions;
  }
  movements(): Schemas["Measurable"][] {
    return this.calc<Schemas["MovementsOut"]>("movements", {}).movements;
  }
  /** What the client's answers say of moving a joint actively. */
  movementsToday(screening: Schemas["Answer"][]): Schemas["MovementToday"][] {
    return this.calc<Schemas["MovementsOut"]>("movements", { screening }).today;
  }
  tests(): Schemas["TestEntry"][] {
    return this.calc<Schemas["TestsOut"]>("tests", {}).tests;
  }
  /** Ranks the muscles by everything that the visit knows. */
  suspects(
    context: Schemas["Context"],
    state: Schemas["State"],
    earlier: Schemas["FoundPoint"][],
    weights: Record<string, Schemas["Ratio"]>,
    startsAt: string,
  ): Schemas["Ranking"] {
    return open(
      this.raw.suspects(
        JSON.stringify(context),
        JSON.stringify(state),
        JSON.stringify(earlier),
        JSON.stringify(weights),
        Date.parse(startsAt),
      ),
    );
  }
  /** Every point judged and given a protocol, and what is to be searched. */
  work(visit: Read, suspects: Schemas["Suspect"][]): Schemas["Working"] {
    return open(this.raw.work(...texts(visit), JSON.stringify(suspects)));
  }
  /** Where a point may come from. */
  trace(visit: Read, suspects: Schemas["Suspect"][], point: string): Schemas["PointCandidate"][] {
    return open(this.raw.trace(...texts(visit), JSON.stringify(suspects), point));
  }
  /** The session as it stands now; wanted is a plan not accepted yet. */
  plan(visit: Read, wanted: Schemas["PlanMade"] | undefined, nowMS: number): Schemas["Planned"] {
    return open(this.raw.plan(...texts(visit), JSON.stringify(wanted ?? null), nowMS));
  }
  /** A number of the practice's own scale on 0 to 10. */
  number(given: number, scale: "0-5" | "1-10"): number {
    return this.calc<Schemas["NumberOut"]>("number", { given, scale }).nprs;
  }
  algometry(): Schemas["AlgometryOut"] {
    return this.calc("algometry", {});
  }
  ppt(trials: Schemas["Trial"][], tip_area_cm2: number): Schemas["PPT"] {
    return this.calc("ppt", { trials, tip_area_cm2 });
  }
  pad(samples: Schemas["PadSample"][], at_n: number): Schemas["PadReading"] {
    return this.calc("pad", { samples, at_n });
  }
  handLoad(holds: Schemas["HandUse"][]): Schemas["Load"] {
    return this.calc("load", { holds });
  }
  evidence(): Schemas["Evidence"][] {
    return this.calc<Schemas["EvidenceOut"]>("evidence", {}).evidence;
  }
  level(input: Schemas["LevelIn"]): Schemas["LevelOut"] {
    return this.calc("level", input);
  }
  drawing(input: {
    before: Record<string, string[]>;
    after: Record<string, string[]>;
    height_cm: number;
  }): Schemas["DrawingOut"] {
    return this.calc("drawing", input);
  }
  cells(view: View, regions: Schemas["RegionSide"][]): Schemas["CellsOut"] {
    return this.calc("cells", { view, regions });
  }
  range(
    movement: Schemas["MovementID"],
    active_deg: number | undefined,
    other_side_deg: number | undefined,
    age: number | undefined,
  ): Schemas["RangeFlag"] {
    return this.calc("range", { movement, active_deg, other_side_deg, age });
  }
  reduce(context: Schemas["Context"], events: Schemas["Event"][]): Schemas["State"] {
    return open(this.raw.reduce(JSON.stringify(context), JSON.stringify(events)));
  }
  after(state: Schemas["State"], earlier: Schemas["FoundPoint"][]): Schemas["Aftercare"] {
    return open(this.raw.after(JSON.stringify(state), JSON.stringify(earlier)));
  }
  /** Resolves a hold's limits where it is pressed, under what the screening allows. */
  begin(
    request: HoldRequest,
    limits: Schemas["Adaptation"],
    where: Schemas["Place"][],
  ): { start: Schemas["Start"]; line: Schemas["Line"] } {
    const line = JSON.stringify({ t: 0, event: "start", ...request });
    return open(this.raw.begin(line, JSON.stringify(limits), JSON.stringify(where)));
  }
  hold(start: Schemas["Start"], log: Schemas["HoldHappened"][], ms: number): HoldView {
    return open(this.raw.hold(JSON.stringify(start), JSON.stringify(log), Math.floor(ms)));
  }
  same(
    earlier: Schemas["FoundPoint"][],
    muscle: MuscleID,
    side: Side,
    place: Schemas["FibrePlace"],
    height: number,
  ): string {
    return (
      open<string>(this.raw.same(JSON.stringify(earlier), muscle, side, JSON.stringify(place), height)) ?? ""
    );
  }
  /** The note of a visit as the core writes it. */
  note({ open: of, state }: Read, offset_min: number): NoteText {
    const { context, earlier } = of;
    return open(this.raw.note(JSON.stringify({ state, context, earlier, offset_min })));
  }
}
