// The pressure pain threshold at a point, three times on each side, with the
// algometer or typed.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Button, Choice, Disclosed } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { type Presser, pressers, useInstruments } from "../../../core/useAlgometer";
import type { StepProps } from "../StepProps";
import { ByAlgometer } from "./ByAlgometer";
import { TypedTrials } from "./TypedTrials";

interface Props extends StepProps {
  point: Schemas["Point"];
  /** Of treatment; before, where nothing else is said. After it the point alone is measured. */
  moment?: "after";
}

const sideOf = (p: Schemas["Point"], other: boolean) =>
  other ? (p.side === "left" ? "right" : "left") : p.side;

export function Threshold({ visit, point, moment }: Props) {
  const instruments = useInstruments();
  const [other, setOther] = useState(false);
  const [by, setBy] = useState<Presser>();
  const before = other ? point.threshold_other_side : point.threshold;
  const here = moment ? point.threshold_after : before;
  const keep = (trials_kpa: number[], ramp: number[]) =>
    visit.write("threshold-measured", {
      point: point.point,
      ...(other ? { other_side: true } : {}),
      ...(moment ? { moment } : {}),
      trials_kpa,
      ...(ramp.length > 0 ? { ramp_kpa_per_s: ramp } : {}),
      tip_area_cm2: by ? pressers[by].tipCM2 : 1,
    });
  return (
    <Disclosed
      summary={moment ? `Pressure threshold again${wasAndIs(point)}` : `Pressure threshold${inShort(point)}`}
    >
      <Stack $gap={3} data-threshold>
        <Row $wrap>
          {!moment && (
            <Choice
              quiet
              label="Side"
              value={other ? "other" : "this"}
              options={["this", "other"] as const}
              describe={(v) => `${sideOf(point, v === "other")}${v === "other" ? ", to compare" : ""}`}
              onChoose={(v) => setOther(v === "other")}
            />
          )}
          {(Object.keys(pressers) as Presser[])
            .filter((p) => instruments?.[p] && (!by || by === p))
            .map((p) => (
              <Button key={p} $kind={by ? "main" : "plain"} onPress={() => setBy(by ? undefined : p)}>
                {by ? "Close algometer" : `With the ${pressers[p].name}`}
              </Button>
            ))}
        </Row>
        {by && (
          <ByAlgometer
            key={`${by}${other}`}
            core={visit.core}
            address={instruments?.[by]}
            by={by}
            done={here?.trials_kpa ?? []}
            ramps={here?.ramp_kpa_per_s ?? []}
            onTrial={keep}
          />
        )}
        {!by && (
          <TypedTrials key={String(other)} trials={here?.trials_kpa ?? []} onKeep={(t) => keep(t, [])} />
        )}
        {!moment && <Compared point={point} />}
      </Stack>
    </Disclosed>
  );
}

const inShort = (p: Schemas["Point"]) => (p.threshold ? `: ${Math.round(p.threshold.kpa)} kPa` : "");

const wasAndIs = ({ threshold: was, threshold_after: is }: Schemas["Point"]) =>
  `: was ${Math.round(was?.kpa ?? 0)} kPa${is ? `, now ${Math.round(is.kpa)} kPa` : ""}`;

/** Both sides beside each other. */
function Compared({ point }: { point: Schemas["Point"] }) {
  const { threshold: a, threshold_other_side: b } = point;
  if (!a && !b) return null;
  const words = (t: Schemas["PainThreshold"] | undefined) =>
    t ? `${Math.round(t.kpa)} kPa (${t.trials_kpa.map(Math.round).join(", ")})` : "not measured";
  return (
    <>
      <p>
        <b>{point.side}</b> {words(a)}, <b>{sideOf(point, true)}</b> {words(b)}
        {a && b && `: ${Math.round(Math.abs(b.kpa - a.kpa))} kPa ${a.kpa < b.kpa ? "lower" : "higher"} here`}.
      </p>
      {[a, b].map(
        (t, i) =>
          t?.wide && (
            <Said key={i === 0 ? "here" : "there"} $tone="warn">
              The trials {i === 0 ? "here" : "on the other side"} differ by {Math.round(t.cv_percent)} % (over
              20 %): repeat them evenly.
            </Said>
          ),
      )}
    </>
  );
}
