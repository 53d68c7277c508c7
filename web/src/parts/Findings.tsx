/** What does not fit, each with the presses that mend it. */
import { type ReactNode, useId } from "react";
import styled from "styled-components";
import type { Edit } from "../api/client";
import { useHand } from "../api/manual";
import { space } from "../theme";
import { Button, Heading, Quiet } from "./controls";
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

/** What every kind of finding has. */
export type Shown = {
  says: string;
  blocks: boolean;
  fixes: { label: string; edit: Edit }[];
  why?: string;
  source?: string;
};

export function Findings<T extends Shown>(props: {
  name: string;
  findings: T[];
  /** A press beside the fixes, such as "Show it". */
  also?: (finding: T) => ReactNode;
}) {
  const { edit } = useHand();
  const id = useId();
  if (props.findings.length === 0) return null;
  return (
    <section aria-labelledby={id}>
      <Heading as="h3" id={id}>
        {props.name}
      </Heading>
      <List>
        {props.findings.map((f) => (
          <Item key={f.says} $blocks={f.blocks}>
            <p>{f.says}</p>
            {f.why && (
              <Quiet>
                {f.why} <span>Source: {f.source}.</span>
              </Quiet>
            )}
            <Row>
              {f.fixes.map((fix) => (
                <Button key={fix.label} onPress={() => void edit(fix.edit)}>
                  {fix.label}
                </Button>
              ))}
              {props.also?.(f)}
            </Row>
          </Item>
        ))}
      </List>
    </section>
  );
}
