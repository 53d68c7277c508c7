/** The ledger: every group in the order of removal, by step, with what is out, back and left over. */
import { useRef } from "react";
import styled from "styled-components";
import type { LedgerRow, ScrewsView } from "../../api/client";
import { useHand } from "../../api/manual";
import { BitProfile } from "../../parts/BitProfile";
import { focusRing, font, space } from "../../theme";
import { Tag } from "./Tag";

const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  font-variant-numeric: tabular-nums;
  th, td { text-align: left; padding: 3px 6px; vertical-align: middle; font-weight: 400; }
  thead th { color: var(--soft); font-size: 0.86rem; border-bottom: 1px solid var(--strong-line); }
  tfoot th, tfoot td { border-top: 2px solid var(--ink); font-weight: 700; }
  td.n, th.n { text-align: right; }
`;
const StepRow = styled.tr`
  th { font: 600 0.98rem ${font.text}; padding-top: ${space.small}; border-bottom: 1px solid var(--line); }
  td { color: var(--soft); border-bottom: 1px solid var(--line); padding-top: ${space.small}; font-size: 0.9rem; }
`;
const Row = styled.tr<{ $open: boolean }>`
  cursor: pointer;
  &:hover { background: var(--sunk); }
  &[aria-selected="true"] { background: var(--accent-wash); box-shadow: inset 4px 0 0 var(--accent); }
  &:focus-visible { ${focusRing} outline-offset: -3px; }
  ${(p) => p.$open && "td.left { color: var(--danger); font-weight: 700; }"}
`;
const What = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
`;
const Small = styled.small`
  display: block;
  color: var(--soft);
`;

type Props = { screws: ScrewsView; chosen: string | null; onChoose: (group: string) => void };

export function Ledger({ screws, chosen, onChoose }: Props) {
  const { view } = useHand();
  const body = useRef<HTMLTableSectionElement>(null);
  const { rows, steps, balance } = screws.ledger;
  const known = rows.filter((r) => view.manual.fasteners[r.group]);
  const focus = (row: LedgerRow | undefined) => {
    if (!row) return;
    onChoose(row.group);
    body.current?.querySelector<HTMLElement>(`[data-group="${row.group}"]`)?.focus();
  };
  const onKey = (event: React.KeyboardEvent, at: number) => {
    if (event.target !== event.currentTarget) return;
    if (event.key === "ArrowDown") focus(known[at + 1]);
    else if (event.key === "ArrowUp") focus(known[at - 1]);
    else if (event.key === "Enter" || event.key === " ") focus(known[at]);
    else return;
    event.preventDefault();
  };
  return (
    <Table role="grid" aria-label="Ledger of the screws">
      <thead>
        <tr>
          <th scope="col">Group</th>
          <th scope="col">Screws</th>
          <th scope="col" className="n">
            Out
          </th>
          <th scope="col" className="n">
            Back
          </th>
          <th scope="col" className="n">
            Left
          </th>
        </tr>
      </thead>
      <tbody ref={body}>
        {known.map((row, at) => {
          const group = view.manual.fasteners[row.group];
          if (!group) return null;
          const step = known[at - 1]?.step === row.step ? undefined : steps.find((s) => s.step === row.step);
          const first = known[at - 1]?.step !== row.step;
          const length = group.length_mm == null ? null : `${group.length_mm} mm`;
          const kind = [group.bit ?? "?", group.thread, length].filter(Boolean).join(", ");
          return [
            first && (
              <StepRow key={row.step}>
                <th scope="rowgroup" colSpan={2}>
                  {row.step_number}. {view.manual.steps[row.step]?.title}
                </th>
                <td colSpan={3} className="n">
                  {step ? `bench ${step.on_bench}` : ""}
                </td>
              </StepRow>
            ),
            <Row
              key={row.group}
              data-group={row.group}
              $open={(row.left_over ?? 0) !== 0}
              tabIndex={chosen === row.group || (chosen === null && at === 0) ? 0 : -1}
              aria-selected={chosen === row.group}
              aria-label={`Group ${row.tag.letter}, ${row.label}`}
              onClick={() => onChoose(row.group)}
              onKeyDown={(event) => onKey(event, at)}
            >
              <td>
                <Tag tag={row.tag} />
              </td>
              <td>
                <What>
                  <BitProfile drive={group.drive} />
                  <span>
                    {group.count ?? "?"} × {kind}
                    <Small>
                      {group.name ?? group.holds.map((p) => view.manual.parts[p]?.name).join(" + ")}
                      {group.captive ? ", captive" : ""}
                      {group.fate === "renew" ? ", new ones" : ""}
                      {screws.findings.some((f) => "group" in f.about && f.about.group === row.group) && (
                        <b> · look at it</b>
                      )}
                    </Small>
                  </span>
                </What>
              </td>
              <td className="n">{row.comes_out ? (row.out ?? "?") : "–"}</td>
              <td className="n">
                {row.comes_out ? (row.back ?? "?") + (row.renewed ? ` + ${row.renewed}` : "") : "–"}
              </td>
              <td className="n left">
                {row.comes_out ? (row.left_over ?? (group.fate === "leave_out" ? "out" : "?")) : "–"}
              </td>
            </Row>,
          ];
        })}
      </tbody>
      <tfoot>
        <tr>
          <th scope="row" colSpan={2}>
            Sum{balance.uncounted > 0 && `, ${balance.uncounted} not counted`}
          </th>
          <td className="n">{balance.out}</td>
          <td className="n">
            {balance.back}
            {balance.renewed > 0 && ` + ${balance.renewed}`}
          </td>
          <td className="n">{balance.left_over}</td>
        </tr>
      </tfoot>
    </Table>
  );
}
