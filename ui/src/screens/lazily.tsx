// A screen whose script is fetched when it is needed, or ahead of that. Fetched
// ahead, it is there at once: a lazy component would still show "Opening…", and
// keep it for a while.
import { type ComponentType, lazy, useState } from "react";

export function lazily<P extends object>(load: () => Promise<{ default: ComponentType<P> }>) {
  let Here: ComponentType<P> | undefined;
  const fetched = async () => {
    const module = await load();
    Here = module.default;
    return module;
  };
  const Later = lazy(fetched);
  const now = () => Here ?? (Later as ComponentType<P>);
  const Screen = (props: P) => {
    // Decided once: what is mounted stays mounted when the script has come.
    const [Shown] = useState<ComponentType<P>>(now);
    return <Shown {...props} />;
  };
  return Object.assign(Screen, { ahead: () => fetched().catch(() => undefined) });
}
