/** Tools and materials: what the steps use, what is laid out at the start, and where the two differ. */
import styled from "styled-components";
import { type DeviceView, newId } from "../../api/client";
import { useHand } from "../../api/manual";
import { AddLine } from "../../parts/AddLine";
import { Button, Quiet } from "../../parts/controls";
import { Findings } from "../../parts/Findings";
import { Row } from "../../parts/layout";
import { Table } from "../../parts/table";
import { space } from "../../theme";

const Box = styled.div`
  display: grid;
  gap: ${space.wide};
`;

export function Tools({ device, onShow }: { device: DeviceView; onShow: (step: string) => void }) {
  const { view, edit } = useHand();
  const numbers = new Map(view.order.map((id, i) => [id, i + 1]));
  const layOut = (name: string) => edit({ kit: { lay_out: { id: newId(), name } } });
  return (
    <Box>
      <Findings
        name="To look at"
        findings={device.findings.filter((f) => f.rule === "laid-out-unused" || f.rule === "used-not-laid-out")}
      />
      <Table>
        <thead>
          <tr>
            <th scope="col">Tool or material</th>
            <th scope="col">Laid out at the start</th>
            <th scope="col">Used in step</th>
            <th scope="col">Another does as well</th>
          </tr>
        </thead>
        <tbody>
          {device.tools.map((tool) => (
            <tr key={tool.name}>
              <th scope="row">{tool.name}</th>
              <td>
                <input
                  type="checkbox"
                  aria-label={`${tool.name} is laid out`}
                  checked={tool.laid_out != null}
                  onChange={() =>
                    void (tool.laid_out ? edit({ kit: { put_away: { id: tool.laid_out } } }) : layOut(tool.name))
                  }
                />
              </td>
              <td>
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
                  {tool.steps.length === 0 && <Quiet as="span">nowhere</Quiet>}
                </Row>
              </td>
              <td>{tool.replaceable ? "yes" : ""}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {device.tools.length === 0 && (
        <Quiet>No step names a tool yet. Name them in the steps, or lay one out here.</Quiet>
      )}
      <AddLine name="Tool to lay out" button="Lay it out" width="16em" onAdd={layOut} />
    </Box>
  );
}
