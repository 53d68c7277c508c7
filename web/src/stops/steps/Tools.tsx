/** Tools and materials: what the steps use, what is laid out at the start, and where the two differ. */
import { Cell, Column, Row as Line, TableBody, TableHeader } from "react-aria-components";
import styled from "styled-components";
import { type Finding, newId, type StepsView } from "../../api/client";
import { useManual } from "../../api/manual";
import { AddLine } from "../../parts/AddLine";
import { Button, Check, CommitField, Heading, Muted } from "../../parts/controls";
import { Findings, isOfKind } from "../../parts/Findings";
import { Row } from "../../parts/layout";
import { Grid } from "../../parts/table";
import { space } from "../../theme";

const Box = styled.div`
  display: grid;
  gap: ${space.wide};
`;

type Props = { steps: StepsView; found: Finding[]; onShow: (step: string) => void };

export function Tools({ steps, found, onShow }: Props) {
  const { view, edit } = useManual();
  const numbers = new Map(view.order.map((id, i) => [id, i + 1]));
  const layOut = (name: string) => edit({ kit: { lay_out: { id: newId(), name } } });
  const listed = Object.values(view.manual.kit ?? {}).sort((a, b) => a.name.localeCompare(b.name));
  return (
    <Box>
      <Findings name="To look at" findings={found.filter((f) => isOfKind(f, "tool") || isOfKind(f, "tool_named"))} />
      <Grid aria-label="Tools and materials">
        <TableHeader>
          <Column isRowHeader>Tool or material</Column>
          <Column>On the tool list</Column>
          <Column>Used in step</Column>
          <Column>Another does as well</Column>
        </TableHeader>
        <TableBody
          renderEmptyState={() => <Muted>No step names a tool yet. Name them in the steps, or lay one out here.</Muted>}
        >
          {steps.tools.map((tool) => (
            <Line key={tool.name} id={tool.name} textValue={tool.name}>
              <Cell>{tool.name}</Cell>
              <Cell>
                <Check
                  name={`${tool.name} is on the tool list`}
                  checked={tool.laid_out != null}
                  onChange={() =>
                    void (tool.laid_out ? edit({ kit: { put_away: { id: tool.laid_out } } }) : layOut(tool.name))
                  }
                />
              </Cell>
              <Cell>
                <Row>
                  {tool.steps.map((step) => (
                    <Button
                      key={step}
                      onPress={() => onShow(step)}
                      aria-label={`Step ${numbers.get(step)}: ${view.manual.steps[step]?.title}`}
                    >
                      {numbers.get(step)}
                    </Button>
                  ))}
                  {tool.steps.length === 0 && <Muted as="span">nowhere</Muted>}
                </Row>
              </Cell>
              <Cell>{tool.replaceable ? "yes" : ""}</Cell>
            </Line>
          ))}
        </TableBody>
      </Grid>
      <AddLine
        name="Tool or material for the list"
        button="Put it on the list"
        width="16em"
        onAdd={(name) => layOut(name)}
      />
      {listed.length > 0 && (
        <section aria-label="How much of each">
          <Heading as="h3">How much of each</Heading>
          <Row>
            {listed.map((t) => (
              <CommitField
                key={t.id}
                label={t.name}
                width="12em"
                value={t.amount ?? ""}
                onCommit={(amount) => edit({ kit: { amount: { id: t.id, amount: amount.trim() || null } } })}
              />
            ))}
          </Row>
          <Muted>“20 cm, 3 mm wide” or “5 ml”; readers see it beside the material.</Muted>
        </section>
      )}
    </Box>
  );
}
