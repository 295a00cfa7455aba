// How things stand beside each other. Spaces, sizes and radii come from the
// theme's few steps, so that every screen has one rhythm.
import { css, styled } from "styled-components";
import { phone, upright } from "../theme";

type Space = 1 | 2 | 3 | 4 | 5;
interface Spaced {
  $gap?: Space;
}
const gap = css<Spaced>`
  gap: var(--s${(p) => p.$gap ?? 2});
`;

/** One below the other. */
export const Stack = styled.div<Spaced>`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  ${gap}
`;

/** One beside the other, on one line or, wrapped, on several. */
export const Row = styled.div<Spaced & { $wrap?: boolean; $end?: boolean; $align?: string }>`
  display: flex;
  min-width: 0;
  align-items: ${(p) => p.$align ?? "center"};
  flex-wrap: ${(p) => (p.$wrap ? "wrap" : "nowrap")};
  justify-content: ${(p) => (p.$end ? "flex-end" : "flex-start")};
  ${gap}
`;

/** In columns, as a template says. */
export const Columns = styled.div<Spaced & { $cols: string; $align?: string }>`
  display: grid;
  grid-template-columns: ${(p) => p.$cols};
  align-items: ${(p) => p.$align ?? "stretch"};
  ${gap}
`;

/** Takes what room is left in a row. */
export const Fill = styled.div`
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
`;

/** A page's content, away from its edges. */
export const Padded = styled.div`
  padding: var(--s5);
`;

/** Lines of a list of facts, each with a rule above it. */
export const Ruled = styled(Columns)`
  padding: var(--s2) 0;
  border-top: 1px solid var(--line-soft);
`;

/** A list without bullets, and one with. */
export const Plain = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
`;
export const Bullets = styled.ul`
  margin: 0;
  padding-left: var(--s4);
`;

/** What to mind here, each on a line. */
export const Cautions = styled(Bullets)`
  list-style: disc;
  color: var(--warn);
  font-size: var(--t1);
`;

/** A sentence: quieter, smaller, or with a meaning. */
export const Said = styled.p<{
  $tone?: "warn" | "stop" | "other" | "good";
  $small?: boolean;
  $lead?: boolean;
  $fill?: boolean;
  $wide?: boolean;
}>`
  ${(p) => p.$tone && `color: var(--${p.$tone});`}
  ${(p) => p.$small && "font-size: var(--t1);"}
  ${(p) => p.$lead && "font: 400 var(--t3)/1.4 var(--serif);"}
  ${(p) => p.$fill && "flex: 1;"}
  ${(p) => p.$wide && "grid-column: 1 / -1;"}
`;

/** What must not be overlooked. */
export const Notice = styled.div<{ $tone?: "warn" | "stop" }>`
  display: grid;
  gap: var(--s2);
  background: var(--${(p) => p.$tone ?? "warn"}-soft);
  color: var(--${(p) => p.$tone ?? "warn"});
  border-radius: var(--r1);
  padding: var(--s2) var(--s3);
`;

/** A raised part of a page. */
export const Card = styled.section<Spaced>`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  ${gap}
  background: var(--card);
  border: 1px solid var(--line-soft);
  border-radius: var(--r2);
  padding: var(--s4) 20px;
`;

/** A long name goes on in a second line; a name longer than that is cut. */
export const twoLines = css`
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
  overflow-wrap: anywhere;
`;

/** The whole screen at the table: a head, what is worked on with a column
 * beside it, and a row of keys. */
export const TableRoom = styled.main<{ $side: string; $keys: string }>`
  height: 100%;
  min-height: 640px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${(p) => p.$side};
  grid-template-rows: 44px minmax(0, 1fr) ${(p) => p.$keys};
  gap: 14px 24px;
  padding: 14px 26px 18px;
  background: var(--paper);
  color: var(--ink);
  user-select: none;
  > .head,
  > .keys {
    grid-column: 1 / -1;
  }
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr) minmax(400px, 0.9fr) auto;
    > .head {
      flex-wrap: wrap;
    }
  }
  ${phone} {
    height: auto;
    padding: 12px;
  }
`;

/** A picture or the body, as large as it goes, with a column beside it. */
export const BodyAndSide = styled.div<{ $side: string }>`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${(p) => p.$side};
  gap: 0 var(--s4);
  padding: var(--s3) 22px var(--s4);
  > .side {
    overflow: auto;
    min-height: 0;
    display: grid;
    gap: var(--s3);
    align-content: start;
    padding-bottom: var(--s4);
  }
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1.2fr) minmax(0, 1fr);
    gap: var(--s3);
  }
  ${phone} {
    height: auto;
    grid-template-rows: 64vh auto;
    padding: var(--s3);
  }
`;

/** What went wrong, said where it did. */
export const Warned = styled.div`
  display: flex;
  gap: 12px;
  align-items: center;
  background: var(--warn-soft);
  color: var(--warn);
  border-radius: var(--r1);
  padding: 10px 14px;
`;
