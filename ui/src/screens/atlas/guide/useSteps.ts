// The steps of a palpation guide, and the keys and pedal that go through them.
import { useLayoutEffect, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import type { Schemas } from "../../../api/client";
import { useGuide } from "../../../core/useGuide";
import type { Core } from "../../../core/core";

export function useSteps(
  core: Core,
  muscle: Schemas["MuscleID"],
  side: Schemas["Side"],
  finger: number | undefined,
) {
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const height = Number(params.get("height")) || 170;
  const wanted = params.get("site");
  const sites = useGuide(core, { muscle, side }, height, finger)?.sites ?? [];
  const site = sites.find((s) => s.site === wanted)?.site ?? sites[0]?.site;
  const guide = useGuide(core, site ? { muscle, side, site } : undefined, height, finger);
  const steps = guide?.draw ?? [];
  const last = steps.length - 1;
  const [at, setAt] = useState(0);
  const next = () => setAt((n) => Math.min(n + 1, last));
  const back = () => setAt((n) => Math.max(0, n - 1));
  const nextSite = () => {
    const i = sites.findIndex((s) => s.site === site);
    const n = sites[(i + 1) % sites.length];
    setParams({ ...Object.fromEntries(params), site: n?.site ?? "" }, { replace: true });
    setAt(0);
  };
  const leave = () => (history.length > 1 ? go(-1) : go(`/atlas/${muscle}?side=${side}`));
  useGuideKeys({ next, back, nextSite, leave });
  return {
    guide,
    height,
    steps,
    at,
    step: steps[Math.min(at, last)],
    atEnd: at === last,
    more: sites.length > 1,
    next,
    back,
    nextSite,
    leave,
  };
}

type Acts = Record<"next" | "back" | "nextSite" | "leave", () => void>;

/** Pedals send Space, Enter or the page keys. */
function useGuideKeys({ next, back, nextSite, leave }: Acts) {
  useLayoutEffect(() => {
    const acts: Record<string, () => void> = {
      " ": next,
      Enter: next,
      ArrowRight: next,
      PageDown: next,
      ArrowLeft: back,
      PageUp: back,
      Backspace: back,
      s: nextSite,
      Escape: leave,
    };
    const keys = (e: KeyboardEvent) => {
      const act = acts[e.key];
      if (!act) return;
      e.preventDefault();
      e.stopPropagation();
      act();
    };
    // Before any control takes the key for itself.
    addEventListener("keydown", keys, { capture: true });
    return () => removeEventListener("keydown", keys, { capture: true });
  });
}
