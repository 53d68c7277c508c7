/** A safety sign in the shape of the standard: a triangle warns, a disc tells what must be done. */
import styled from "styled-components";
import { signs } from "../api/tables";

const Drawing = styled.svg`
  flex: none;
  .frame { fill: var(--sheet); stroke: currentColor; stroke-width: 1.7; stroke-linejoin: round; }
  .lines { fill: none; stroke: currentColor; stroke-width: 1.3; stroke-linecap: round; }
  .fills { fill: currentColor; }
  &.duty { .frame { fill: currentColor; } .lines { stroke: var(--sheet); } .fills { fill: var(--sheet); } }
`;

/** Without a name it only stands beside words that say the same. */
export function SafetySign({ sign, size, named }: { sign: keyof typeof signs; size: number; named?: boolean }) {
  const { name, number, duty, frame, lines, fills } = signs[sign];
  const spoken = named ? { role: "img", "aria-label": `${name}, ${number}` } : { "aria-hidden": true as const };
  return (
    <Drawing className={duty ? "duty" : ""} width={size} height={size} viewBox="0 0 24 24" {...spoken}>
      <path className="frame" d={frame} />
      <path className="lines" d={lines} />
      <path className="fills" d={fills} fillRule="evenodd" />
    </Drawing>
  );
}
