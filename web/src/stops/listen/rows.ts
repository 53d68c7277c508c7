/** What the list of statements shows: filters, folded talk, gaps, and what is found. */
import type { ListenView, StatementKind, StatementRow } from "../../api/client";
import { labels } from "../../api/tables";
import { options } from "../../parts/format";

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
  ...options(labels.StatementKind).map(([kind, name]): [Filter, string] => [kind, `Only: ${name}`]),
];

export type Said = { id: string; row: "said"; recording: string; heard: StatementRow };
export type Item =
  | Said
  | { id: string; row: "fold"; count: number; from: number | null; to: number | null }
  | { id: string; row: "gap"; kind: "silence" | "lost_speech"; from: number; to: number };

export const keyOf = (recording: string, h: StatementRow) => `${recording}/${h.statement.start}`;

function passes(filter: Filter, h: StatementRow): boolean {
  const marks = h.statement.marks ?? [];
  switch (filter) {
    case "work":
    case "all":
      return true;
    case "doubtful":
      return h.doubtful;
    case "unused":
      return h.unused;
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
export function itemsOf(recordings: ListenView[], filter: Filter, find: string): Item[] {
  const out: Item[] = [];
  const wanted = find.trim().toLowerCase();
  for (const r of recordings) {
    const gaps = new Map(r.heard.gaps.map((g) => [g.after, g]));
    r.heard.statements.forEach((heard, i) => {
      const found = wanted === "" || heard.statement.text.toLowerCase().includes(wanted);
      if (found && passes(filter, heard)) {
        const last = out.at(-1);
        if (filter === "work" && wanted === "" && heard.talk) {
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

export type Word = { text: string; start: number; end: number };

/** The words of a statement with their places, without the marks around them. */
export function wordsOf(h: StatementRow): Word[] {
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
