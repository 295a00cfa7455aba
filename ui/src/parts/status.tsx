// That something went wrong, or is on its way.
import type { ReactNode } from "react";
import { Problem } from "../api/client";
import { Button } from "./Button";
import { Padded, Warned } from "./layout";

/** What one's role does not allow stays refused; all else may be over. */
const mayHelp = (e: Error) => !(e instanceof Problem) || e.status !== 403;

export function ErrorPanel({ error, onRetry }: { error: Error; onRetry?: () => void }) {
  return (
    <Warned role="alert">
      <span>{error.message}</span>
      {onRetry && mayHelp(error) && <Button onPress={onRetry}>Try again</Button>}
    </Warned>
  );
}

export const Waiting = ({ children }: { children: ReactNode }) => (
  <Padded as="p" className="quiet" role="status">
    {children}
  </Padded>
);

/** A screen that cannot be shown, with the way to try again. */
export const Failed = ({ error, onRetry }: { error: Error; onRetry?: () => void }) => (
  <Padded>
    <ErrorPanel error={error} onRetry={onRetry} />
  </Padded>
);
