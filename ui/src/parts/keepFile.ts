import type { File } from "../api/file";

/** Hands a file to the browser, to be kept where its files go. */
export function keepFile({ name, blob }: File) {
  const url = URL.createObjectURL(blob);
  const a = document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  URL.revokeObjectURL(url);
}
