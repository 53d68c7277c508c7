/** The life of a cable as one line in the order of the work: on, hanging, undone, made. */
import styled from "styled-components";
import type { CableRow, CablesView } from "../../api/client";
import { space } from "../../theme";

const Line = styled.svg`
  width: 100%;
  height: 26px;
  display: block;
`;
const Head = styled.div`
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: ${space.small};
  padding: 0 ${space.small} 0 calc(${space.small} + 4px);
  color: var(--soft);
  font-size: 0.86rem;
  div { display: grid; grid-auto-flow: column; }
`;

/** The two halves in hundredths of the width, with the fold between them. */
const [HALF, BACK] = [48, 52];
const MIDDLE = 13;

function places({ teardown_steps, rebuild_steps }: CablesView) {
  const share = (step: number, steps: number) => ((step - 0.5) / Math.max(1, steps)) * HALF;
  return {
    apart: (step: number) => share(step, teardown_steps),
    back: (step: number) => BACK + share(step, rebuild_steps),
  };
}

export function LifeHead({ cables }: { cables: CablesView }) {
  return (
    <Head aria-hidden>
      <span />
      <div>
        <span>taking apart, {cables.teardown_steps} steps</span>
        <span>putting together, {cables.rebuild_steps} steps</span>
      </div>
    </Head>
  );
}

export function Life({ row, cables, says }: { row: CableRow; cables: CablesView; says: string }) {
  const { apart, back } = places(cables);
  const undone = apart(row.step_number);
  const hangs = row.tether ? apart(row.tether.lifted) : undone;
  const made = row.made_in == null ? null : back(row.made_in);
  const colour = row.power ? "var(--hazard)" : "var(--accent)";
  const stretch = (from: number, to: number) => ({ x1: `${from}%`, x2: `${to}%`, y1: MIDDLE, y2: MIDDLE });
  return (
    <Line role="img" aria-label={says}>
      <line x1="50%" x2="50%" y1="2" y2="24" stroke="var(--line)" strokeDasharray="2 3" />
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
    </Line>
  );
}
