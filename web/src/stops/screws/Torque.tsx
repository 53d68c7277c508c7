/** How tight: the window between "holds" and "harms", the setting in it, and the work behind the figures. */
import styled from "styled-components";
import type { FastenerGroup, JointFacts, Setting } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Check, CommitField, ErrorNote, FigureField, Heading, More, Muted, Select } from "../../parts/controls";
import { options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { Table } from "../../parts/table";
import { font, space } from "../../theme";
import { sendPair, useSetGroup, written } from "./set";

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

export function Torque({ group, setting }: Props) {
  const { view, edit } = useManual();
  const set = useSetGroup(group.id);
  const { computed } = setting;
  const second = view.manual.head.second_unit ?? "centinewton_metre";
  const again = setting.setting.find((u) => u.unit === labels.TorqueUnit[second] && u.unit !== "N·m");
  return (
    <Stack aria-label="How tight">
      <Heading as="h3">How tight</Heading>
      {setting.in_force_nm == null ? (
        <Figure>Snug</Figure>
      ) : (
        <Figure>
          {setting.in_force_nm} N·m{" "}
          <small>{[again && `${again.text} ${again.unit}`, setting.from].filter(Boolean).join("; ")}</small>
        </Figure>
      )}
      <p>{setting.by_hand}</p>
      {setting.open && (
        <ErrorNote>
          {setting.verdict === "breaks"
            ? `${group.torque_nm} N·m breaks the screw. Write a smaller setting.`
            : `${group.torque_nm} N·m lies outside the window: ${setting.verdict === "above" && computed ? computed.limit_says : "it may come loose"}. Change it, or say why it stands.`}
        </ErrorNote>
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
          options={options(labels.TorqueFrom)}
          onChange={(from) => void set({ torque_from: from === "" ? null : from })}
        />
        <Reason group={group} setting={setting} />
        <Check checked={group.snug ?? false} onChange={(snug) => void set({ snug })}>
          snug by hand, no figure
        </Check>
        <Select
          label="Readers also see"
          value={second}
          options={options(labels.TorqueUnit).map(([unit, label]) => [
            unit,
            unit === "newton_metre" ? "N·m only" : label,
          ])}
          onChange={(unit) => void edit({ head: { second_unit: unit || null } })}
        />
      </Row>
      <More title="Work it out from thread, class and material">
        <Bench group={group} setting={setting} />
      </More>
    </Stack>
  );
}

/** What is known of the joint, and the window that follows from it. */
function Bench({ group, setting }: Props) {
  const set = useSetGroup(group.id);
  const { computed } = setting;
  const joint: JointFacts = group.joint ?? {};
  const put = (part: Partial<JointFacts>) => set({ joint: { ...joint, ...part } });
  return (
    <Stack>
      {computed ? (
        <Window setting={setting} given={group.torque_nm ?? null} />
      ) : (
        <Muted>Write the thread, and the window between “holds” and “harms” is worked out.</Muted>
      )}
      <Row>
        <CommitField
          label="Thread"
          width="6em"
          value={group.thread ?? ""}
          onCommit={(typed) => set({ thread: written(typed) })}
        />
        <Check checked={group.forming ?? false} onChange={(forming) => void set({ forming })}>
          for plastic
        </Check>
        <Select
          label="Class"
          value={joint.class ?? ""}
          options={[["", "not known"], ...options(labels.Class)]}
          onChange={(c) => void put({ class: c || null })}
        />
        <Select
          label="Goes into"
          value={joint.into ?? ""}
          options={[["", "not known"], ...options(labels.Material)]}
          onChange={(m) => void put({ into: m || null })}
        />
        <FigureField
          label="Depth, mm"
          width="6em"
          value={joint.engagement_mm}
          onCommit={(engagement_mm) => put({ engagement_mm })}
        />
        <Select
          label="Under the head"
          value={joint.clamped ?? ""}
          options={[["", "nothing that gives"], ...options(labels.Material)]}
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
      {computed && <Work setting={setting} />}
    </Stack>
  );
}

/** Asked for only where a setting lies outside and breaks nothing. */
function Reason({ group, setting }: Props) {
  const set = useSetGroup(group.id);
  const outside = setting.verdict === "above" || setting.verdict === "below";
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
  const { computed } = setting;
  if (!computed) return null;
  const most = Math.max(computed.breaking_nm, computed.max_range_nm[1] ?? 0, given ?? 0) * 1.05;
  const at = (nm: number) => 4 + (nm / most) * 592;
  const [minLow, minHigh] = computed.min_range_nm;
  const [maxLow, maxHigh] = computed.max_range_nm;
  const empty = computed.recommended_nm == null;
  const words = setting.window.find((w) => w.unit === "N·m")?.text ?? "";
  return (
    <>
      <Scale
        viewBox="0 0 600 78"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Window ${words} N·m; ${computed.limit_says} above it`}
      >
        <defs>
          <pattern id="harm" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V7" stroke="var(--strong-line)" strokeWidth="2.4" />
          </pattern>
        </defs>
        <rect x="4" y="26" width="592" height="22" fill="var(--sunk)" stroke="var(--strong-line)" />
        <rect
          x={at(computed.max_nm)}
          y="26"
          width={Math.max(0, 596 - at(computed.max_nm))}
          height="22"
          fill="url(#harm)"
        />
        {!empty && (
          <rect
            x={at(computed.min_nm)}
            y="26"
            width={at(computed.max_nm) - at(computed.min_nm)}
            height="22"
            fill="var(--accent-wash)"
            stroke="var(--accent)"
            strokeWidth="2"
          />
        )}
        <Whisker from={at(minLow ?? 0)} to={at(minHigh ?? 0)} />
        <Whisker from={at(maxLow ?? 0)} to={at(maxHigh ?? 0)} />
        <path d={`M${at(computed.breaking_nm)} 20v34`} stroke="var(--ink)" strokeWidth="3" />
        {setting.in_force_nm != null && <path d={`M${at(setting.in_force_nm)} 26l-8 -14h16z`} fill="var(--ink)" />}
        {given != null && given !== setting.in_force_nm && (
          <path d={`M${at(given)} 26l-8 -14h16z`} fill="none" stroke="var(--danger)" strokeWidth="2.5" />
        )}
      </Scale>
      <Muted>
        {empty ? "No window: what holds already harms. " : `Window ${words} N·m. `}
        Above it, {computed.limit_says}. The screw breaks at {Number(computed.breaking_nm.toPrecision(3))} N·m.
        {computed.recommended_nm != null && ` Worked out: ${computed.recommended_nm} N·m.`} The whiskers show what the
        friction leaves open; by hand a clamp force is out by ±35 to 60 %, with a torque driver by ±20 to 25 %.
      </Muted>
    </>
  );
}

/** What the friction leaves open of one edge. */
function Whisker({ from, to }: { from: number; to: number }) {
  return <path d={`M${from} 52v6M${from} 55H${to}M${to} 52v6`} stroke="var(--ink)" fill="none" />;
}

/** Figures with formula and source. */
function Work({ setting }: { setting: Setting }) {
  const { computed } = setting;
  if (!computed) return null;
  return (
    <section aria-label="How this was worked out">
      {setting.assumed.length > 0 && <p>Assumed: {setting.assumed.join("; ")}.</p>}
      <p>
        {computed.turns} whole {computed.turns === 1 ? "turn" : "turns"} of thread hold.
        {computed.clamp_n &&
          ` At the setting it clamps with ${Math.round(computed.clamp_n[0] ?? 0)} to ${Math.round(computed.clamp_n[1] ?? 0)} N.`}
      </p>
      {computed.notes.map((note) => (
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
          {computed.worked.map((w) => (
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
    </section>
  );
}
