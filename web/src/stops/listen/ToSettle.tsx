/** What waits for an author: where a recording contradicts itself, and words that this house put right before. */
import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { Finding, ListenView, StatementRow } from "../../api/client";
import { Muted } from "../../parts/controls";
import { One } from "../../parts/Findings";
import { clock } from "../../parts/format";
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
  & > p:first-child { font-weight: 650; }
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

type Props = {
  /** The finding that somebody was sent here for. */
  wanted: string | null;
  recordings: ListenView[];
  found: Finding[];
  onShow: (recording: string, heard: StatementRow) => void;
};

export function ToSettle({ wanted, recordings, found, onShow }: Props) {
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    const card = wanted && list.current?.querySelector<HTMLElement>(`[data-finding="${wanted}"]`);
    if (!card) return;
    card.scrollIntoView({ block: "center" });
    card.focus({ preventScroll: true });
  }, [wanted]);
  if (found.length === 0)
    return <Muted>Nothing is left to settle: no contradiction was found, and no word that was put right before.</Muted>;
  return (
    <Cards ref={list} aria-label="To settle" tabIndex={0}>
      {found.map((finding) => (
        <Card key={finding.key} data-finding={finding.key} tabIndex={-1} $settled={finding.set_aside != null}>
          <One finding={finding} />
          <Sides>
            {places(finding, recordings).map(({ recording, heard }) => (
              <Side key={heard.statement.start} type="button" onClick={() => onShow(recording, heard)}>
                <time>{heard.statement.from_ms == null ? "in the text" : `≈ ${clock(heard.statement.from_ms)}`}</time>
                {heard.statement.text}
              </Side>
            ))}
          </Sides>
        </Card>
      ))}
    </Cards>
  );
}

/** The statements that a finding stands in, the earlier one first. */
function places(finding: Finding, recordings: ListenView[]) {
  const found = finding.about.flatMap((subject) => {
    if (!("words" in subject)) return [];
    const { recording, start } = subject.words;
    const heard = recordings.find((r) => r.id === recording)?.heard.statements.find((s) => s.statement.start === start);
    return heard ? [{ recording, heard }] : [];
  });
  return found.sort((a, b) => a.heard.statement.start - b.heard.statement.start);
}
