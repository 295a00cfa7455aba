// Dates and times in words. A formatter takes far longer to make than to use, and the first longest,
// so each is made once, when it is needed.
const made = new Map<string, Intl.DateTimeFormat>();

export function dateFormat(locale: "en-GB" | "en-US", options: Intl.DateTimeFormatOptions) {
  const key = JSON.stringify([locale, options]);
  let format = made.get(key);
  if (!format) made.set(key, (format = new Intl.DateTimeFormat(locale, options)));
  return format;
}
