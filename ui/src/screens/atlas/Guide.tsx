// The palpation guide in table mode: one step at a time, large, advanced by
// pedal, Space or arrow keys, with its construction drawn on the body.
import { useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { useCore } from "../../core/useCore";
import { Key, ErrorPanel, Waiting } from "../../parts/controls";
import { TableRoom } from "../../parts/layout";
import { plain, unbroken } from "../../parts/words";
import { useTableMode } from "../hold/useRoom";
import { Construction } from "./guide/Construction";
import { More } from "./guide/More";
import { useSteps } from "./guide/useSteps";
import { phone, upright } from "../../theme";

const Room = styled(TableRoom)`
  ${upright} {
    grid-template-rows: auto minmax(0, 0.55fr) minmax(400px, 1fr) auto;
  }
  .head {
    display: flex;
    gap: 18px;
    align-items: center;
    min-width: 0;
  }
  .head h1 {
    font-size: 26px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .head span {
    color: var(--ink-soft);
    font-size: 19px;
  }
  .say {
    min-height: 0;
    overflow: auto;
    display: grid;
    align-content: start;
    gap: 14px;
  }
  .step {
    font-family: var(--serif);
    font-size: clamp(34px, 3.9vw, 58px);
    line-height: 1.12;
    font-weight: 560;
    text-wrap: balance;
    min-height: 3.4em;
  }
  .kind {
    font-size: 22px;
    color: var(--accent);
    font-weight: 600;
  }
  .more {
    font-size: 22px;
    line-height: 1.35;
    color: var(--ink-soft);
  }
  .more b {
    color: var(--ink);
  }
  .keep {
    background: var(--warn-soft);
    color: var(--warn);
    border-radius: var(--r2);
    padding: 12px 16px;
    font-size: 21px;
    line-height: 1.3;
  }
  .body {
    margin: 0;
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: var(--r2);
    padding: 8px;
    min-height: 0;
  }
  figcaption {
    font-size: 15px;
    color: var(--ink-soft);
  }
  .keys {
    display: grid;
    grid-template-columns: 1fr 2.4fr repeat(2, 1fr);
    ${phone} {
      grid-template-columns: 1fr 1fr;
    }
    gap: 10px;
  }
  .keys button {
    font-size: 22px;
    min-height: 72px;
  }
  .dots {
    display: flex;
    gap: 7px;
    flex: 1;
  }
  .dots i {
    width: 26px;
    height: 6px;
    border-radius: 3px;
    background: var(--line);
  }
  .dots i[data-on="true"] {
    background: var(--accent);
  }
`;
export default function Guide({ me }: { me: Schemas["Me"] }) {
  const { muscle = "", side = "left" } = useParams();
  const { core, error, retry } = useCore();
  useTableMode();
  if (error) return <ErrorPanel error={error} onRetry={retry} />;
  if (!core) return <Waiting>Opening the guide…</Waiting>;
  const known = core.lists.muscles.find((m) => m.id === muscle && m.kind !== "anatomy")?.id;
  if (!known || (side !== "left" && side !== "right"))
    return <ErrorPanel error={new Error("The atlas has no such muscle or side to press.")} />;
  return <Steps core={core} muscle={known} side={side} finger={me.finger_cm} />;
}

const kindName: Record<string, string> = {
  text: "Prepare",
  landmark: "Landmark",
  site: "The place",
  strum: "Across the fibres",
  trace: "Along the fibres",
  confirm: "Confirm",
};

/** Steps in which the place itself is shown. */
const late = new Set<string>(["site", "strum", "trace", "confirm"]);

interface Props {
  core: Core;
  muscle: Schemas["MuscleID"];
  side: Schemas["Side"];
  finger?: number;
}

function Steps({ core, muscle, side, finger }: Props) {
  const {
    guide: g,
    steps,
    at,
    step,
    atEnd,
    more,
    next,
    back,
    nextSite,
    leave,
    height,
  } = useSteps(core, muscle, side, finger);
  if (!g || !step) return <Waiting>Opening the guide…</Waiting>;
  const place = g.sites[0];
  const view = step.view || place?.view || "back";
  return (
    <Room $side="54%" $keys="88px" data-step={at}>
      <div className="head">
        <h1>
          {g.name}, {side}
        </h1>
        <span>
          {place?.name}
          {place && place.reach !== "easy" ? ` · reach: ${place.reach}` : ""}
        </span>
        <span className="dots" aria-label={`Step ${at + 1} of ${steps.length}`} role="img">
          {steps.map((s, i) => (
            <i key={s.kind + s.text} data-on={i <= at} />
          ))}
        </span>
      </div>
      <div className="say">
        <p className="kind">
          {kindName[step.kind]}
          {step.landmark ? `: ${plain(step.landmark)}` : ""} · {at + 1} of {steps.length}
        </p>
        <p className="step" aria-live="polite">
          {unbroken(step.text)}
        </p>
        <More g={g} core={core} kind={step.kind} first={at === 0} />
      </div>
      <div className="body">
        <Construction
          view={view}
          core={core}
          g={g}
          steps={steps.slice(0, at + 1)}
          late={late.has(step.kind)}
          side={side}
          height={height}
        />
      </div>
      <div className="keys">
        <Key onPress={back} isDisabled={at === 0}>
          Back<kbd>←</kbd>
        </Key>
        <Key $tone="go" onPress={atEnd ? leave : next}>
          {atEnd ? "Done" : "Next"}
          <kbd>space · pedal</kbd>
        </Key>
        <Key onPress={nextSite} isDisabled={!more}>
          Next site<kbd>S</kbd>
        </Key>
        <Key onPress={leave}>
          Leave<kbd>esc</kbd>
        </Key>
      </div>
    </Room>
  );
}
