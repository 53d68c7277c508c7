/** One hazard: what brings it about, what a reader is told, and the presses that put it right. */
import { Link } from "react-router";
import styled from "styled-components";
import type { HazardRow } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, CommitField, Heading, Muted, Select } from "../../parts/controls";
import { One } from "../../parts/Findings";
import { options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { SafetySign } from "../../parts/SafetySign";
import { Warning } from "../../parts/Warning";
import { space } from "../../theme";

const Sheet = styled.section`
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.normal};
  display: grid;
  gap: ${space.small};
  dl { display: grid; grid-template-columns: max-content 1fr; gap: 4px ${space.normal}; }
  dt { color: var(--soft); }
  dd { margin: 0; }
`;
const Name = styled.div`
  display: flex;
  gap: ${space.small};
  align-items: center;
`;

export function HazardSheet({ row }: { row: HazardRow }) {
  const half = row.phase === "rebuild" ? " of the rebuild" : "";
  return (
    <Sheet aria-label={`Hazard: ${row.name}`}>
      <Name>
        <SafetySign sign={row.sign} size={40} named />
        <Heading as="h3">{row.name}</Heading>
        <Muted as="span">{labels.Level[row.level]}</Muted>
      </Name>
      <dl>
        <dt>Brought about by</dt>
        <dd>
          {row.steps.map((s, at) => (
            <span key={s.step}>
              {at > 0 && ", "}
              <Link to={`../steps?step=${s.step}`}>
                {s.number}. {s.title}
              </Link>
            </span>
          ))}
          {half}
        </dd>
        <dt>Because it</dt>
        <dd>{row.why}</dd>
        <dt>Warned of</dt>
        <dd>
          {labels.WarnPlace[row.place]}:{" "}
          {row.declined == null ? labels.Covered[row.covered] : `declined, ${row.declined}`}
        </dd>
        {row.defers && (
          <>
            <dt>Ask</dt>
            <dd>{row.defers}</dd>
          </>
        )}
      </dl>
      {row.said.map((said) => (
        <Said key={said.caution} row={row} said={said} />
      ))}
      {row.said.length === 0 && (
        <>
          <Muted>What its reader would see:</Muted>
          <Warning head={row.proposed.head}>{row.proposed.text}</Warning>
        </>
      )}
      {row.finding && <One finding={row.finding} />}
      <Muted>Source: {row.source}.</Muted>
    </Sheet>
  );
}

/** A caution as its reader sees it, with its words to change. */
function Said({ row, said }: { row: HazardRow; said: HazardRow["said"][number] }) {
  const { view, edit } = useManual();
  const caution = view.manual.cautions[said.caution];
  const first = row.steps[0];
  if (!caution) return null;
  const { id } = caution;
  return (
    <div>
      <Warning head={said.words.head}>{said.words.text}</Warning>
      <Row>
        <CommitField
          label={`Words of the caution at step ${said.step_number}`}
          width="26em"
          value={caution.text}
          onCommit={(text) => edit({ caution: { set: { id, field: { text } } } })}
        />
        <Select
          label="Signal word"
          value={caution.level ?? ""}
          options={[["", "by who is hurt"], ...options(labels.Level)]}
          onChange={(level) => void edit({ caution: { set: { id, field: { level: level || null } } } })}
        />
        {row.covered === "late" && first && (
          <Button onPress={() => void edit({ caution: { set: { id, field: { step: first.step } } } })}>
            Move it before step {first.number}
          </Button>
        )}
        <Button onPress={() => void edit({ caution: { remove: { id } } })}>Take it out</Button>
      </Row>
    </div>
  );
}
