/** Where a recording contradicts itself: both places side by side, and a choice that settles it. */
import styled from "styled-components";
import type { Edit, Heard, HeardFinding, ListenRecording } from "../../api/client";
import { Button, Heading, Quiet } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { clock } from "../../parts/words";
import { font, narrow, space } from "../../theme";

const Cards = styled.ol`
  display: grid;
  gap: ${space.normal};
  overflow: auto;
  height: 100%;
  align-content: start;
`;
const Card = styled.li<{ $settled: boolean }>`
  border: 1px solid var(--line);
  border-left: 4px solid ${(p) => (p.$settled ? "var(--line)" : "var(--hazard)")};
  border-radius: 8px;
  background: var(--sheet);
  padding: ${space.normal};
  display: grid;
  gap: ${space.small};
`;
const Sides = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: ${space.normal};
  ${narrow} { grid-template-columns: 1fr; }
`;
const Side = styled.button`
  all: unset;
  box-sizing: border-box;
  cursor: pointer;
  background: var(--sunk);
  border-radius: 6px;
  padding: ${space.small};
  font: 400 1rem/1.45 ${font.text};
  time { font: 400 0.84rem ${font.plain}; color: var(--soft); display: block; }
  &:focus-visible { outline: 3px solid var(--accent); outline-offset: 2px; }
`;

const KIND: Record<string, string> = {
  count: "Count",
  unit: "Units",
  size: "Size",
  repeat: "Said twice",
  omitted: "Left out",
  "late-tool": "Not on the list",
  "late-posture": "How it lies, told late",
  side: "Left or right",
  order: "Order",
};

export const openFindings = (recordings: ListenRecording[]) =>
  recordings.flatMap((r) => r.heard.findings).filter((f) => f.settled == null).length;

export function Contradictions(props: {
  recordings: ListenRecording[];
  edit: (edit: Edit) => void;
  onShow: (recording: string, heard: Heard) => void;
}) {
  const all = props.recordings.flatMap((r) => r.heard.findings.map((finding) => ({ r, finding })));
  if (all.length === 0) return <Quiet>The recording contradicts itself nowhere that could be found.</Quiet>;
  all.sort((a, b) => Number(a.finding.settled != null) - Number(b.finding.settled != null));
  return (
    <Cards aria-label="Contradictions" tabIndex={0}>
      {all.map(({ r, finding }) => (
        <One key={`${r.id}/${finding.kind}/${finding.at}`} recording={r} finding={finding} {...props} />
      ))}
    </Cards>
  );
}

function One(props: {
  recording: ListenRecording;
  finding: HeardFinding;
  edit: (edit: Edit) => void;
  onShow: (recording: string, heard: Heard) => void;
}) {
  const { recording, finding } = props;
  const places = [finding.against, finding.at].flatMap((i) => {
    const heard = i == null ? undefined : recording.heard.statements[i];
    return heard ? [heard] : [];
  });
  return (
    <Card $settled={finding.settled != null}>
      <Heading as="h3">
        {KIND[finding.kind]}: {finding.says}
      </Heading>
      <Sides>
        {places.map((heard) => (
          <Side key={heard.statement.start} type="button" onClick={() => props.onShow(recording.id, heard)}>
            <time>{heard.statement.from_ms == null ? "in the text" : `≈ ${clock(heard.statement.from_ms)}`}</time>
            {heard.statement.text}
          </Side>
        ))}
      </Sides>
      {finding.settled != null && <Quiet>Settled: {finding.settled}</Quiet>}
      <Row>
        {finding.choices.map((choice) => (
          <Button key={choice.label} onPress={() => props.edit(choice.edit)}>
            {choice.label}
          </Button>
        ))}
      </Row>
    </Card>
  );
}
