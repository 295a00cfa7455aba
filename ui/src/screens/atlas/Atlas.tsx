// The atlas: find a muscle by name, by where it hurts, or see what to keep
// off; the body beside it shows what is meant.
import { useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { useCore } from "../../core/useCore";
import { Card, Choice, Failed, Waiting, bare } from "../../parts/controls";
import { AtlasBody } from "./AtlasBody";
import { ByName } from "./ByName";
import { ByPain } from "./ByPain";
import { useStructures } from "./drawn";
import { Facts } from "./Facts";
import { KeepOff, Structure } from "./KeepOff";
import { type Mode, modes } from "./modes";
import { type AtlasView, useAtlas } from "./useAtlas";
import { phone, upright } from "../../theme";

const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 286px minmax(0, 1fr) 396px;
  gap: 16px;
  padding: 14px 20px 16px;
  min-height: 600px;
  > * {
    min-height: 0;
    min-width: 0;
  }
  .left {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    gap: 10px;
  }
  .list {
    overflow: auto;
    list-style: none;
    margin: 0;
    padding: 2px;
    display: grid;
    gap: 2px;
    align-content: start;
  }
  .list button {
    ${bare}
    width: 100%;
    border-radius: var(--r1);
    padding: 7px 10px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 8px;
  }
  .list button:hover {
    background: var(--line-soft);
  }
  .list button[aria-current="true"] {
    background: var(--accent-soft);
    color: var(--accent);
  }
  .list small {
    color: var(--ink-soft);
    font-size: var(--t1);
  }
  .list li.quiet {
    padding: 10px;
  }
  .list i {
    grid-column: 1 / -1;
    height: 3px;
    border-radius: 2px;
    background: var(--usual);
    margin-top: 4px;
  }
  .body {
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: var(--r2);
    padding: 10px 12px 4px;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
  }
  .tools {
    display: flex;
    gap: 10px 14px;
    flex-wrap: wrap;
    align-items: end;
    justify-content: space-between;
    padding-bottom: 6px;
  }
  .right {
    overflow: auto;
    display: grid;
    gap: 12px;
    align-content: start;
    padding-right: 4px;
  }
  ${upright} {
    grid-template-columns: 286px minmax(0, 1fr);
    grid-template-rows: minmax(300px, 44vh) minmax(0, 1fr);
    .body {
      grid-area: 1 / 1 / 2 / -1;
    }
  }
  ${phone} {
    height: auto;
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 60vh auto;
    padding: 12px;
    .body {
      grid-area: auto;
    }
    .list {
      max-height: 40vh;
    }
  }
`;

const nothing: Schemas["OwnAtlas"] = { notes: [], sites: [] };

export default function Atlas() {
  const { core, error, retry } = useCore();
  const own = useQuery({ queryKey: ["own-atlas"], queryFn: () => must(api.GET("/api/atlas")) });
  if (error) return <Failed error={error} onRetry={retry} />;
  if (!core) return <Waiting>Opening the atlas…</Waiting>;
  return <Open core={core} own={own.data ?? nothing} />;
}

function Open({ core, own }: { core: Core; own: Schemas["OwnAtlas"] }) {
  const atlas = useAtlas(core);
  const { mode, setMode, guide } = atlas;
  return (
    <Room>
      <div className="left">
        <h1 className="away">Atlas</h1>
        <Choice label="Find" quiet value={mode} options={modes} onChoose={setMode} />
        {mode === "By name" && <ByName atlas={atlas} />}
        {mode === "By pain" && <ByPain atlas={atlas} />}
        {mode === "Keep off" && <KeepOff atlas={atlas} />}
      </div>
      <AtlasBody atlas={atlas} sites={own.sites.filter((s) => s.muscle === guide?.muscle)} />
      <div className="right">
        <Beside atlas={atlas} own={own} />
      </div>
    </Room>
  );
}

/** What is known of the chosen muscle or structure. */
function Beside({ atlas, own }: { atlas: AtlasView; own: Schemas["OwnAtlas"] }) {
  const { mode, keep, guide } = atlas;
  const structures = useStructures(atlas);
  if (mode === "Keep off") {
    const chosen = structures.find((s) => s.structure === keep);
    if (chosen) return <Structure s={chosen} />;
  } else if (guide) return <Facts key={guide.muscle} atlas={atlas} guide={guide} own={own} />;
  return guide ? null : <Begin mode={mode} />;
}

function Begin({ mode }: { mode: Mode }) {
  return (
    <Card>
      <h2>{mode === "By pain" ? "Touch the place" : "Choose a muscle"}</h2>
      <p className="quiet">
        {mode === "By pain" ? (
          <>
            Touch the body where it hurts. The muscles whose usual pattern covers that place are listed,
            nearest first.
          </>
        ) : (
          <>
            Touch one on the body, or take it from the list. Referral patterns differ from person to person: a
            guide, never proof.
          </>
        )}
      </p>
    </Card>
  );
}
