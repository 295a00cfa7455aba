// A photograph with its plumb line, landmarks and grid, in its own pixels.
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { styled } from "styled-components";
import { placeOn } from "../../../body/views";
import { plain, sentence } from "../../../parts/words";
import { joined, type Marks, moved, plumbOf, points, rollOf } from "./marks";
import type { Photo } from "./take";

const Svg = styled.svg`
  [data-point] {
    cursor: grab;
  }
  [data-point]:focus {
    outline: none;
  }
  [data-point]:focus-visible circle {
    stroke: var(--focus);
    stroke-width: 5;
  }
`;

interface Props {
  photo: Photo;
  marks?: Marks;
  grid: boolean;
  onMarks?: (m: Marks) => void;
  /** Laid over, from cut percent of the width on. */
  over?: Photo;
  cut?: number;
}

const nudges: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export function Picture({ photo, marks, grid, onMarks, over, cut = 50 }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<string>();
  const k = photo.height / 1000;
  const list = useMemo(() => (marks ? points(marks) : []), [marks]);
  const move = (id: string, x: number, y: number) => {
    if (marks && onMarks) onMarks(moved(photo, marks, id, x, y));
  };
  const keys = (id: string, at: number[]) => (e: KeyboardEvent) => {
    const d = nudges[e.key];
    if (!d) return;
    e.preventDefault();
    const by = e.shiftKey ? 10 : 1;
    move(id, (at[0] ?? 0) + d[0] * by, (at[1] ?? 0) + d[1] * by);
  };
  return (
    <Svg
      ref={svg}
      viewBox={`0 0 ${photo.width} ${photo.height}`}
      aria-label={`Photograph, ${photo.view}`}
      role="group"
      onPointerMove={(e) => {
        if (!drag) return;
        const p = placeOn(svg.current, e);
        move(drag, p.x, p.y);
      }}
      onPointerUp={() => setDrag(undefined)}
      onPointerCancel={() => setDrag(undefined)}
    >
      <image href={`/api/photos/${photo.id}/image`} width={photo.width} height={photo.height} />
      {over && <Over photo={photo} over={over} cut={cut} k={k} />}
      {grid && <Grid photo={photo} roll={marks ? rollOf(marks) : 0} k={k} />}
      {marks && <Lines marks={marks} k={k} />}
      {list.map(([id, at]) => (
        <g
          key={id}
          data-point={id}
          tabIndex={onMarks ? 0 : undefined}
          role={onMarks ? "button" : "img"}
          aria-label={`${nameOf(id)}; arrow keys nudge`}
          transform={`translate(${at[0]} ${at[1]})`}
          onKeyDown={keys(id, at)}
          onPointerDown={(e) => {
            if (!onMarks) return;
            svg.current?.setPointerCapture(e.pointerId);
            setDrag(id);
          }}
        >
          <circle
            r={id.startsWith("plumb") ? 9 * k : 8 * k}
            fill={id.startsWith("plumb") ? "#ffd27a" : "#2f5d54"}
            fillOpacity={0.85}
            stroke="#fff"
            strokeWidth={2.4 * k}
          />
        </g>
      ))}
    </Svg>
  );
}

const ends: Record<string, string> = { "plumb-0": "plumb, upper end", "plumb-1": "plumb, lower end" };
const nameOf = (id: string) => sentence(ends[id] ?? plain(id));

/** The second picture, over the right part of the first. */
function Over({ photo, over, cut, k }: { photo: Photo; over: Photo; cut: number; k: number }) {
  const x = (photo.width * cut) / 100;
  return (
    <>
      <clipPath id={`cut-${over.id}`}>
        <rect x={x} width={photo.width} height={photo.height} />
      </clipPath>
      <image
        href={`/api/photos/${over.id}/image`}
        width={photo.width}
        height={photo.height}
        clipPath={`url(#cut-${over.id})`}
      />
      <line x1={x} x2={x} y1={0} y2={photo.height} stroke="#fff" strokeWidth={2 * k} />
    </>
  );
}

/** Grid lines follow the plumb, not the camera. */
function Grid({ photo: { width, height }, roll, k }: { photo: Photo; roll: number; k: number }) {
  const lines = Array.from({ length: 23 }, (_, i) => i);
  const step = height / 20;
  return (
    <g
      transform={`rotate(${roll} ${width / 2} ${height / 2})`}
      stroke="#ffffff"
      strokeOpacity={0.45}
      strokeWidth={k}
      aria-hidden
    >
      {lines.map((i) => (
        <line key={`h${i}`} x1={-width} x2={width * 2} y1={step * (i - 1)} y2={step * (i - 1)} />
      ))}
      {lines.map((i) => {
        const x = width / 2 + step * (i - 11);
        return <line key={`v${i}`} y1={-height} y2={height * 2} x1={x} x2={x} />;
      })}
    </g>
  );
}

/** The plumb line, and what joins both sides. */
function Lines({ marks, k }: { marks: Marks; k: number }) {
  const look = { stroke: "#ffd27a", strokeWidth: 2.6 * k };
  const [top, low] = plumbOf(marks);
  return (
    <>
      <line x1={top[0]} y1={top[1]} x2={low[0]} y2={low[1]} {...look} />
      {joined.map((l) => {
        const a = marks.landmarks[`${l}-left`];
        const b = marks.landmarks[`${l}-right`];
        return (
          a &&
          b && (
            <line
              key={l}
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              {...look}
              strokeDasharray={`${8 * k} ${5 * k}`}
            />
          )
        );
      })}
    </>
  );
}
