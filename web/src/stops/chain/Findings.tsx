/** What is wrong with the order, each with the presses that mend it. */
import styled from "styled-components";
import type { OrderFinding } from "../../api/client";
import { useHand } from "../../api/manual";
import { Button, Heading, Quiet } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

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

export function Findings({ findings, onShow }: { findings: OrderFinding[]; onShow: (step: string) => void }) {
  const { edit } = useHand();
  if (findings.length === 0) return null;
  const [loud, quiet] = [findings.filter((f) => f.fixes.length > 0), findings.filter((f) => f.fixes.length === 0)];
  return (
    <section aria-label="What is wrong with the order">
      <Heading as="h3">To look at</Heading>
      <List>
        {loud.map((f) => (
          <Item key={f.says} $blocks={f.blocks}>
            <p>{f.says}</p>
            <Row>
              {f.fixes.map((fix) => (
                <Button key={fix.label} onPress={() => void edit(fix.edit)}>
                  {fix.label}
                </Button>
              ))}
              {f.steps[0] && <Button onPress={() => onShow(f.steps[0] ?? "")}>Show it</Button>}
            </Row>
          </Item>
        ))}
      </List>
      {quiet.map((f) => (
        <Quiet key={f.says}>{f.says}</Quiet>
      ))}
    </section>
  );
}
