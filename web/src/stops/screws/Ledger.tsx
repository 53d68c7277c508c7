/** The ledger: every group in the order of removal, by step, with what is out, back and left over. */
import { Cell, Collection, Column, Row as Line, TableBody, TableHeader } from "react-aria-components";
import styled from "styled-components";
import type { Finding, LedgerRow, ScrewsView } from "../../api/client";
import { useManual } from "../../api/manual";
import { BitProfile } from "../../parts/BitProfile";
import { isAbout } from "../../parts/Findings";
import { Tag } from "../../parts/Tag";
import { Grid } from "../../parts/table";
import { font, space } from "../../theme";

const Book = styled(Grid)`
  th, td { padding: 3px 6px; vertical-align: middle; border-bottom: 0; }
  thead th { border-bottom: 1px solid var(--strong-line); }
  tr[data-selection-mode] { cursor: pointer; }
  tr[data-hovered] { background: var(--sunk); }
  tr[data-open] td.left { color: var(--danger); font-weight: 700; }
  tr[data-step] td { font: 600 0.98rem ${font.text}; padding-top: ${space.small}; border-bottom: 1px solid var(--line); }
  tr[data-step] td.n { font: 400 0.9rem ${font.plain}; color: var(--soft); }
  tr[data-sum] td { border-top: 2px solid var(--ink); font-weight: 700; }
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

type Props = {
  screws: ScrewsView;
  found: Finding[];
  chosen: string | null;
  onChoose: (group: string) => void;
};

/** A group, or the step above its groups. */
type Shown = { id: string; row: LedgerRow; heads: boolean };

/** Rows that are no group: the step above its groups, the sum below all. */
const STEP = "step ";
const SUM = "sum";

export function Ledger({ screws, found, chosen, onChoose }: Props) {
  const { view } = useManual();
  const { rows, steps, balance } = screws.ledger;
  const known = rows.filter((r) => view.manual.fasteners[r.group]);
  const lines = known.flatMap((row, at): Shown[] =>
    known[at - 1]?.step === row.step
      ? [{ id: row.group, row, heads: false }]
      : [
          { id: STEP + row.step, row, heads: true },
          { id: row.group, row, heads: false },
        ],
  );
  return (
    <Book
      aria-label="Ledger of the screws"
      selectionMode="single"
      selectionBehavior="replace"
      disallowEmptySelection
      disabledKeys={[...lines.filter((l) => l.heads).map((l) => l.id), SUM]}
      selectedKeys={chosen === null ? [] : [chosen]}
      onSelectionChange={(keys) => {
        const [key] = keys === "all" ? [] : [...keys];
        if (key !== undefined) onChoose(String(key));
      }}
    >
      <TableHeader>
        <Column>Group</Column>
        <Column isRowHeader>Screws</Column>
        <Column className="n">Out</Column>
        <Column className="n">Put back</Column>
        <Column className="n">Left</Column>
      </TableHeader>
      <TableBody>
        <Collection items={lines} dependencies={[screws, found, view]}>
          {({ id, row, heads }) =>
            heads ? (
              <Line id={id} data-step={row.step} textValue={view.manual.steps[row.step]?.title ?? ""}>
                <Cell colSpan={2}>
                  {row.step_number}. {view.manual.steps[row.step]?.title}
                </Cell>
                <Cell colSpan={3} className="n">
                  {bench(steps.find((s) => s.step === row.step))}
                </Cell>
              </Line>
            ) : (
              <GroupLine row={row} screws={screws} found={found} />
            )
          }
        </Collection>
        <Line id={SUM} data-sum textValue="Sum">
          <Cell colSpan={2}>Sum{balance.uncounted > 0 && `, ${balance.uncounted} not counted`}</Cell>
          <Cell className="n">{balance.out}</Cell>
          <Cell className="n">
            {balance.back}
            {balance.renewed > 0 && ` + ${balance.renewed}`}
          </Cell>
          <Cell className="n">{balance.left_over}</Cell>
        </Line>
      </TableBody>
    </Book>
  );
}

const bench = (step: ScrewsView["ledger"]["steps"][number] | undefined) =>
  step ? `bench ${step.on_bench ?? "?"}` : "";

function GroupLine({ row, screws, found }: { row: LedgerRow; screws: ScrewsView; found: Finding[] }) {
  const { view } = useManual();
  const about = screws.groups.find((g) => g.group === row.group);
  const drive = view.manual.fasteners[row.group]?.drive;
  const out = row.comes_out;
  const open = found.some((f) => f.set_aside == null && isAbout(f, "group", row.group));
  return (
    <Line
      id={row.group}
      data-group={row.group}
      data-open={(row.left_over ?? 0) !== 0 ? "" : undefined}
      textValue={`Group ${row.tag.letter}, ${row.label}`}
    >
      <Cell>
        <Tag tag={row.tag} />
      </Cell>
      <Cell>
        <What>
          <BitProfile drive={drive} />
          <span>
            {row.count} × {about?.kind}
            <Small>
              {[about?.holds, ...(about?.remarks ?? [])].filter(Boolean).join(", ")}
              {open && <b> · look at it</b>}
            </Small>
          </span>
        </What>
      </Cell>
      <Cell className="n">{out ? (row.out ?? "?") : "–"}</Cell>
      <Cell className="n">{out ? `${row.back ?? "?"}${row.renewed ? ` + ${row.renewed}` : ""}` : "–"}</Cell>
      <Cell className="n left">{out ? (row.left_over ?? (row.on_purpose ? "out" : "?")) : "–"}</Cell>
    </Line>
  );
}
