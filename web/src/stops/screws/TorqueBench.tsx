/** How tight: the window between "holds" and "harms", the setting in it, and the work behind the figures. */

import { useState } from "react";
import styled from "styled-components";
import type { FastenerGroup, JointFacts, Mating, ScrewClass, Setting } from "../../api/client";
import { CommitField, Heading, Quiet, Select, Wrong } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { Table } from "../../parts/table";
import { font, space } from "../../theme";
import { sendFigure, sendPair, useSetGroup, written } from "./set";

const CLASSES: [ScrewClass, string][] = (["4.8", "5.8", "8.8", "10.9", "A2-50", "A2-70", "A4-80"] as const).map((c) => [
  c,
  c,
]);
const MATERIALS: [Mating, string][] = [
  ["steel", "steel"],
  ["brass_insert", "brass insert in plastic"],
  ["aluminium", "aluminium, wrought"],
  ["cast_aluminium", "aluminium, cast"],
  ["magnesium", "magnesium, cast"],
  ["pa66_gf30", "polyamide with glass"],
  ["pc", "polycarbonate"],
  ["abs", "ABS"],
];

const Stack = styled.section`
  display: grid;
  gap: ${space.small};
`;
const Figure = styled.p`
  font: 650 1.5rem ${font.plain};
  font-variant-numeric: tabular-nums;
  small { font-size: 0.95rem; font-weight: 400; color: var(--soft); }
`;
const Scale = styled.svg`
  display: block;
  width: 100%;
  height: 78px;
  margin: ${space.small} 0;
  font-family: ${font.plain};
`;

type Props = { group: FastenerGroup; setting: Setting };

export function TorqueBench({ group, setting }: Props) {
  const set = useSetGroup(group.id);
  const { bench } = setting;
  const joint: JointFacts = group.joint ?? {};
  const put = (part: Partial<JointFacts>) => set({ joint: { ...joint, ...part } });
  return (
    <Stack aria-label="How tight">
      <Heading as="h3">How tight</Heading>
      {setting.in_force_nm == null ? (
        <Figure>
          No setting <small>{bench ? "until one is given, or class and material are known" : "known"}</small>
        </Figure>
      ) : (
        <Figure>
          {setting.in_force_nm} N·m{" "}
          <small>
            {setting.setting
              .filter((u) => u.unit !== "N·m")
              .map((u) => `${u.text} ${u.unit}`)
              .join(" · ")}
          </small>
        </Figure>
      )}
      <p>{setting.by_hand}</p>
      {bench ? (
        <Window setting={setting} given={group.torque_nm ?? null} />
      ) : (
        <Quiet>Write the thread, and the window between “holds” and “harms” is worked out.</Quiet>
      )}
      {setting.open && (
        <Wrong>
          {setting.stands === "breaks"
            ? `${group.torque_nm} N·m breaks the screw. Write a smaller setting.`
            : `${group.torque_nm} N·m lies outside the window: ${setting.stands === "above" && bench ? bench.limit_says : "it may come loose"}. Change it, or say why it stands.`}
        </Wrong>
      )}
      <Row>
        <CommitField
          label="Given setting, any unit"
          width="10em"
          value={group.torque_nm == null ? "" : `${group.torque_nm} N·m`}
          onCommit={(typed) => set({ torque: written(typed) })}
        />
        <Select
          label="Given by"
          value={group.torque_from ?? "author"}
          options={[
            ["maker", "the maker"],
            ["narrator", "the narrator"],
            ["author", "me"],
          ]}
          onChange={(from) => void set({ torque_from: from === "" ? null : from })}
        />
        <Reason group={group} setting={setting} />
      </Row>
      <Row>
        <CommitField
          label="Thread"
          width="6em"
          value={group.thread ?? ""}
          onCommit={(typed) => set({ thread: written(typed) })}
        />
        <label>
          <input
            type="checkbox"
            checked={group.forming ?? false}
            onChange={(e) => void set({ forming: e.target.checked })}
          />{" "}
          for plastic
        </label>
        <Select
          label="Class"
          value={joint.class ?? ""}
          options={[["", "not known"], ...CLASSES]}
          onChange={(c) => void put({ class: c || null })}
        />
        <Select
          label="Goes into"
          value={joint.into ?? ""}
          options={[["", "not known"], ...MATERIALS]}
          onChange={(m) => void put({ into: m || null })}
        />
        <CommitField
          label="Depth, mm"
          width="6em"
          value={joint.engagement_mm?.toString() ?? ""}
          onCommit={(typed) => sendFigure(typed, (engagement_mm) => put({ engagement_mm }))}
        />
        <Select
          label="Under the head"
          value={joint.clamped ?? ""}
          options={[["", "nothing that gives"], ...MATERIALS]}
          onChange={(m) => void put({ clamped: m || null })}
        />
        <CommitField
          label="Friction, from to"
          width="8em"
          value={joint.friction?.join(" ") ?? ""}
          onCommit={(typed) => sendPair(typed, (friction) => put({ friction }))}
        />
        {group.forming && (
          <CommitField
            label="Measured: drives, strips, N·m"
            width="12em"
            value={joint.measured_nm?.join(" ") ?? ""}
            onCommit={(typed) => sendPair(typed, (measured_nm) => put({ measured_nm }))}
          />
        )}
      </Row>
      {bench && <Work setting={setting} />}
    </Stack>
  );
}

/** Asked for only where a setting lies outside and breaks nothing. */
function Reason({ group, setting }: Props) {
  const set = useSetGroup(group.id);
  const outside = setting.stands === "above" || setting.stands === "below";
  if (!outside) return null;
  return (
    <CommitField
      label="Why it stands"
      width="16em"
      value={group.torque_because ?? ""}
      onCommit={(typed) => set({ torque_because: written(typed) })}
    />
  );
}

/** The window as a bar from nothing to breaking. */
function Window({ setting, given }: { setting: Setting; given: number | null }) {
  const { bench } = setting;
  if (!bench) return null;
  const most = Math.max(bench.breaking_nm, bench.harms_range_nm[1] ?? 0, given ?? 0) * 1.05;
  const at = (nm: number) => 4 + (nm / most) * 592;
  const [holdsLow, holdsHigh] = bench.holds_range_nm;
  const [harmsLow, harmsHigh] = bench.harms_range_nm;
  const empty = bench.recommended_nm == null;
  const words = setting.window.find((w) => w.unit === "N·m")?.text ?? "";
  return (
    <>
      <Scale
        viewBox="0 0 600 78"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Window ${words} N·m; ${bench.limit_says} above it`}
      >
        <defs>
          <pattern id="harm" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V7" stroke="var(--strong-line)" strokeWidth="2.4" />
          </pattern>
        </defs>
        <rect x="4" y="26" width="592" height="22" fill="var(--sunk)" stroke="var(--strong-line)" />
        <rect
          x={at(bench.harms_nm)}
          y="26"
          width={Math.max(0, 596 - at(bench.harms_nm))}
          height="22"
          fill="url(#harm)"
        />
        {!empty && (
          <rect
            x={at(bench.holds_nm)}
            y="26"
            width={at(bench.harms_nm) - at(bench.holds_nm)}
            height="22"
            fill="var(--accent-wash)"
            stroke="var(--accent)"
            strokeWidth="2"
          />
        )}
        <Whisker from={at(holdsLow ?? 0)} to={at(holdsHigh ?? 0)} />
        <Whisker from={at(harmsLow ?? 0)} to={at(harmsHigh ?? 0)} />
        <path d={`M${at(bench.breaking_nm)} 20v34`} stroke="var(--ink)" strokeWidth="3" />
        {setting.in_force_nm != null && <path d={`M${at(setting.in_force_nm)} 26l-8 -14h16z`} fill="var(--ink)" />}
        {given != null && given !== setting.in_force_nm && (
          <path d={`M${at(given)} 26l-8 -14h16z`} fill="none" stroke="var(--danger)" strokeWidth="2.5" />
        )}
      </Scale>
      <Quiet>
        {empty ? "No window: what holds already harms. " : `Window ${words} N·m. `}
        Above it, {bench.limit_says}. The screw breaks at {Number(bench.breaking_nm.toPrecision(3))} N·m.
        {bench.recommended_nm != null && ` Worked out: ${bench.recommended_nm} N·m.`} The whiskers show what the
        friction leaves open; by hand a clamp force is out by ±35 to 60 %, with a torque driver by ±20 to 25 %.
      </Quiet>
    </>
  );
}

/** What the friction leaves open of one edge. */
function Whisker({ from, to }: { from: number; to: number }) {
  return <path d={`M${from} 52v6M${from} 55H${to}M${to} 52v6`} stroke="var(--ink)" fill="none" />;
}

/** Figures with formula and source. */
function Work({ setting }: { setting: Setting }) {
  const [open, setOpen] = useState(false);
  const { bench } = setting;
  if (!bench) return null;
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>How this was worked out</summary>
      {setting.assumed.length > 0 && <p>Assumed: {setting.assumed.join("; ")}.</p>}
      <p>
        {bench.turns} whole {bench.turns === 1 ? "turn" : "turns"} of thread hold.
        {bench.clamp_n &&
          ` At the setting it clamps with ${Math.round(bench.clamp_n[0] ?? 0)} to ${Math.round(bench.clamp_n[1] ?? 0)} N.`}
      </p>
      {bench.notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      <Table>
        <thead>
          <tr>
            <th scope="col">Figure</th>
            <th scope="col">Formula</th>
            <th scope="col">Value</th>
            <th scope="col">Source</th>
          </tr>
        </thead>
        <tbody>
          {bench.worked.map((w) => (
            <tr key={w.what}>
              <th scope="row">{w.what}</th>
              <td>{w.formula}</td>
              <td>
                {Number(w.value.toPrecision(3))} {w.unit}
              </td>
              <td>{w.source}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </details>
  );
}
