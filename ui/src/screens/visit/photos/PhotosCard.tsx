// Posture photographs of a visit: taken in, and opened for measuring.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button as AriaButton, FileTrigger } from "react-aria-components";
import { Link } from "react-router";
import { styled } from "styled-components";
import { usePhotos } from "../../../api/queries";
import { Card, ErrorPanel } from "../../../parts/controls";
import { sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { type Photo, takeIn, views } from "./take";

const Slots = styled.div`
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
  .slot {
    display: grid;
    gap: 6px;
    align-content: start;
  }
  img {
    width: 100%;
    aspect-ratio: 7 / 11;
    object-fit: cover;
    border-radius: var(--r1);
    border: 1px solid var(--line);
    display: block;
  }
  .add {
    display: grid;
    place-items: center;
    aspect-ratio: 7 / 11;
    background: var(--paper);
    border: 1.5px dashed var(--line);
    border-radius: var(--r1);
    cursor: pointer;
    color: var(--ink-soft);
    font-weight: 560;
    text-align: center;
    padding: 6px;
  }
`;

export function PhotosCard({ visit }: StepProps) {
  const { id } = visit.open.visit;
  const client = visit.open.client.id;
  const queries = useQueryClient();
  const photos = usePhotos(client);
  const [error, setError] = useState<Error>();
  const [busy, setBusy] = useState<string>();
  const add = async (view: string, file: File | undefined) => {
    if (!file) return;
    setError(undefined);
    setBusy(view);
    try {
      await takeIn(id, view, file);
      await queries.invalidateQueries({ queryKey: ["photos", client] });
    } catch (e) {
      setError(e as Error);
    }
    setBusy(undefined);
  };
  return (
    <Card data-photos>
      <h2>Photographs</h2>
      <p className="quiet">
        Feet hip-width apart; march on the spot, eyes shut, arms hanging, one breath out. Where a picture was
        taken is not kept.
      </p>
      {error && <ErrorPanel error={error} />}
      <Slots>
        {views.map((v) => (
          <Slot
            key={v}
            view={v}
            visit={id}
            photos={photos.data?.items.filter((p) => p.view === v) ?? []}
            busy={busy === v}
            onFile={(f) => void add(v, f)}
          />
        ))}
      </Slots>
    </Card>
  );
}

interface SlotProps {
  view: string;
  visit: string;
  photos: Photo[];
  busy: boolean;
  onFile: (f: File | undefined) => void;
}

function Slot({ view, visit, photos, busy, onFile }: SlotProps) {
  const here = photos.find((p) => p.visit === visit);
  const earlier = photos.find((p) => p.visit !== visit);
  const room = (p: Photo) => `/visits/${visit}/photo/${p.id}`;
  return (
    <div className="slot" data-view={view}>
      {here ? (
        <Link to={room(here)}>
          <img src={`/api/photos/${here.id}/thumb`} alt={`${sentence(view)}, measure it`} />
        </Link>
      ) : (
        <FileTrigger acceptedFileTypes={["image/jpeg", "image/png"]} onSelect={(l) => onFile(l?.[0])}>
          <AriaButton className="add" aria-label={`Add ${view} photograph`}>
            {busy ? "Taking in…" : `Add ${view}`}
          </AriaButton>
        </FileTrigger>
      )}
      <span className="quiet small">
        {sentence(view)}
        {earlier && (
          <>
            {" · "}
            <Link to={room(earlier)}>earlier</Link>
          </>
        )}
      </span>
    </div>
  );
}
