/** How warm the bond and what it must not harm get: as a picture, and as a table. */
import styled from "styled-components";
import type { HeatAnswer, Heating } from "../../api/client";
import { More } from "../../parts/controls";
import { duration } from "../../parts/format";
import { Table } from "../../parts/table";

const Picture = styled.svg`
  width: 100%;
  height: auto;
  max-height: 360px;
  text { font-size: 17px; fill: var(--ink); }
  .soft { fill: var(--soft); }
`;

type Plan = HeatAnswer["plan"];
const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [640, 330, 70, 158, 14, 34];

export function Curves({ heating, plan }: { heating: Heating; plan: Plan }) {
  const last = plan.bond_curve.at(-1)?.seconds ?? 1;
  const hottest = Math.max(
    ...plan.bond_curve.map((p) => p.band[2] ?? 0),
    ...plan.guards.map((g) => g.harm_c),
    plan.window?.[1] ?? 0,
  );
  const most = Math.ceil((hottest + 5) / 20) * 20;
  const least = Math.min(20, Math.floor(heating.room_c / 10) * 10);
  const x = (s: number) => LEFT + (s / last) * (WIDTH - LEFT - RIGHT);
  const y = (c: number) => HEIGHT - BOTTOM - ((c - least) / (most - least)) * (HEIGHT - TOP - BOTTOM);
  const line = (curve: Plan["bond_curve"], which: number) =>
    curve
      .map((p, n) => `${n === 0 ? "M" : "L"}${x(p.seconds).toFixed(1)} ${y(p.band[which] ?? 0).toFixed(1)}`)
      .join("");
  const band = (curve: Plan["bond_curve"]) => `${line(curve, 0)}${line([...curve].reverse(), 2).replace("M", "L")}Z`;
  const grid = Array.from({ length: Math.floor((most - least) / 20) + 1 }, (_, n) => least + n * 20);
  const minutes = last > 600 ? 120 : 60;
  const ticks = Array.from({ length: Math.floor(last / minutes) + 1 }, (_, n) => n * minutes);
  const strictest = [...plan.guards].sort((a, b) => a.harm_c - b.harm_c).slice(0, 2);
  return (
    <Picture viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={spoken(heating, plan)}>
      <defs>
        <pattern id="opens" width="8" height="8" patternUnits="userSpaceOnUse">
          <path d="M0 4H8" stroke="var(--accent)" strokeWidth="1" opacity="0.7" />
        </pattern>
      </defs>
      {plan.window && (
        <>
          <rect
            x={LEFT}
            y={y(Math.min(most, plan.window[1] ?? most))}
            width={WIDTH - LEFT - RIGHT}
            height={y(plan.window[0] ?? 0) - y(Math.min(most, plan.window[1] ?? most))}
            fill="url(#opens)"
          />
          <text x={WIDTH - RIGHT + 6} y={y(plan.window[0] ?? 0) - 6}>
            the bond opens
          </text>
        </>
      )}
      {grid.map((c) => (
        <g key={c}>
          <path d={`M${LEFT} ${y(c)}H${WIDTH - RIGHT}`} stroke="var(--line)" />
          <text className="soft" x={LEFT - 6} y={y(c) + 5} textAnchor="end">
            {c} °C
          </text>
        </g>
      ))}
      {ticks.map((s) => (
        <text className="soft" key={s} x={x(s)} y={HEIGHT - 10} textAnchor="middle">
          {s / 60} min
        </text>
      ))}
      <path d={`M${x(heating.seconds)} ${TOP}V${HEIGHT - BOTTOM}`} stroke="var(--ink)" strokeDasharray="2 3" />
      <text x={x(heating.seconds) + 4} y={TOP + 13}>
        lifted
      </text>
      <path d={band(plan.bond_curve)} fill="var(--accent)" opacity="0.18" />
      <path d={line(plan.bond_curve, 1)} fill="none" stroke="var(--accent)" strokeWidth="3" />
      <text x={WIDTH - RIGHT + 6} y={y(plan.bond_curve.at(-1)?.band[1] ?? 0) + 4} fontWeight="700">
        bond
      </text>
      {strictest.map((g, n) => (
        <g key={g.layer}>
          <path d={band(g.curve)} fill="var(--danger)" opacity="0.12" />
          <path d={line(g.curve, 1)} fill="none" stroke="var(--danger)" strokeWidth="2" strokeDasharray="7 4" />
          <path d={`M${LEFT} ${y(g.harm_c)}H${WIDTH - RIGHT}`} stroke="var(--danger)" strokeWidth="1.5" />
          <text x={WIDTH - RIGHT + 6} y={y(g.harm_c) + (n === 0 ? 17 : -5)}>
            harms {short(g.name)}
          </text>
        </g>
      ))}
    </Picture>
  );
}

const short = (name: string) => name.split(" ").at(-1) ?? name;

function spoken(heating: Heating, plan: Plan): string {
  const lifted = plan.bond_curve.findLast((p) => p.seconds <= heating.seconds);
  const [low, usual, high] = (lifted?.band ?? [0, 0, 0]).map(Math.round);
  const guards = plan.guards.map((g) => `${g.name} up to ${Math.round(g.most_c[2] ?? 0)} °C`);
  return `After ${duration(heating.seconds)} the bond is at ${usual} °C (${low} to ${high}). ${guards.join(", ")}.`;
}

/** The same figures for those who would rather read them. */
export function CurveTable({ heating, plan }: { heating: Heating; plan: Plan }) {
  const every = Math.max(1, Math.round(plan.bond_curve.length / 12));
  const rows = plan.bond_curve.filter((_, n) => n % every === 0);
  const range = (band: number[] | undefined) => (band ? `${Math.round(band[0] ?? 0)}–${Math.round(band[2] ?? 0)}` : "");
  return (
    <More title="The same as a table">
      <Table>
        <thead>
          <tr>
            <th scope="col">Time</th>
            <th scope="col">Bond, °C</th>
            <th scope="col">Heated face, °C</th>
            {plan.guards.map((g) => (
              <th scope="col" key={g.layer}>
                {g.name}, °C (at most {g.plan_c})
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((p) => {
            const n = plan.bond_curve.indexOf(p);
            return (
              <tr key={p.seconds}>
                <th scope="row">
                  {duration(Math.round(p.seconds))}
                  {p.seconds > heating.seconds ? ", lifted" : ""}
                </th>
                <td>{range(p.band)}</td>
                <td>{range(plan.face_curve[n]?.band)}</td>
                {plan.guards.map((g) => (
                  <td key={g.layer}>{range(g.curve[n]?.band)}</td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </Table>
    </More>
  );
}
