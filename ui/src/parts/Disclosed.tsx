// What is shown when asked for.
import { ChevronRight } from "lucide-react";
import type { ReactNode } from "react";
import { Button, Disclosure, DisclosurePanel, Heading } from "react-aria-components";
import { styled } from "styled-components";
import { bare } from "./Button";

const Shown = styled(Disclosure)`
  min-width: 0;
  h3 {
    font: inherit;
    letter-spacing: 0;
  }
  h3 > button {
    display: inline-flex;
    align-items: center;
    gap: var(--s1);
    min-height: var(--touch);
    ${bare}
    color: var(--ink-soft);
  }
  svg.chevron {
    flex: none;
    transition: rotate 120ms;
  }
  &[data-expanded] svg.chevron {
    rotate: 90deg;
  }
`;
const Panel = styled(DisclosurePanel)`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s2);
  &[hidden] {
    display: none;
  }
`;

export function Disclosed({
  summary,
  open,
  children,
  ...data
}: {
  summary: ReactNode;
  /** Open from the start. */
  open?: boolean;
  children: ReactNode;
  [data: `data-${string}`]: string | boolean | undefined;
}) {
  return (
    <Shown defaultExpanded={open} {...data}>
      <Heading level={3}>
        <Button slot="trigger">
          <ChevronRight className="chevron" size={15} aria-hidden />
          <span>{summary}</span>
        </Button>
      </Heading>
      <Panel>{children}</Panel>
    </Shown>
  );
}
