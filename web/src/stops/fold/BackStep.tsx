/** A step of the rebuild opened: its lines, why it stands here, what can be checked after it, and what does not fit. */
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Finding } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, Muted } from "../../parts/controls";
import { One, Reason } from "../../parts/Findings";
import { Row } from "../../parts/layout";
import { space } from "../../theme";
import type { Back } from "./rows";

const Lines = styled.ul`
  padding-left: 2.4em;
  font-size: 0.95rem;
  display: grid;
  gap: 2px;
  li[data-check] { padding-left: 1.5em; text-indent: -1.5em; }
  li[data-check]::before { content: "✓ "; display: inline-block; width: 1.5em; text-indent: 0; font-weight: 700; color: var(--accent); }
`;
const Differs = styled.div`
  border-left: 4px solid var(--hazard);
  padding: ${space.hair} ${space.small};
  margin: ${space.hair} 0 0 2.4em;
  font-size: 0.95rem;
  display: grid;
  gap: ${space.hair};
`;
const Why = styled.div`
  margin: ${space.hair} 0 0 2.4em;
  font-size: 0.9rem;
`;

export function BackStep({ step, findings, chosen }: { step: Back; findings: Finding[]; chosen: boolean }) {
  return (
    <>
      <Lines>
        {step.lines.map((line, i) => (
          <li key={`${line.told} ${line.text}`}>
            {line.text}{" "}
            {line.because && line.because !== step.lines[i + 1]?.because && <Muted as="span">{line.because}</Muted>}
          </li>
        ))}
        {step.proofs.map((proof) => (
          <li key={`${proof.kind} ${proof.what}`} data-check="">
            <span>
              <b>{capital(proof.what)}</b> ({labels.ProofKind[proof.kind]}): {proof.says}{" "}
              {chosen && proof.if_not && <Muted as="span">{proof.if_not}</Muted>}
            </span>
          </li>
        ))}
      </Lines>
      {step.moved && <Moved step={step} chosen={chosen} />}
      {chosen &&
        findings.map((f) => (
          <Differs key={f.key}>
            <One finding={f} />
          </Differs>
        ))}
      {chosen && step.told && (
        <Why>
          <Link to={`../steps?step=${step.told}&open=1`}>Open the told step</Link>
        </Why>
      )}
    </>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Why it stands elsewhere, and the way to overrule that with a reason. */
function Moved({ step, chosen }: { step: Back; chosen: boolean }) {
  const { edit } = useManual();
  const [asking, setAsking] = useState(false);
  const moved = step.moved;
  if (!moved) return null;
  const key = moved.key;
  return (
    <Why>
      {moved.overruled == null ? (
        <Muted>
          {moved.because}. <span>Source: {moved.source}.</span>
        </Muted>
      ) : (
        <Muted>
          <s>{moved.because}.</s> Overruled: {moved.overruled}
        </Muted>
      )}
      {chosen && key && (
        <Row style={{ alignItems: "end" }}>
          {moved.overruled != null && (
            <Button onPress={() => void edit({ finding: { take_up: { id: key } } })}>The rule holds after all</Button>
          )}
          {moved.overruled == null && !asking && (
            <Button onPress={() => setAsking(true)}>Put it where reversing has it …</Button>
          )}
        </Row>
      )}
      {chosen && key && asking && (
        <Reason
          id={key}
          rule={labels.OrderRule[moved.rule]}
          asks="Why it stands where reversing has it"
          press="Overrule"
          onDone={() => setAsking(false)}
        />
      )}
    </Why>
  );
}
