/** The recess of a screw, drawn; the code beside it carries the meaning for those who cannot see it. */
import type { Drive } from "../api/client";

const lobes = (n: number, r: number, inner: number) =>
  Array.from({ length: n * 2 }, (_, i) => {
    const angle = (Math.PI * i) / n - Math.PI / 2;
    const radius = i % 2 === 0 ? r : inner;
    return `${(12 + radius * Math.cos(angle)).toFixed(2)},${(12 + radius * Math.sin(angle)).toFixed(2)}`;
  }).join(" ");

function recess(drive: Drive | null | undefined) {
  switch (drive) {
    case "phillips":
    case "jis":
      return <path d="M12 5v14M5 12h14" strokeWidth="3.4" />;
    case "pozidriv":
      return (
        <>
          <path d="M12 5v14M5 12h14" strokeWidth="3.4" />
          <path d="M7.5 7.5l2 2M16.5 7.5l-2 2M7.5 16.5l2-2M16.5 16.5l-2-2" strokeWidth="1.4" />
        </>
      );
    case "slotted":
      return <path d="M5 12h14" strokeWidth="3.4" />;
    case "torx":
    case "torx-plus":
      return <polygon points={lobes(6, 7, 4.4)} strokeWidth="1.6" fill="currentColor" strokeLinejoin="round" />;
    case "torx-pin":
      return (
        <>
          <polygon points={lobes(6, 7, 4.4)} strokeWidth="1.6" fill="currentColor" strokeLinejoin="round" />
          <circle cx="12" cy="12" r="1.7" fill="var(--sheet)" stroke="none" />
        </>
      );
    case "square":
      return <rect x="7.5" y="7.5" width="9" height="9" strokeWidth="1.4" fill="currentColor" />;
    case "triangle":
      return <polygon points="12,6 17.6,15.4 6.4,15.4" strokeWidth="1.4" fill="currentColor" />;
    case "pentalobe":
      return <polygon points={lobes(5, 7, 3.8)} strokeWidth="1.6" fill="currentColor" strokeLinejoin="round" />;
    case "hex":
      return (
        <polygon
          points="12,5.5 17.6,8.75 17.6,15.25 12,18.5 6.4,15.25 6.4,8.75"
          strokeWidth="1.4"
          fill="currentColor"
        />
      );
    case "tri-point":
      return <path d="M12 12V5M12 12l6 3.6M12 12l-6 3.6" strokeWidth="3.2" />;
    case "spanner":
      return (
        <>
          <circle cx="8" cy="12" r="1.9" fill="currentColor" />
          <circle cx="16" cy="12" r="1.9" fill="currentColor" />
        </>
      );
    default:
      return <path d="M10 9.5a2.2 2.2 0 1 1 3 2.1c-.7.3-1 .8-1 1.6M12 16.2v.3" strokeWidth="1.8" />;
  }
}

export function BitProfile({ drive, size = 20 }: { drive: Drive | null | undefined; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeLinecap="round"
    >
      <circle cx="12" cy="12" r="10.4" strokeWidth="1.5" />
      {recess(drive)}
    </svg>
  );
}
