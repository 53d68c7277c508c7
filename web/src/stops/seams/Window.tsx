/** Which settings do: temperature across, time up; from where on the bond is soft, and from where on something is harmed. */
import styled from "styled-components";
import type { HeatAnswer, Heating } from "../../api/client";
import { duration } from "../../parts/format";

const Picture = styled.svg`
  width: 100%;
  height: auto;
  max-height: 260px;
  text { font-size: 17px; fill: var(--ink); }
  .soft { fill: var(--soft); }
`;

type Points = HeatAnswer["window"];
type Setting = { setting_c: number; seconds: number };
type Props = {
  heating: Heating;
  points: Points;
  recommended: HeatAnswer["plan"]["recommended"] | null;
  /** What the narrator told, as far as it names both. */
  told: Setting[];
};

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [640, 240, 70, 158, 14, 34];
/** Longest time that the core looks at, s. */
const LONGEST = 600;

export function Window({ heating, points, recommended, told }: Props) {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const x = (c: number) => LEFT + ((c - first.setting_c) / (last.setting_c - first.setting_c)) * (WIDTH - LEFT - RIGHT);
  const y = (s: number) => HEIGHT - BOTTOM - (Math.min(s, LONGEST) / LONGEST) * (HEIGHT - TOP - BOTTOM);
  const line = (of: (p: Points[number]) => number) =>
    points.map((p) => `${x(p.setting_c).toFixed(1)} ${y(of(p)).toFixed(1)}`);
  const softs = line((p) => p.soft_s ?? LONGEST);
  const harms = line((p) => p.harm_s ?? LONGEST);
  const right = points.every((p) => p.soft_s == null);
  const within = (s: Setting) => s.setting_c >= first.setting_c && s.setting_c <= last.setting_c;
  const above = (row: string[]) => `M${row.join("L")}L${WIDTH - RIGHT} ${TOP}L${LEFT} ${TOP}Z`;
  const between = `M${softs.join("L")}L${[...harms].reverse().join("L")}Z`;
  return (
    <Picture viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={spoken(points, recommended, told)}>
      <defs>
        <pattern id="harms" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V9" stroke="var(--danger)" strokeWidth="2.4" opacity="0.5" />
        </pattern>
      </defs>
      {!right && <path d={between} fill="var(--accent)" opacity="0.16" />}
      <path d={above(harms)} fill="url(#harms)" />
      <path d={`M${softs.join("L")}`} fill="none" stroke="var(--accent)" strokeWidth="3" />
      <path d={`M${harms.join("L")}`} fill="none" stroke="var(--danger)" strokeWidth="2" strokeDasharray="7 4" />
      {[0, 2, 4, 6, 8, 10].map((m) => (
        <g key={m}>
          <path d={`M${LEFT} ${y(m * 60)}h-5`} stroke="var(--soft)" />
          <text className="soft" x={LEFT - 8} y={y(m * 60) + 5} textAnchor="end">
            {m} min
          </text>
        </g>
      ))}
      {points
        .filter((_, n) => n % 3 === 0)
        .map((p) => (
          <text className="soft" key={p.setting_c} x={x(p.setting_c)} y={HEIGHT - 10} textAnchor="middle">
            {Math.round(p.setting_c)} °C
          </text>
        ))}
      <path d={`M${LEFT} ${TOP}V${HEIGHT - BOTTOM}H${WIDTH - RIGHT}`} fill="none" stroke="var(--strong-line)" />
      <text x={WIDTH - RIGHT + 6} y={TOP + 14}>
        harms
      </text>
      <text x={WIDTH - RIGHT + 6} y={y(last.soft_s ?? LONGEST) + (last.soft_s == null ? 34 : 5)}>
        soft
      </text>
      {recommended && (
        <circle
          cx={x(recommended.setting_c)}
          cy={y(recommended.seconds)}
          r="6"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
        />
      )}
      {told.filter(within).map((s) => (
        <g key={`${s.setting_c}/${s.seconds}`}>
          <rect
            x={x(s.setting_c) - 5}
            y={y(s.seconds) - 5}
            width="10"
            height="10"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <text x={x(s.setting_c) + 10} y={y(s.seconds) + 18}>
            as told
          </text>
        </g>
      ))}
      <path
        d={`M${x(heating.setting_c)} ${y(heating.seconds)}m-7 0h14m-7 -7v14`}
        stroke="var(--ink)"
        strokeWidth="3"
        fill="none"
      />
      <text x={x(heating.setting_c) + 10} y={y(heating.seconds) - 8} fontWeight="700">
        this setting
      </text>
    </Picture>
  );
}

function spoken(points: Points, recommended: Props["recommended"], told: Setting[]): string {
  const rows = points
    .filter((_, n) => n % 3 === 0)
    .map((p) => {
      const soft = p.soft_s == null ? "not soft within 10 min" : `soft after ${duration(p.soft_s)}`;
      return `${Math.round(p.setting_c)} °C: ${soft}${p.harm_s == null ? "" : `, harmed after ${duration(p.harm_s)}`}`;
    });
  const does = recommended ? ` The ring marks the mildest that does.` : "";
  const said = told.map((s) => ` Told: ${s.setting_c} °C, ${duration(s.seconds)}.`).join("");
  return `Settings that do. ${rows.join("; ")}.${does}${said}`;
}
