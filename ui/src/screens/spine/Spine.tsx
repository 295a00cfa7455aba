// The spine finder: a landmark gives a level, a level gives what lies one and
// two finger-widths beside it.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { useCore } from "../../core/useCore";
import { Button, Card, Failed, Waiting } from "../../parts/controls";
import { BodyAndSide, Row, Said } from "../../parts/layout";
import { plain, sentence } from "../../parts/words";
import { lengthWords, useUnitPreferences } from "../../parts/unitPreferences";
import { Finger } from "./Finger";
import { type Beside, landmarks, usualFingerCM } from "./levels";
import { SpineBody } from "./SpineBody";
import { type Spine as Chosen, useSpine } from "./useSpine";

const Room = styled(BodyAndSide)`
  .body {
    margin: 0;
    min-height: 0;
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: var(--r2);
    padding: 8px;
    display: grid;
    justify-items: center;
    grid-template-rows: minmax(0, 1fr) auto;
  }
  .body svg {
    height: 100%;
    max-width: 100%;
    cursor: pointer;
    outline-offset: -3px;
    border-radius: 12px;
  }
  .marks {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
  .big {
    font-family: var(--serif);
    font-size: 64px;
    line-height: 1;
    font-weight: 600;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  td,
  th {
    text-align: left;
    padding: 7px 8px 7px 0;
    border-top: 1px solid var(--line-soft);
    vertical-align: top;
  }
  th small {
    font-size: inherit;
    font-weight: 400;
  }
  th {
    font-weight: 560;
    color: var(--ink-soft);
    width: 150px;
  }
`;

export default function Spine({ me }: { me: Schemas["Me"] }) {
  const { core, error, retry } = useCore();
  if (error) return <Failed error={error} onRetry={retry} />;
  if (!core) return <Waiting>Opening the spine…</Waiting>;
  return <Finder core={core} me={me} />;
}

function Finder({ core, me }: { core: Core; me: Schemas["Me"] }) {
  const finger = me.finger_cm ?? usualFingerCM;
  const spine = useSpine(core, finger);
  return (
    <Room $side="470px">
      <figure className="body">
        <SpineBody core={core} spine={spine} finger={finger} />
        <figcaption className="quiet small">
          Touch a landmark or a spinous tip. Bars are your finger-widths.
        </figcaption>
      </figure>
      <div className="side">
        <h1 className="away">Spine finder</h1>
        <Level spine={spine} />
        <Card>
          <h2>Landmarks</h2>
          <div className="marks">
            {landmarks.map((l) => (
              <Button
                key={l.id}
                aria-pressed={spine.by === l.id}
                $kind={spine.by === l.id ? "main" : "plain"}
                onPress={() => spine.byLandmark(l.id)}
              >
                {l.name}
              </Button>
            ))}
          </div>
        </Card>
        <BesideTable level={spine.level} beside={spine.beside} />
        <Finger me={me} />
      </div>
    </Room>
  );
}

/** The level, how it was found, and how far it is from another. */
function Level({ spine: { level, found, from, steps, count } }: { spine: Chosen }) {
  return (
    <Card>
      <Row $gap={4}>
        <span className="big" data-level>
          {level}
        </span>
        <Said $fill>
          {found && found.level === level ? found.text : "Chosen on the spine."}{" "}
          <span className="quiet">Palpated levels are ± 1.</span>
        </Said>
      </Row>
      <Row $wrap>
        <Button onPress={count}>Count from {level}</Button>
        {from && (
          <p aria-live="polite">
            {steps === 0
              ? `Counting from ${from}: touch another level.`
              : `${level} is ${Math.abs(steps)} ${steps > 0 ? "below" : "above"} ${from}.`}
          </p>
        )}
      </Row>
    </Card>
  );
}

function BesideTable({ level, beside }: { level: string; beside: Beside[] }) {
  const w = useUnitPreferences();
  return (
    <Card>
      <h2>Beside {level}</h2>
      <table data-beside>
        <tbody>
          {beside.map((b) => (
            <tr key={b.name}>
              <th scope="row">
                {b.name}
                <br />
                <small>{b.out && b.at.out_cm !== undefined ? lengthWords(b.at.out_cm, w) : ""}</small>
              </th>
              <td>
                <b>
                  {sentence(plain(b.at.structure ?? ""))}
                  {b.at.level !== level && b.at.structure !== "soft-tissue" ? ` of ${b.at.level}` : ""}
                </b>
                <br />
                <span className="quiet">{b.at.text}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Card>
  );
}
