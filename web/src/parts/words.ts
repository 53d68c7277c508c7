/** Words and figures for people: formatting only, nothing is worked out here. */
import type { Drive, Reason, Risk, StatementKind } from "../api/client";

/** `4:05`, or `1:04:05` from an hour on. */
export function clock(ms: number): string {
  const s = Math.floor(ms / 1000);
  const two = (n: number) => String(n).padStart(2, "0");
  const [h, m] = [Math.floor(s / 3600), Math.floor((s % 3600) / 60)];
  return h > 0 ? `${h}:${two(m)}:${two(s % 60)}` : `${m}:${two(s % 60)}`;
}

/** Kinds of statement with the key that sets each. */
export const KINDS: { kind: StatementKind; name: string; key: string }[] = [
  { kind: "action", name: "Action", key: "a" },
  { kind: "caution", name: "Caution", key: "c" },
  { kind: "condition", name: "Condition", key: "i" },
  { kind: "observation", name: "Observation", key: "o" },
  { kind: "tool", name: "Tools", key: "t" },
  { kind: "test", name: "Test", key: "e" },
  { kind: "chatter", name: "Talk", key: "b" },
  { kind: "noise", name: "Noise", key: "n" },
];
export const kindName = (kind: StatementKind) => KINDS.find((k) => k.kind === kind)?.name ?? kind;

/** Drives by the code that readers see. */
export const DRIVES: [Drive, string][] = [
  ["phillips", "PH cross"],
  ["pozidriv", "PZ cross"],
  ["jis", "JIS cross"],
  ["slotted", "SL slot"],
  ["torx", "T six-lobe"],
  ["torx-plus", "IP six-lobe plus"],
  ["hex", "H hex socket"],
  ["pentalobe", "five-lobe"],
  ["tri-point", "three-lobe"],
  ["spanner", "two-hole"],
  ["square", "SQ square"],
  ["torx-pin", "TR six-lobe with pin"],
  ["triangle", "triangle"],
];

/** `45 s`, or `12 min` from a minute and a half on. */
export const minutes = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;

/** Why a step waits, in a word and a letter; letters stand where there is no room. */
export const REASONS: Record<Reason, { name: string; letter: string }> = {
  covers: { name: "Covered", letter: "C" },
  holds: { name: "Held", letter: "H" },
  connected_to: { name: "Tied by a cable", letter: "T" },
  inside: { name: "Inside", letter: "I" },
  power: { name: "Power first", letter: "P" },
  cure: { name: "Must soften, cool or dry", letter: "S" },
  stated: { name: "Told", letter: "N" },
  author: { name: "Author", letter: "A" },
};

export const RISKS: Record<Risk, string> = {
  glued: "glued",
  brittle: "brittle",
  single_use: "something is used up",
  battery: "battery",
  mains: "mains or stored charge",
};

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

export const when = (iso: string) =>
  new Intl.DateTimeFormat("en", { dateStyle: "medium", timeStyle: "short" }).format(new Date(iso));
