/** One hazard along both halves of the work: where it is brought about, and where it is warned of. */
import type { HazardRow } from "../../api/client";
import { labels } from "../../api/tables";
import { FoldMark, HalfLine, type Halves, places } from "../../parts/halves";

/** A stretch in words. */
export function told(row: HazardRow): string {
  const numbers = row.steps.map((s) => s.number);
  const half = row.phase === "rebuild" ? " of the rebuild" : "";
  const steps = numbers.length === 1 ? `step ${numbers[0]}` : `steps ${numbers.join(", ")}`;
  return `${steps}${half}, ${row.declined == null ? labels.Covered[row.covered] : "declined"}`;
}

export function Along({ row, halves }: { row: HazardRow; halves: Halves }) {
  const at = places(halves)[row.phase === "rebuild" ? "back" : "apart"];
  const missing = row.declined == null && (row.covered === "unsaid" || row.covered === "late");
  const colour = missing ? "var(--hazard)" : "var(--accent)";
  const [first, last] = [row.steps[0]?.number ?? 1, row.steps.at(-1)?.number ?? 1];
  return (
    <HalfLine role="img" aria-label={told(row)}>
      <FoldMark />
      <line x1="0" x2="100%" y1="13" y2="13" stroke="var(--line)" />
      <line x1={`${at(first)}%`} x2={`${at(last)}%`} y1="13" y2="13" stroke={colour} strokeWidth="4" />
      {row.steps.map((s) => (
        <circle key={s.step} cx={`${at(s.number)}%`} cy="13" r="4.5" fill={colour} />
      ))}
      {missing ? (
        // An open ring round the first step: nobody warns there.
        <circle cx={`${at(first)}%`} cy="13" r="9" fill="none" stroke={colour} strokeWidth="2" strokeDasharray="3 2" />
      ) : (
        <line x1={`${at(first)}%`} x2={`${at(first)}%`} y1="2" y2="24" stroke={colour} strokeWidth="3" />
      )}
    </HalfLine>
  );
}
