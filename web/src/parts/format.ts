/** Figures for people: formatting only, nothing is worked out here. Words come from the core's tables. */

/** `4:05`, or `1:04:05` from an hour on. */
export function clock(ms: number): string {
  const s = Math.floor(ms / 1000);
  const two = (n: number) => String(n).padStart(2, "0");
  const [h, m] = [Math.floor(s / 3600), Math.floor((s % 3600) / 60)];
  return h > 0 ? `${h}:${two(m)}:${two(s % 60)}` : `${m}:${two(s % 60)}`;
}

/** `45 s`, or `12 min` from a minute and a half on. */
export const minutes = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;

/** "90 s", "2 min", "2 min 30 s". */
export function duration(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 120) return `${whole} s`;
  const rest = whole % 60;
  return `${Math.floor(whole / 60)} min${rest > 0 ? ` ${rest} s` : ""}`;
}

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** "1st", "2nd", "3rd", "11th". */
export function ordinal(n: number): string {
  const ending = { one: "st", two: "nd", few: "rd" }[
    new Intl.PluralRules("en", { type: "ordinal" }).select(n) as "one"
  ];
  return `${n}${ending ?? "th"}`;
}

export const when = (iso: string) =>
  new Intl.DateTimeFormat("en", { dateStyle: "medium", timeStyle: "short" }).format(new Date(iso));

/** What stands between commas. */
export const listOf = (text: string) =>
  text
    .split(",")
    .map((t) => t.trim())
    .filter(Boolean);

/** A table of the core as a list to choose from. */
export const options = <T extends string>(table: Record<T, string>): [T, string][] =>
  Object.entries(table) as [T, string][];

/** The key that stands for a value, the other way round. */
export const byKey = <T extends string>(table: Record<T, string>, key: string): T | undefined =>
  options(table).find(([, k]) => k === key)?.[0];
