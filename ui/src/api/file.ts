// A file of the server's, read as it comes.
import { must, Problem } from "./client";

export interface File {
  name: string;
  blob: Blob;
}

/** Tells how many bytes have come; throws a Problem when there is no whole file. */
export async function fileOf(href: string, onBytes: (n: number) => void): Promise<File> {
  const response = await must(answerOf(href));
  const type = response.headers.get("Content-Type") ?? "";
  const parts: BlobPart[] = [];
  let bytes = 0;
  const reader = response.body?.getReader();
  for (;;) {
    const chunk = await reader?.read().catch(() => {
      throw new Problem(0, "The file broke off on its way. Ask for it again.");
    });
    if (!chunk || chunk.done) break;
    parts.push(chunk.value);
    bytes += chunk.value.byteLength;
    onBytes(bytes);
  }
  return { name: nameIn(response, href), blob: new Blob(parts, { type }) };
}

async function answerOf(href: string) {
  const response = await fetch(href);
  if (response.ok) return { data: response, response };
  return { error: await response.json().catch(() => ({})), response };
}

function nameIn(response: Response, href: string) {
  const named = /filename="([^"]+)"/.exec(response.headers.get("Content-Disposition") ?? "");
  return named?.[1] ?? href.split("?")[0]?.split("/").at(-1) ?? "file";
}
