// What a file comes to, before anything is taken in.
import type { Schemas } from "../../api/client";
import { Button } from "../../parts/controls";
import { Bullets, Notice, Row, Said, Stack } from "../../parts/layout";
import { count } from "../../parts/words";

interface Props {
  seen: Schemas["Preview"];
  name?: string;
  busy: boolean;
  onTake?: () => void;
  onLeave: () => void;
}

export function PreviewOf({ seen, name, busy, onTake, onLeave }: Props) {
  const { problems, left, shown, counts } = seen;
  if (seen.import)
    return (
      <Said role="status" $tone="good">
        Imported: {count(counts.clients, "client")}, {count(counts.visits, "visit")}
        {counts.set > 0 && `, ${count(counts.set, "setting")} of the practice`}.
        {counts.aside > 0 &&
          ` ${count(counts.aside, "entry", "entries")} did not stand here and are shown aside.`}
      </Said>
    );
  if (problems.length > 0)
    return (
      <Notice $tone="stop" role="alert">
        <b>Nothing is imported: {name ?? "the file"} has something wrong.</b>
        <Bullets>
          {problems.map((p, i) => (
            <li key={i}>
              {p.row ? `Row ${p.row}, ` : ""}
              {p.field}
              {p.given && ` (“${p.given}”)`}: {p.text}
            </li>
          ))}
        </Bullets>
        <Row>
          <Button onPress={onLeave}>Cancel</Button>
        </Row>
      </Notice>
    );
  return (
    <Stack $gap={2} data-preview>
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
      {left.length > 0 && (
        <Said className="quiet">
          Not understood and left out: {left.map((l) => `${l.what} (${l.n})`).join(", ")}.
        </Said>
      )}
      {counts.aside > 0 && (
        <Said $tone="warn">
          {count(counts.aside, "entry", "entries")} of it would not have been allowed here; they are kept
          aside and count nowhere.
        </Said>
      )}
      <Row $gap={3}>
        <Button $kind="main" isDisabled={busy} onPress={onTake}>
          Import
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
      </Row>
    </Stack>
  );
}
