/** What is wrong with the order: first what can be mended by a press, then what only the author can tell. */
import type { OrderFinding } from "../../api/client";
import { Button, Quiet } from "../../parts/controls";
import { Findings as List } from "../../parts/Findings";

export function Findings({ findings, onShow }: { findings: OrderFinding[]; onShow: (step: string) => void }) {
  const [loud, quiet] = [findings.filter((f) => f.fixes.length > 0), findings.filter((f) => f.fixes.length === 0)];
  return (
    <>
      <List
        name="To look at"
        findings={loud}
        also={(f) => f.steps[0] && <Button onPress={() => onShow(f.steps[0] ?? "")}>Show it</Button>}
      />
      {quiet.map((f) => (
        <Quiet key={f.says}>{f.says}</Quiet>
      ))}
    </>
  );
}
