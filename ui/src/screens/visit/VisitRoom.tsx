// The room of a visit: the path above, the body and what is done beside it, or below it where
// the screen is upright.
import { styled } from "styled-components";
import { phone, upright } from "../../theme";
import type { Body } from "./body/useBody";
import type { Path } from "./steps";

export const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: clamp(520px, 46.25vw, 940px) minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  gap: 12px 18px;
  padding: 12px 22px 16px;
  min-height: 600px;
  .panel {
    /* What is reached by keys is not hidden by a form's last row. */
    scroll-padding-bottom: 100px;
    overflow: auto;
    min-height: 0;
    display: grid;
    gap: 14px;
    align-content: start;
    padding: 2px 4px 16px 2px;
  }
  .panel[data-hands="true"] {
    --touch: 56px;
  }
  .compare {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 4px 14px;
    margin: 0;
  }
  .compare dt {
    color: var(--ink-soft);
  }
  .compare dd {
    margin: 0;
  }
  .caution {
    background: var(--warn-soft);
    color: var(--warn);
    border-radius: var(--r1);
    padding: 8px 12px;
    font-weight: 520;
  }
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(300px, 46vh) minmax(0, 1fr);
    /* What is read and written there needs the room more. */
    &[data-body="aside"] {
      grid-template-rows: auto minmax(280px, 30vh) minmax(0, 1fr);
    }
    /* All that is said of a point is in sight, and the body is close. */
    &[data-body="charted"] {
      grid-template-rows: auto minmax(280px, 33vh) minmax(0, 1fr);
    }
  }
  ${phone} {
    height: auto;
    grid-template-rows: auto 56vh auto;
    padding: 10px 12px 24px;
    .panel {
      overflow: visible;
    }
  }
`;
/** As high as the head that comes in its place. */
export const OpeningHead = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  min-height: 44px;
  display: flex;
  align-items: center;
`;

/** Steps in which the body is looked at and not touched. */
const aside: ReadonlySet<string> = new Set(["recheck", "close", "plan", "last"]);
const isAside = ({ step, part }: Path) => aside.has(step) || (step === "measure" && part !== "signs");

/** How much room the body has beside what is read and written. */
export function bodyOf(path: Path, { aim, selected, answering }: Body) {
  if (path.step === "find" && (aim?.candidate || selected) && !answering.saying) return "charted";
  return isAside(path) ? "aside" : "worked on";
}
