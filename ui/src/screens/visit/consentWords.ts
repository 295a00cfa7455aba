import type { Schemas } from "../../api/client";
import { sentence } from "../../parts/words";

type Consent = Schemas["ConsentRecorded"];

/** An agreement in words: "agreed, chaperone declined, by the guardian". */
export const consentWords = (c: Consent) =>
  [
    c.given ? "agreed" : "not agreed",
    c.given && c.chaperone && `chaperone ${c.chaperone}`,
    c.by === "guardian" && "by the guardian",
  ]
    .filter(Boolean)
    .join(", ");
export const areaName = (a: Consent["area"]) =>
  a === "visit" ? "The treatment" : sentence(a === "axilla" ? "armpit" : a);
