// Which visits live in this page alone (localVisit.ts).

/** No other visit has an id that begins so: the program's own are made of a time and chance. */
const ownIDs = "00000000-0000-7000-8000-";

export const isLocal = (id: string) => id.startsWith(ownIDs);
