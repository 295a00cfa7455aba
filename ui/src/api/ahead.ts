// Answers that are asked for before the scripts that read them are here. Each is taken once, by who
// asks for the same address first.
const asked = new Map<string, Promise<Response>>();

/** Asks at once. Never in the stepped build, whose requests tell what time it is there. */
export function askAhead(path: string): Promise<Response> | undefined {
  if (import.meta.env.MODE === "stepped") return undefined;
  const answer = fetch(path);
  asked.set(new URL(path, location.origin).href, answer);
  answer.catch(() => undefined); // who takes it asks again
  return answer;
}

/** fetch, or the answer that is on its way; a refusal before anybody signed in is not the answer. */
export async function fetchOnce(request: Request): Promise<Response> {
  const ahead = request.method === "GET" ? asked.get(request.url) : undefined;
  asked.delete(request.url);
  const answer = await ahead?.catch(() => undefined);
  return answer?.ok ? answer : fetch(request);
}
