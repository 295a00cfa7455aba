// What is typed of a client.
import type { Schemas } from "../../api/client";

export const fieldNames = {
  given_name: "Given name",
  family_name: "Family name",
  born_on: "Born",
  work: "Work and sport",
  complaint: "Complaint",
  phone: "Phone",
  email: "E-mail",
  emergency_contact: "In an emergency",
  guardian: "Guardian",
} as const;

export type FieldName = keyof typeof fieldNames;
export type Typed = Record<FieldName, string>;

export const typedOf = (c: Schemas["Client"] | undefined): Typed => ({
  given_name: c?.given_name ?? "",
  family_name: c?.family_name ?? "",
  born_on: c?.born_on ?? "",
  work: c?.work ?? "",
  complaint: c?.complaint ?? "",
  phone: c?.phone ?? "",
  email: c?.email ?? "",
  emergency_contact: c?.emergency_contact ?? "",
  guardian: c?.guardian ?? "",
});
