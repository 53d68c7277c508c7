/** How deep every part sits, and which few parts decide over most of the work. */
import styled from "styled-components";
import type { ChainView } from "../../api/client";
import { useManual } from "../../api/manual";
import { Button, More, Muted } from "../../parts/controls";
import { minutes } from "../../parts/format";

const Box = styled.div`
  table { border-collapse: collapse; width: 100%; font-size: 0.92rem; }
  th, td { text-align: right; padding: 2px 6px; border-bottom: 1px solid var(--line); font-weight: 400; }
  th:first-child, td:first-child { text-align: left; }
  thead th { color: var(--soft); }
`;

export function Depths({ chain, onReach }: { chain: ChainView; onReach: (part: string) => void }) {
  const { view } = useManual();
  const name = (part: string) => view.manual.parts[part]?.name ?? "part";
  const { gates } = chain;
  return (
    <More title="How deep each part sits">
      <Box>
        {gates.length > 0 && (
          <Muted>Most lies behind {gates.map((g) => `the ${name(g.part)} (${g.opens})`).join(", ")}.</Muted>
        )}
        <table>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Steps</th>
              <th scope="col">by EN 45554</th>
              <th scope="col">Time</th>
              <th scope="col">Behind it</th>
            </tr>
          </thead>
          <tbody>
            {chain.parts.map((p) => (
              <tr key={p.part}>
                <td>
                  <Button onPress={() => onReach(p.part)}>{name(p.part)}</Button>
                </td>
                <td>{p.steps ?? "–"}</td>
                <td>{p.counted_steps ?? "–"}</td>
                <td>{p.seconds == null ? "–" : minutes(p.seconds)}</td>
                <td>{p.opens}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <Muted>Steps are counted by the rule of EN 45554 as remembered; times are those of practised hands.</Muted>
      </Box>
    </More>
  );
}
