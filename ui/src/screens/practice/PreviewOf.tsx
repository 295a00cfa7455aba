// What a file comes to, before anything is taken in.
import type { Schemas } from "../../api/client";
import { TableColumns } from "./TableColumns";
import type { Said as SaidOf } from "./imported";
import { Button } from "../../parts/controls";
import { Bullets, Notice, Row, Said, Stack } from "../../parts/layout";
import { count } from "../../parts/words";

interface Props {
  seen: Schemas["Preview"];
  name?: string;
  busy: boolean;
  /** What was said of the file so far; onSay looks at it anew. */
  said?: SaidOf;
  onSay?: (over: Partial<SaidOf>) => void;
  onTake?: () => void;
  onLeave: () => void;
}

export function PreviewOf({ seen, name, busy, said, onSay, onTake, onLeave }: Props) {
  const { problems, counts } = seen;
  if (seen.import)
    return (
      <Said role="status" $tone="good">
        Imported: {count(counts.clients, "client")}, {count(counts.visits, "visit")}
        {counts.set > 0 && `, ${count(counts.set, "setting")} of the practice`}.
        {counts.aside > 0 &&
          ` ${count(counts.aside, "entry", "entries")} did not stand here and are shown aside.`}
      </Said>
    );
  return (
    <Stack $gap={2} data-preview>
      {/* In one place whatever the file comes to, so that a list that is open stays open. */}
      {said && onSay && <TableColumns seen={seen} said={said} busy={busy} onSay={onSay} />}
      {problems.length > 0 ? (
        <Wrong {...{ seen, name, busy, said, onSay, onLeave }} />
      ) : (
        <Brings {...{ seen, name, busy, onTake, onLeave }} />
      )}
    </Stack>
  );
}

/** What the file brings, and what is left out. */
function Brings({ seen, name, busy, onTake, onLeave }: Omit<Props, "said" | "onSay">) {
  const { left, shown, counts } = seen;
  const nothing = counts.clients + counts.visits + counts.photos + counts.set === 0;
  return (
    <>
      <p>
        <b>{name}</b> brings {count(counts.clients, "client")}, {count(counts.visits, "visit")} and{" "}
        {count(counts.photos, "photograph")}. Nothing that is here is changed.
      </p>
      <Bullets>
        {shown.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </Bullets>
      {counts.set + counts.stayed > 0 && (
        <p>
          {count(counts.set, "setting")} of the other practice: weights, thresholds, protocols, notes and
          sites.
          {counts.stayed > 0 && ` ${count(counts.stayed, "is", "are")} set otherwise here and left so.`}
        </p>
      )}
      {left.length > 0 && <LeftOut left={left} />}
      {counts.aside > 0 && (
        <Said $tone="warn">
          {count(counts.aside, "entry", "entries")} of it would not have been allowed here; they are kept
          aside and count nowhere.
        </Said>
      )}
      <Row $gap={3}>
        <Button $kind="main" isDisabled={busy || nothing} onPress={onTake}>
          Import
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
      </Row>
    </>
  );
}

/** What stands against it; bad entries can be left out. */
function Wrong({ seen, name, busy, said, onSay, onLeave }: Omit<Props, "onTake">) {
  const { problems } = seen;
  const rows = [...new Set(problems.flatMap((p) => (p.row ? [p.row] : [])))];
  return (
    <Stack $gap={3} data-preview>
      {said && onSay && <TableColumns seen={seen} said={said} busy={busy} onSay={onSay} />}
      <Notice $tone="stop" role="alert">
        <b>Nothing is imported yet: {name ?? "the file"} has something wrong.</b>
        <Bullets>
          {problems.map((p, i) => (
            <li key={i}>
              {p.row ? `${seen.columns ? "Row" : "Entry"} ${p.row}, ` : ""}
              {p.field}
              {p.given && ` (“${p.given}”)`}: {p.text}
            </li>
          ))}
        </Bullets>
        <Row $wrap>
          {said && onSay && rows.length > 0 && (
            <Button isDisabled={busy} onPress={() => onSay({ leave: [...said.leave, ...rows] })}>
              Leave {rows.length === 1 ? "this entry" : `these ${rows.length} entries`} out
            </Button>
          )}
          <Button onPress={onLeave}>Cancel</Button>
        </Row>
      </Notice>
    </Stack>
  );
}

function LeftOut({ left }: { left: Schemas["OmittedCount"][] }) {
  const n = left.reduce((sum, l) => sum + l.n, 0);
  return (
    <details open={left.length < 6}>
      <summary>Left out: {count(n, "thing")}</summary>
      <Bullets>
        {left.map((l) => (
          <li key={l.what}>{leftWords(l)}</li>
        ))}
      </Bullets>
    </details>
  );
}

/** What is left out, how often, and in which entries. */
function leftWords({ what, n, at = [] }: Schemas["OmittedCount"]) {
  const more = n > at.length ? " and more" : "";
  const places = at.length ? `: ${at.join("; ")}${more}` : "";
  return `${what}${n > 1 ? ` (${n})` : ""}${places}`;
}
