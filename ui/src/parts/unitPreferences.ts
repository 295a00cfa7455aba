// How the practice writes lengths and times; the record stays metric.
import { createContext, useContext } from "react";
import type { Schemas } from "../api/client";
import { one, unbroken } from "./words";
import { dateFormat } from "./dates";

export type UnitPreferences = Pick<Schemas["Me"], "units" | "clock_hours">;

export const UnitPreferencesContext = createContext<UnitPreferences>({ units: "metric", clock_hours: 24 });
export const useUnitPreferences = () => useContext(UnitPreferencesContext);

const cmPerInch = 2.54;
const tenth = (v: number) => Math.round(v * 10) / 10;

/** A length in the practice's unit, to a tenth. */
export const lengthIn = (cm: number, { units }: UnitPreferences) =>
  tenth(units === "imperial" ? cm / cmPerInch : cm);
/** Back to cm, to a tenth: what goes into the record. */
export const cmOf = (length: number, { units }: UnitPreferences) =>
  tenth(units === "imperial" ? length * cmPerInch : length);
export const lengthUnit = ({ units }: UnitPreferences) => (units === "imperial" ? "in" : "cm");
export const lengthWords = (cm: number, w: UnitPreferences) => `${lengthIn(cm, w)} ${lengthUnit(w)}`;
/** A reading: a length in the practice's unit, anything else as it is. */
export const readingWords = (v: number, unit: string, w: UnitPreferences) =>
  unit === "cm" ? lengthWords(v, w) : `${tenth(v)}${unit === "°" ? "" : " "}${unit}`;

/** How far away a structure runs, and how deep. */
export function howFar(n: Schemas["NearBy"], w: UnitPreferences): string {
  const along = `${lengthWords(n.distance_cm, w)} along the skin (${one(n.finger_widths)} finger-widths)`;
  return `${along}, about ${lengthWords(n.depth_cm, w)} deep`;
}

/** A finger-width is told in hundredths of an inch: a tenth is too coarse for it. */
export const fingerIn = (cm: number, { units }: UnitPreferences) =>
  units === "imperial" ? Math.round((cm / cmPerInch) * 100) / 100 : cm;
export const fingerCM = (width: number, { units }: UnitPreferences) =>
  units === "imperial" ? Math.round(width * cmPerInch * 100) / 100 : width;

/** What a structure nearby means, and the way off it where the hand is too near. */
export const nearWords = (n: Schemas["NearBy"]) => unbroken(n.move ? `${n.text} ${n.move}` : n.text);

/** An area painted or charted, in the practice's unit. */
export const areaIn = (cm2: number, { units }: UnitPreferences) =>
  units === "imperial" ? cm2 / (cmPerInch * cmPerInch) : cm2;
export const areaUnit = ({ units }: UnitPreferences) => (units === "imperial" ? "in²" : "cm²");
export const areaWords = (cm2: number, w: UnitPreferences) => `${tenth(areaIn(cm2, w))} ${areaUnit(w)}`;

/** The time of day: 14:30, or 2:30 pm. */
export const timeWords = (iso: string, zone: string, { clock_hours }: UnitPreferences) =>
  dateFormat(clock_hours === 12 ? "en-US" : "en-GB", {
    timeZone: zone,
    hour: clock_hours === 12 ? "numeric" : "2-digit",
    minute: "2-digit",
  })
    .format(new Date(iso))
    .toLowerCase();

/** The time of day of a moment that is written with the practice's offset: 2026-12-02T14:30:00+01:00. */
export function wallTimeWords(iso: string, { clock_hours }: UnitPreferences) {
  const [hour = "", minute = ""] = iso.slice(11, 16).split(":");
  if (clock_hours !== 12) return `${hour}:${minute}`;
  return `${Number(hour) % 12 || 12}:${minute} ${Number(hour) < 12 ? "am" : "pm"}`;
}
