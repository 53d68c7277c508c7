/** The life of a cable as one line in the order of the work: on, hanging, undone, made. */
import type { CableRow, CablesView } from "../../api/client";
import { FoldMark, HalfLine, places } from "../../parts/halves";

const MIDDLE = 13;

export function Life({ row, cables, says }: { row: CableRow; cables: CablesView; says: string }) {
  const { apart, back } = places(cables);
  const undone = apart(row.step_number);
  const hangs = row.tether ? apart(row.tether.lifted) : undone;
  const made = row.made_in == null ? null : back(row.made_in);
  const colour = row.power ? "var(--hazard)" : "var(--accent)";
  const stretch = (from: number, to: number) => ({ x1: `${from}%`, x2: `${to}%`, y1: MIDDLE, y2: MIDDLE });
  return (
    <HalfLine role="img" aria-label={says}>
      <FoldMark />
      <line {...stretch(0, hangs)} stroke={colour} strokeWidth="4" />
      {row.tether && <line {...stretch(hangs, undone)} stroke={colour} strokeWidth="4" strokeDasharray="3 3" />}
      <line {...stretch(undone, made ?? 100)} stroke="var(--line)" strokeWidth="1.5" />
      {made != null && <line {...stretch(made, 100)} stroke={colour} strokeWidth="4" />}
      <circle cx={`${undone}%`} cy={MIDDLE} r="6" fill="var(--sheet)" stroke={colour} strokeWidth="3" />
      {made != null && <circle cx={`${made}%`} cy={MIDDLE} r="6" fill={colour} />}
      {made == null && !row.temporary && (
        <text x="100%" y={MIDDLE + 6} textAnchor="end" fill="var(--danger)" fontWeight="700">
          ×
        </text>
      )}
    </HalfLine>
  );
}
