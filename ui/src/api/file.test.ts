import { afterEach, describe, expect, it, vi } from "vitest";
import { fileOf } from "./file";

const body = (...chunks: (string | Error)[]) => {
  let at = 0;
  return new ReadableStream<Uint8Array>({
    pull(c) {
      const next = chunks[at++];
      if (next === undefined) c.close();
      else if (next instanceof Error) c.error(next);
      else c.enqueue(new TextEncoder().encode(next));
    },
  });
};

const answering = (answer: Response) => vi.stubGlobal("fetch", async () => answer);

afterEach(() => vi.unstubAllGlobals());

describe("a file of the server's", () => {
  it("is read as it comes, and kept by its own name", async () => {
    const headers = {
      "Content-Disposition": 'attachment; filename="note.pdf"',
      "Content-Type": "application/pdf",
    };
    answering(new Response(body("abc", "de"), { headers }));
    const heard: number[] = [];
    const file = await fileOf("/api/visits/1/print/note", (n) => heard.push(n));
    expect(heard).toEqual([3, 5]);
    expect(file.name).toBe("note.pdf");
    expect(file.blob.type).toBe("application/pdf");
    expect(await file.blob.text()).toBe("abcde");
  });
  it("has the last word of its address for a name where it brings none", async () => {
    answering(new Response(body("a")));
    expect((await fileOf("/api/audit/csv?client=1", () => {})).name).toBe("csv");
  });
  it("is not there when the server refuses, and the reason is said", async () => {
    answering(new Response(JSON.stringify({ detail: "Your role does not allow this." }), { status: 403 }));
    await expect(fileOf("/api/audit/csv", () => {})).rejects.toMatchObject({
      status: 403,
      message: "Your role does not allow this.",
    });
  });
  it("is not kept in part", async () => {
    answering(new Response(body("abc", new Error("gone"))));
    await expect(fileOf("/x", () => {})).rejects.toThrow("broke off");
  });
});
