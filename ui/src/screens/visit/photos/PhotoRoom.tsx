// A photograph measured: marks dragged onto it, another date laid beside or over.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../../api/client";
import { usePhotos } from "../../../api/queries";
import { Failed, Waiting } from "../../../parts/controls";
import { BodyAndSide } from "../../../parts/layout";
import type { Beside } from "./beside";
import { Controls } from "./Controls";
import { Measured } from "./Measured";
import { Picture } from "./Picture";
import { Removal } from "./Removal";
import type { Photo } from "./take";
import { useMarks } from "./useMarks";

const Stage = styled.div`
  background: var(--card);
  border: 1px solid var(--line-soft);
  border-radius: var(--r2);
  padding: 10px;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 10px;
  min-height: 0;
  svg {
    width: 100%;
    height: 100%;
    touch-action: none;
  }
`;

export default function PhotoRoom({ me }: { me: Schemas["Me"] }) {
  const { id = "", photo = "" } = useParams();
  const visit = useQuery({
    queryKey: ["visit", id],
    queryFn: () => must(api.GET("/api/visits/{id}", { params: { path: { id } } })),
  });
  const photos = usePhotos(visit.data?.client.id ?? "");
  if (visit.error) return <Failed error={visit.error} onRetry={() => visit.refetch()} />;
  if (!visit.data || !photos.data) return <Waiting>Opening the picture…</Waiting>;
  const p = photos.data.items.find((x) => x.id === photo);
  if (!p) return <Failed error={new Error("There is no such photograph, or it was removed.")} />;
  return (
    <Measure
      key={p.id}
      me={me}
      photo={p}
      visit={id}
      client={visit.data.client}
      others={photos.data.items.filter((x) => x.view === p.view && x.id !== p.id)}
    />
  );
}

interface Props {
  me: Schemas["Me"];
  photo: Photo;
  visit: string;
  client: Schemas["Client"];
  others: Photo[];
}

function Measure({ me, photo, visit, client, others }: Props) {
  const queries = useQueryClient();
  const { marks, keep, saved, error } = useMarks(photo, client.height_cm);
  const [beside, setBeside] = useState<Beside>({
    grid: true,
    other: others[0]?.id,
    how: "side by side",
    cut: 50,
  });
  useEffect(
    () => () => {
      void queries.invalidateQueries({ queryKey: ["photos", client.id] });
    },
    [queries, client.id],
  );
  const second = others.find((o) => o.id === beside.other);
  const swiped = beside.how === "swiped" ? second : undefined;
  return (
    <BodyAndSide $side="396px">
      <Stage>
        <Picture
          photo={photo}
          marks={marks}
          grid={beside.grid}
          onMarks={keep}
          over={swiped}
          cut={beside.cut}
        />
        {second && !swiped && <Picture photo={second} marks={second.marks} grid={beside.grid} />}
      </Stage>
      <div className="side">
        <Controls
          photo={photo}
          others={others}
          marks={marks}
          onMarks={keep}
          beside={beside}
          onBeside={setBeside}
          error={error}
          zone={me.time_zone}
        />
        <Measured photo={saved} second={second} zone={me.time_zone} />
        <Removal photo={photo.id} visit={visit} />
      </div>
    </BodyAndSide>
  );
}
