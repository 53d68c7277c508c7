/** What the author counts as work when ways and orders are compared. */
import type { Weights } from "../../api/client";
import { useManual } from "../../api/manual";
import { FigureField, More, Muted } from "../../parts/controls";
import { Row } from "../../parts/layout";

const FIELDS: [keyof Weights, string][] = [
  ["tool_change", "A change of tool"],
  ["turn", "A turn of the device"],
  ["reheating", "Warming again"],
  ["displaced", "Out of the told order"],
];

export function WorkWeights() {
  const { view, edit } = useManual();
  const { weights } = view.manual.head;
  if (!weights) return null;
  const seconds = {
    tool_change: weights.tool_change / 100,
    turn: weights.turn / 100,
    reheating: weights.reheating / 100,
    displaced: weights.displaced / 100,
  };
  return (
    <More title="What counts as work">
      <Muted>Beside the seconds of the steps; orders are chosen by the sum. In seconds each.</Muted>
      <Row>
        {FIELDS.map(([key, name]) => (
          <FigureField
            key={key}
            label={name}
            width="9.5em"
            value={seconds[key]}
            onCommit={(figure) => edit({ head: { weights: { ...seconds, [key]: figure ?? 0 } } })}
          />
        ))}
      </Row>
    </More>
  );
}
