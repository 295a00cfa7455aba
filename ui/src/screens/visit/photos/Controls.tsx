// What is done with a photograph: landmarks dropped, a grid, another beside it.
import { styled } from "styled-components";
import { Card, Choice, Pick, Search, Slide, ErrorPanel } from "../../../parts/controls";
import { day, plain, sentence } from "../../../parts/words";
import { dropped, type Marks, missing } from "./marks";
import type { Beside } from "./beside";
import type { Photo } from "./take";

const Title = styled.h1`
  font-size: 22px;
`;

interface Props {
  photo: Photo;
  others: Photo[];
  marks: Marks;
  onMarks: (m: Marks) => void;
  beside: Beside;
  onBeside: (b: Beside) => void;
  error?: Error;
  zone: string;
}

export function Controls({ photo, others, marks, onMarks, beside, onBeside, error, zone }: Props) {
  const left = missing(photo, marks);
  const second = others.some((o) => o.id === beside.other);
  return (
    <Card $gap={3}>
      <Title>
        {sentence(photo.view)}, {day(photo.starts_at, zone)}
      </Title>
      <p className="quiet">
        Drag a mark, or nudge it with the arrow keys (Shift for ten). The two ends of the plumb go onto the
        line that hangs.
      </p>
      {error && <ErrorPanel error={error} />}
      <Search
        key={left.length}
        label="Add a landmark"
        none="choose one"
        value={undefined}
        options={left}
        describe={(l) => sentence(plain(l))}
        onPick={(l) => l && onMarks(dropped(photo, marks, l))}
      />
      <Choice
        quiet
        label="Grid"
        value={beside.grid ? "grid" : "no grid"}
        options={["grid", "no grid"]}
        onChoose={(g) => onBeside({ ...beside, grid: g === "grid" })}
      />
      {others.length > 0 && (
        <Pick
          label="Beside it"
          none="no second picture"
          value={beside.other}
          options={others.map((o) => o.id)}
          describe={(o) => day(others.find((x) => x.id === o)?.starts_at ?? "", zone)}
          onPick={(other) => onBeside({ ...beside, other })}
        />
      )}
      {second && (
        <Choice
          quiet
          label="How to compare"
          value={beside.how}
          options={["side by side", "swiped"] as const}
          onChoose={(how) => onBeside({ ...beside, how })}
        />
      )}
      {second && beside.how === "swiped" && (
        <Slide label="Swipe" value={beside.cut} onSlide={(cut) => onBeside({ ...beside, cut })} />
      )}
    </Card>
  );
}
