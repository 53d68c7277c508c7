/** Tools and materials: what the steps use, what is laid out at the start, and where the two differ. */
import { Plus } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { type DeviceView, newId } from "../../api/client";
import { useHand } from "../../api/manual";
import { Button, Quiet, TextInput, Wrong } from "../../parts/controls";
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
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const numbers = new Map(view.order.map((id, i) => [id, i + 1]));
  const layOut = async (tool: string) => {
    const result = await edit({ kit: { lay_out: { id: newId(), name: tool } } });
    setWrong(result.ok ? null : result.problem.detail);
    if (result.ok) setName("");
  };
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
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void layOut(name);
        }}
      >
        <Row>
          <TextInput
            aria-label="Tool to lay out"
            style={{ width: "16em" }}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit">
            <Plus size={15} aria-hidden /> Lay it out
          </Button>
        </Row>
        {wrong && <Wrong>{wrong}</Wrong>}
      </form>
    </Box>
  );
}
