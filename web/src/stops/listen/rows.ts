/** What the list of statements shows: filters, folded talk, gaps, and what is found. */
import type { Heard, ListenRecording, StatementKind } from "../../api/client";
import { KINDS } from "../../parts/words";

export type Filter =
  | "work"
  | "all"
  | "doubtful"
  | "unused"
  | "look_up"
  | "dead_end"
  | "notes"
  | "branch"
  | "rejected"
  | "corrected"
  | "dropped"
  | StatementKind;

export const FILTERS: [Filter, string][] = [
  ["work", "The work, talk folded"],
  ["all", "Everything"],
  ["doubtful", "Doubtful"],
  ["unused", "Acts in no step"],
  ["look_up", "To look up in the picture"],
  ["notes", "Decisions and complaints"],
  ["branch", "If it goes another way"],
  ["rejected", "Tools turned down"],
  ["dead_end", "Dead ends and accidents"],
  ["corrected", "Put right by hand"],
  ["dropped", "Not part of this job"],
  ...KINDS.map((k): [Filter, string] => [k.kind, `Only: ${k.name}`]),
];

export type Said = { id: string; row: "said"; recording: string; heard: Heard };
export type Item =
  | Said
  | { id: string; row: "fold"; count: number; from: number | null; to: number | null }
  | { id: string; row: "gap"; kind: "silence" | "lost_speech"; from: number; to: number };

export const isTalk = (h: Heard) => h.dropped || h.kind === "noise" || h.kind === "chatter";
export const keyOf = (recording: string, h: Heard) => `${recording}/${h.statement.start}`;

const isUnused = (h: Heard) => h.kind === "action" && !h.step && !h.dropped;

function passes(filter: Filter, h: Heard): boolean {
  const marks = h.statement.marks ?? [];
  switch (filter) {
    case "work":
    case "all":
      return true;
    case "doubtful":
      return h.doubtful;
    case "unused":
      return isUnused(h);
    case "notes":
      return marks.includes("decision") || marks.includes("complaint");
    case "look_up":
    case "branch":
    case "rejected":
    case "dead_end":
      return marks.includes(filter);
    case "corrected":
      return h.corrected || h.facts_corrected || h.statement.repairs.some((r) => r.by_author);
    case "dropped":
      return h.dropped;
    default:
      return h.kind === filter;
  }
}

/** Statements in time; in the plain view talk folds into one row a stretch, and gaps stand where they are. */
export function itemsOf(recordings: ListenRecording[], filter: Filter, find: string): Item[] {
  const out: Item[] = [];
  const wanted = find.trim().toLowerCase();
  for (const r of recordings) {
    const gaps = new Map(r.heard.gaps.map((g) => [g.after, g]));
    r.heard.statements.forEach((heard, i) => {
      const found = wanted === "" || heard.statement.text.toLowerCase().includes(wanted);
      if (found && passes(filter, heard)) {
        const last = out.at(-1);
        if (filter === "work" && wanted === "" && isTalk(heard)) {
          const { from_ms = null, to_ms = null } = heard.statement;
          if (last?.row === "fold") {
            last.count += 1;
            last.to = to_ms;
          } else out.push({ id: `fold-${keyOf(r.id, heard)}`, row: "fold", count: 1, from: from_ms, to: to_ms });
        } else out.push({ id: keyOf(r.id, heard), row: "said", recording: r.id, heard });
      }
      const gap = gaps.get(i);
      if (gap && wanted === "" && (filter === "work" || filter === "all"))
        out.push({ id: `gap-${r.id}-${i}`, row: "gap", kind: gap.kind, from: gap.from_ms, to: gap.to_ms });
    });
  }
  return out;
}

/** How a recording is summed up above its list. */
export function summary(recordings: ListenRecording[]) {
  const all = recordings.flatMap((r) => r.heard.statements);
  const gaps = recordings.flatMap((r) => r.heard.gaps);
  return {
    statements: all.length,
    talk: all.filter(isTalk).length,
    unused: all.filter(isUnused).length,
    doubtful: all.filter((h) => h.doubtful).length,
    silence_ms: gaps.reduce((sum, g) => sum + (g.to_ms - g.from_ms), 0),
  };
}

export type Place = { recording: string; start: number; end: number; heard: string };

/** Every place where the same words stand as whole words, in any case. */
export function placesOf(recordings: ListenRecording[], words: string): Place[] {
  const wanted = words.trim();
  if (wanted === "") return [];
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])${wanted.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}(?![\\p{L}\\p{N}])`,
    "giu",
  );
  const out: Place[] = [];
  for (const r of recordings)
    for (const { statement } of r.heard.statements)
      for (const match of statement.text.matchAll(pattern)) {
        // Places are counted in characters, the browser counts in halves of some of them.
        const before = Array.from(statement.text.slice(0, match.index)).length;
        const start = statement.start + before;
        out.push({ recording: r.id, start, end: start + Array.from(match[0]).length, heard: match[0] });
      }
  return out;
}

export type Word = { text: string; start: number; end: number };

/** The words of a statement with their places, without the marks around them. */
export function wordsOf(h: Heard): Word[] {
  const chars = Array.from(h.statement.text);
  const out: Word[] = [];
  let from = -1;
  const close = (to: number) => {
    if (from >= 0) {
      let [a, b] = [from, to];
      const mark = (c: string | undefined) => c !== undefined && /^[.,;:!?…"“”()]$/u.test(c);
      while (a < b && mark(chars[a])) a += 1;
      while (b > a && mark(chars[b - 1])) b -= 1;
      if (a < b)
        out.push({ text: chars.slice(a, b).join(""), start: h.statement.start + a, end: h.statement.start + b });
    }
    from = -1;
  };
  chars.forEach((c, i) => {
    if (/\s/u.test(c)) close(i);
    else if (from < 0) from = i;
  });
  close(chars.length);
  return out;
}
