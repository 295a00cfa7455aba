// How the practice writes lengths and times; the record stays metric.
import { createContext, useContext } from "react";
import type { Schemas } from "../api/client";

export type Written = Pick<Schemas["Me"], "units" | "clock_hours">;

export const WrittenContext = createContext<Written>({ units: "metric", clock_hours: 24 });
export const useWritten = () => useContext(WrittenContext);

const cmPerInch = 2.54;
const tenth = (v: number) => Math.round(v * 10) / 10;

/** A length in the practice's unit, to a tenth. */
export const lengthIn = (cm: number, { units }: Written) => tenth(units === "imperial" ? cm / cmPerInch : cm);
/** Back to cm, to a tenth: what goes into the record. */
export const cmOf = (length: number, { units }: Written) =>
  tenth(units === "imperial" ? length * cmPerInch : length);
export const lengthUnit = ({ units }: Written) => (units === "imperial" ? "in" : "cm");
export const lengthWords = (cm: number, w: Written) => `${lengthIn(cm, w)} ${lengthUnit(w)}`;
/** A reading: a length in the practice's unit, anything else as it is. */
export const readingWords = (v: number, unit: string, w: Written) =>
  unit === "cm" ? lengthWords(v, w) : `${tenth(v)}${unit === "°" ? "" : " "}${unit}`;

/** The time of day: 14:30, or 2:30 pm. */
export const timeWords = (iso: string, zone: string, { clock_hours }: Written) =>
  new Intl.DateTimeFormat(clock_hours === 12 ? "en-US" : "en-GB", {
    timeZone: zone,
    hour: clock_hours === 12 ? "numeric" : "2-digit",
    minute: "2-digit",
  })
    .format(new Date(iso))
    .toLowerCase();
