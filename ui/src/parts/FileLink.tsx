// A file that the server makes: says that it is at work and how much has come, and why
// there is none. It stays a link, so that it opens elsewhere as links do.
import { type MouseEvent, type ReactNode, useState } from "react";
import { styled } from "styled-components";
import { fileOf } from "../api/file";
import { keepFile } from "./keepFile";
import { Said } from "./layout";
import { useTry } from "./useTry";

const Link = styled.a`
  &[aria-busy="true"] {
    color: var(--ink-soft);
    cursor: progress;
  }
`;

export function FileLink({ href, children }: { href: string; children: ReactNode }) {
  const [bytes, setBytes] = useState(0);
  const { error, busy, run } = useTry();
  const fetchIt = (e: MouseEvent) => {
    if (e.metaKey || e.ctrlKey || e.shiftKey) return;
    e.preventDefault();
    if (busy) return;
    setBytes(0);
    void run(async () => keepFile(await fileOf(href, setBytes)));
  };
  return (
    <span data-file>
      <Link href={href} download aria-busy={busy} onClick={fetchIt}>
        {children}
      </Link>
      {busy && (
        <Said as="span" $small className="quiet" role="status">
          {bytes ? ` ${sizeOf(bytes)} so far…` : " being made…"}
        </Said>
      )}
      {error && (
        <Said as="span" $small $tone="stop" role="alert">
          {" "}
          {error.message}
        </Said>
      )}
    </span>
  );
}

const sizeOf = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
