import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { Problem } from "../api/client";
import { ErrorPanel } from "./status";

const said = (status: number) =>
  renderToStaticMarkup(<ErrorPanel error={new Problem(status, "No.")} onRetry={() => undefined} />);

describe("an error", () => {
  it("may be over at the next try", () => expect(said(0)).toContain("Try again"));
  it("that is the role's stays", () => expect(said(403)).not.toContain("Try again"));
});
