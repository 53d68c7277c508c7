/** Both halves of the work on one line: taking apart on the left of the fold, putting together on the right. */
import styled from "styled-components";
import { space } from "../theme";

const Head = styled.div`
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: ${space.small};
  padding: 0 ${space.small} 0 calc(${space.small} + 4px);
  color: var(--soft);
  font-size: 0.86rem;
  div { display: grid; grid-auto-flow: column; }
`;

/** A name beside its line. */
export const Lined = styled.div`
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: ${space.small};
  align-items: center;
`;

export const HalfLine = styled.svg`
  width: 100%;
  height: 26px;
  display: block;
`;

export type Halves = { teardown_steps: number; rebuild_steps: number };

/** The two halves in hundredths of the width, with the fold between them. */
const [HALF, BACK] = [48, 52];

/** Where a step stands, in hundredths of the width. */
export function places({ teardown_steps, rebuild_steps }: Halves) {
  const share = (step: number, steps: number) => ((step - 0.5) / Math.max(1, steps)) * HALF;
  return {
    apart: (step: number) => share(step, teardown_steps),
    back: (step: number) => BACK + share(step, rebuild_steps),
  };
}

export function HalvesHead({ halves }: { halves: Halves }) {
  return (
    <Head aria-hidden>
      <span />
      <div>
        <span>taking apart, {halves.teardown_steps} steps</span>
        <span>putting together, {halves.rebuild_steps} steps</span>
      </div>
    </Head>
  );
}

/** The fold between the halves. */
export const FoldMark = () => <line x1="50%" x2="50%" y1="2" y2="24" stroke="var(--line)" strokeDasharray="2 3" />;
