/** The recess of a screw, as the core draws it; the code beside it carries the meaning for those who cannot see it. */
import type { Drive } from "../api/client";
import { type Mark, recesses } from "../api/tables";

export function BitProfile({ drive, size = 20 }: { drive: Drive | null | undefined; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="-1.15 -1.15 2.3 2.3"
      aria-hidden="true"
      style={{ flex: "none" }}
      fill="none"
      stroke="currentColor"
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <circle r="1" strokeWidth="0.14" />
      {recesses[drive ?? "unknown"].map((mark) => (
        <path key={mark.path} d={mark.path} {...painted(mark)} />
      ))}
    </svg>
  );
}

function painted({ paint }: Mark) {
  if (paint === "ink") return { fill: "currentColor", strokeWidth: 0.08 };
  if (paint === "paper") return { fill: "var(--sheet)", stroke: "none" };
  return { strokeWidth: paint };
}
