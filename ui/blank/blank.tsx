// A page with nothing on it, of the same framework: what opening a screen is measured against.
// Only the benchmark builds and serves it (Makefile, e2e/openings_test.go).
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { styled } from "styled-components";

const Blank = styled.main`
  min-height: 100vh;
`;

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <Blank data-blank />
  </StrictMode>,
);
