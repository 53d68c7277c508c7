/** The power along the steps: each source until it is cut, and what is touched meanwhile. */
import styled from "styled-components";
import type { CablesView } from "../../api/client";
import { Muted } from "../../parts/controls";
import { plural } from "../../parts/format";
import { space } from "../../theme";

const Box = styled.section`
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
  padding: ${space.small} ${space.normal};
  margin-bottom: ${space.normal};
  svg { display: block; width: 100%; height: auto; }
  text { fill: var(--ink); font-size: 14px; }
  @media (max-width: 1040px) { text { font-size: 18px; } }
  .soft { fill: var(--soft); }
`;

const [WIDTH, LEFT, ROW, HEAD] = [1200, 190, 26, 24];

export function PowerLine({ line }: { line: CablesView["power"] }) {
  const { sources, rows } = line;
  if (rows.length === 0) return null;
  const step = (WIDTH - LEFT - 8) / rows.length;
  const x = (number: number) => LEFT + (number - 1) * step;
  const height = HEAD + ROW * Math.max(1, sources.length) + ROW;
  const deadFrom = line.dead_from;
  const every = Math.max(1, Math.ceil(rows.length / 24));
  const says = [
    ...sources.map((s) =>
      s.cut_at == null
        ? `${s.name}: nothing cuts it`
        : `${s.name}: on ${s.made_at == null ? "" : `from step ${s.made_at + 1} `}until step ${s.cut_at + 1}`,
    ),
    ...rows.filter((r) => r.live).map((r) => `step ${r.number} works at ${r.touches} while something is on`),
  ].join("; ");
  return (
    <Box aria-label="Power along the steps">
      <Muted role="note">
        {sources.length === 0
          ? "Nobody told what feeds the device. A part that is a source of power, or a plug that brings the power, stands here."
          : deadFrom
            ? `Live until ${plural(sources.length, "source")} ${sources.length === 1 ? "is" : "are"} off: dead from step ${deadFrom} on.`
            : "Never dead: a source stays on to the end."}
      </Muted>
      {sources.length > 0 && (
        <svg viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={says}>
          {rows.map((r) =>
            (r.number - 1) % every === 0 ? (
              <text key={r.number} className="soft" x={x(r.number) + step / 2} y={16} textAnchor="middle">
                {r.number}
              </text>
            ) : null,
          )}
          {sources.map((s, n) => {
            const y = HEAD + n * ROW;
            // What is connected only to try is off before and after.
            const start = s.made_at == null ? LEFT : x(s.made_at + 1);
            const end = s.cut_at == null ? WIDTH - 8 : x(s.cut_at + 1) + step / 2;
            return (
              <g key={`${s.name}${s.part ?? ""}`}>
                <text x={LEFT - 12} y={y + 18} textAnchor="end">
                  {s.name}
                </text>
                <path d={`M${LEFT} ${y + 13}H${WIDTH - 8}`} stroke="var(--line)" />
                <path d={`M${start} ${y + 13}H${end}`} stroke="var(--hazard)" strokeWidth="10" />
                {s.cut_at != null && (
                  <path d={`M${end - 5} ${y + 5}l10 16m0 -16l-10 16`} stroke="var(--ink)" strokeWidth="2.5" />
                )}
              </g>
            );
          })}
          <text className="soft" x={LEFT - 12} y={height - ROW + 18} textAnchor="end">
            safe only when dead
          </text>
          {rows.map((r) => {
            if (!r.touches) return null;
            const cx = x(r.number) + step / 2;
            const y = height - ROW + 13;
            return r.live ? (
              <path key={r.number} d={`M${cx} ${y - 8}l9 16h-18z`} fill="var(--danger)">
                <title>{`Step ${r.number}, ${r.touches}: still live`}</title>
              </path>
            ) : (
              <circle key={r.number} cx={cx} cy={y} r="5" fill="none" stroke="var(--accent)" strokeWidth="2.5">
                <title>{`Step ${r.number}, ${r.touches}`}</title>
              </circle>
            );
          })}
        </svg>
      )}
    </Box>
  );
}
