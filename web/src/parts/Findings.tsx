/** What does not fit, each with the presses that mend it, or the reason why it does not matter here. */
import { type ReactNode, useId, useState } from "react";
import styled from "styled-components";
import type { Finding } from "../api/client";
import { useManual } from "../api/manual";
import { space } from "../theme";
import { Button, Heading, Muted, Typed } from "./controls";
import { Row } from "./layout";

const List = styled.ul`
  display: grid;
  gap: ${space.small};
`;
const Item = styled.li<{ $blocks: boolean }>`
  border-left: 4px solid ${(p) => (p.$blocks ? "var(--danger)" : "var(--strong-line)")};
  background: var(--sheet);
  padding: ${space.small} ${space.normal};
  display: grid;
  gap: ${space.hair};
  button { white-space: normal; text-align: left; }
`;

type Props = {
  name: string;
  findings: Finding[];
  /** A press beside the fixes, such as "Show it". */
  also?: (finding: Finding) => ReactNode;
};

export function Findings({ name, findings, also }: Props) {
  const id = useId();
  if (findings.length === 0) return null;
  return (
    <section aria-labelledby={id}>
      <Heading as="h3" id={id}>
        {name}
      </Heading>
      <List>
        {findings.map((f) => (
          <Item key={f.key} $blocks={f.blocks}>
            <One finding={f} also={also} />
          </Item>
        ))}
      </List>
    </section>
  );
}

/** One finding: what, why, and the ways out. */
export function One({ finding: f, also }: { finding: Finding; also?: Props["also"] }) {
  const { edit } = useManual();
  const [asking, setAsking] = useState(false);
  if (f.set_aside != null)
    return (
      <>
        <Muted>
          <s>{f.says}</s> Set aside: {f.set_aside}
        </Muted>
        {f.may_set_aside && (
          <Row>
            <Button onPress={() => void edit({ finding: { take_up: { id: f.key } } })}>It matters after all</Button>
            {also?.(f)}
          </Row>
        )}
      </>
    );
  return (
    <>
      <p>
        {f.blocks && <strong>Blocks publishing: </strong>}
        {f.says}
      </p>
      <Muted>
        {f.why} <span>Source: {f.source}.</span>
      </Muted>
      <Row style={{ alignItems: "center" }}>
        {f.fixes.map((fix) => (
          <Button key={fix.label} onPress={() => void edit(fix.edit)}>
            {fix.label}
          </Button>
        ))}
        {also?.(f)}
        {f.may_set_aside && !asking && <Button onPress={() => setAsking(true)}>{asideWords(f).press}</Button>}
      </Row>
      {asking && (
        <Reason
          id={f.key}
          rule={f.rule}
          asks={asideWords(f).asks}
          press="Set it aside"
          onDone={() => setAsking(false)}
        />
      )}
    </>
  );
}

/** What is set aside of a line that only licensed people cross is who does the work; a proposal is declined. */
function asideWords(f: Finding) {
  switch (f.rule) {
    case "licensed-work":
      return {
        press: "Say who does it",
        asks: "Who does it; the guide stops there, unless you write “its readers: …”",
      };
    case "hazard-unsaid":
      return { press: "Decline it", asks: "Why no warning is needed here" };
    default:
      return { press: "It does not matter here", asks: "Why it does not matter here" };
  }
}

type Asked = {
  /** By what it is kept. */
  id: string;
  rule: string;
  asks: string;
  press: string;
  onDone: () => void;
};

/** Nothing is decided against a rule without a reason; what is refused is told at its field. */
export function Reason({ id, rule, asks, press, onDone }: Asked) {
  const { edit } = useManual();
  const [because, setBecause] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const send = async () => {
    const result = await edit({ finding: { set_aside: { id, rule, because } } });
    setWrong(result.ok ? null : result.problem.detail);
    if (result.ok) onDone();
  };
  return (
    <form
      aria-label={asks}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <Row>
        <Typed label={asks} width="22em" value={because} onChange={setBecause} wrong={wrong} autoFocus />
        <Button type="submit">{press}</Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </form>
  );
}

/** Whether a finding is about one thing. */
export const isAbout = (finding: Finding, kind: "step" | "part" | "note" | "tool" | "group", id: string | null) =>
  finding.about.some((subject) => kind in subject && (subject as Record<string, string>)[kind] === id);

/** Whether it is about a thing of this kind at all. */
export const isOfKind = (finding: Finding, kind: string) => finding.about.some((subject) => kind in subject);

/** The first thing of a kind that it is about. */
export function idOf(finding: Finding, kind: "step" | "part" | "note" | "tool" | "group"): string | undefined {
  const subject = finding.about.find((s) => kind in s) as Record<string, string> | undefined;
  return subject?.[kind];
}
