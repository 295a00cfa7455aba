// The pain drawing of the visit: painted here, or by the client on an own
// device, and laid beside an earlier one.
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { useFigure } from "../../body/views";
import { byView, fromStrokes, mirrored, toStrokes } from "../../body/drawing";
import { PainTools } from "../../body/PainTools";
import { useUndo } from "../../core/useUndo";
import { useAsk } from "../../core/useAsk";
import { Below } from "../../parts/Below";
import { Card, Choice } from "../../parts/controls";
import { day, plain, sentence } from "../../parts/words";
import { areaWords, useUnitPreferences } from "../../parts/unitPreferences";
import { OwnDevice, Waiting } from "./OwnDevice";
import { Story } from "./Story";
import type { Body } from "./body/useBody";
import type { StepProps } from "./StepProps";

interface Props extends StepProps {
  me: Schemas["Me"];
  body: Body;
}

/** "Neck angle, left" for a list of regions. */
const inWords = (list: Schemas["RegionCover"][]) =>
  list.length
    ? list
        .slice(0, 6)
        .map((c) => `${plain(c.region)}${c.side === "midline" ? "" : ` ${c.side}`}`)
        .join(", ")
    : "nothing";
const signed = (v: number) => `${v > 0 ? "+" : v < 0 ? "−" : ""}${Math.abs(Math.round(v))}`;

/** What is asked beside the drawing. */
const Asked = ({ visit }: StepProps) => (
  <Below>
    <Story visit={visit} />
    <OwnDevice visit={visit} />
  </Below>
);

export function DrawStep({ visit, me, body }: Props) {
  const { height } = body;
  const written = useUnitPreferences();
  const area = (cm2: number) => areaWords(cm2, written);
  const { drawing, tool, setTool, compare, setCompare } = body.painting;
  const figure = useFigure("front").data?.version ?? "";
  const { core, open, write } = visit;
  const { undo, redo } = useUndo(visit);
  const earlier = open.earlier_drawings.find((d) => d.visit === compare);
  const asked = useMemo(
    () => ({
      before: earlier ? byView(fromStrokes(earlier.strokes)) : {},
      after: byView(drawing),
      height_cm: height,
    }),
    [earlier, drawing, height],
  );
  const now = useAsk(core, "drawing", asked);
  const lay = (strokes: Schemas["Stroke"][], by: "therapist" | "client" = "therapist") =>
    strokes.length > 0 && write("drawing-painted", { figure, strokes, by });
  return (
    <>
      <Waiting visit={visit} />
      <Card>
        <h2>Where does it hurt?</h2>
        <p className="quiet">Paint on the body, or let the client paint. Don't lead the client.</p>
        <PainTools
          tool={tool}
          onTool={setTool}
          onUndo={undo}
          onRedo={redo}
          onMirror={drawing.size ? () => lay(toStrokes(mirrored(drawing))) : undefined}
        />
      </Card>
      <Card data-drawing={now && Math.round(now.after_cm2)}>
        <h2>{drawing.size && now ? `${area(now.after_cm2)} painted` : "Nothing painted yet"}</h2>
        {drawing.size > 0 && now && <p>{sentence(inWords(now.after_regions))}.</p>}
        {open.earlier_drawings.length > 0 && (
          <div>
            <Choice
              label="Lay over an earlier drawing"
              value={compare ?? "none"}
              options={["none", ...open.earlier_drawings.map((d) => d.visit)]}
              describe={(v) =>
                v === "none"
                  ? "none"
                  : day(open.earlier_drawings.find((d) => d.visit === v)?.starts_at ?? "", me.time_zone)
              }
              onChoose={(v) => setCompare(v === "none" ? undefined : v)}
            />
          </div>
        )}
        {earlier && now && (
          <dl className="compare" data-compare>
            <dt>Area</dt>
            <dd>
              {area(now.before_cm2)} → {area(now.after_cm2)}
              {now.change_percent === undefined ? "" : `, ${signed(now.change_percent)} %`}
            </dd>
            <dt>Overlap</dt>
            <dd>
              {Math.round(now.dice * 100)} % <span className="quiet">of both drawings together</span>
            </dd>
            <dt>New</dt>
            <dd>
              {area(now.new_cm2)}: {inWords(now.new_regions)}
            </dd>
            <dt>Gone</dt>
            <dd>
              {area(now.gone_cm2)}: {inWords(now.gone_regions)}
            </dd>
          </dl>
        )}
      </Card>
      <Asked visit={visit} />
    </>
  );
}
