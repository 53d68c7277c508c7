/** Routes to the picked parts side by side; what differs from the first is marked. */
import styled from "styled-components";
import type { ChainView, RouteRow } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, Heading, Muted, Pending } from "../../parts/controls";
import { minutes, plural } from "../../parts/format";
import { font, space } from "../../theme";

const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  font-size: 0.94rem;
  th, td { text-align: left; padding: 3px 8px 3px 0; vertical-align: top; border-bottom: 1px solid var(--line); font-weight: 400; }
  th[scope="row"] { color: var(--soft); }
  td[data-differs] { font-weight: 700; }
  td[data-differs]::before { content: "≠ "; color: var(--soft); }
`;
const Order = styled.ol`
  font: 500 1rem/1.45 ${font.text};
  counter-reset: step;
  li { display: flex; gap: ${space.small}; }
  li::before { counter-increment: step; content: counter(step); min-width: 1.6em; text-align: right; color: var(--soft); font: 700 0.95rem ${font.plain}; }
  button { all: unset; cursor: pointer; }
  button:focus-visible { outline: 3px solid var(--accent); }
`;

type Props = {
  routes: RouteRow[] | undefined;
  error: unknown;
  chain: ChainView;
  targets: string[];
  chosen: number;
  onChoose: (route: number) => void;
  onShow: (step: string) => void;
};

export function RouteTable({ routes, error, chain, targets, chosen, onChoose, onShow }: Props) {
  const { view } = useManual();
  const partName = (id: string) => view.manual.parts[id]?.name ?? "part";
  const names = targets.map((t) => `the ${partName(t)}`).join(" and ");
  if (!routes) return <Pending error={error}>Looking for the least work …</Pending>;
  if (routes.length === 0)
    return (
      <Muted role="status">
        No step takes {names} out, or its steps wait for each other. Write the step, or mend what is listed below.
      </Muted>
    );
  const way = routes[Math.min(chosen, routes.length - 1)];
  const title = (id: string) => chain.steps.find((s) => s.step === id)?.title ?? "a step that is gone";
  return (
    <section aria-label={`To reach ${names}`}>
      <Heading as="h3">To reach {names}</Heading>
      {way && way.steps.length === 1 && <Muted>Nothing else has to come off.</Muted>}
      <Table>
        <thead>
          <tr>
            <td />
            {routes.map((r, i) => (
              <th scope="col" key={r.steps.join()}>
                <Button onPress={() => onChoose(i)} aria-pressed={r === way}>
                  {r === way ? "●" : "○"} {routes.length === 1 ? "The way" : `Way ${i + 1}`}
                </Button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {FIGURES.map(({ name, of }) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {routes.map((r) => (
                <td
                  key={r.steps.join()}
                  data-differs={routes[0] && of(r, partName) !== of(routes[0], partName) ? "" : undefined}
                >
                  {of(r, partName)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {way && (
        <>
          <Muted>
            {way.proven ? "No set of steps is less work." : "Perhaps not the least work; the search was stopped."}
            {way.gap_s > 0 && ` A better order could save up to ${minutes(way.gap_s)}.`}
            {way.stays.length > 0 && ` ${plural(way.stays.length, "part")} can stay in.`}
          </Muted>
          <Order aria-label="Steps of this way">
            {way.steps.map((s) => (
              <li key={s}>
                <button type="button" onClick={() => onShow(s)}>
                  {title(s)}
                </button>
              </li>
            ))}
          </Order>
        </>
      )}
    </section>
  );
}

const FIGURES: { name: string; of: (r: RouteRow, partName: (id: string) => string) => string }[] = [
  { name: "Steps", of: (r) => `${r.totals.steps}` },
  { name: "Counted by EN 45554", of: (r) => `${r.totals.counted_steps}` },
  { name: "Time, practised", of: (r) => minutes(r.totals.seconds) },
  { name: "Tools", of: (r) => r.totals.tools.join(", ") || "none" },
  { name: "Tool changes", of: (r) => `${r.totals.tool_changes}` },
  { name: "Screws", of: (r) => `${r.totals.screws}${r.totals.uncounted > 0 ? " and some not counted" : ""}` },
  { name: "To renew", of: (r) => r.totals.renewed.join(", ") || "nothing" },
  {
    name: "Destroyed",
    of: (r, partName) => {
      if (r.totals.destroyed.length === 0) return "nothing";
      const price = r.totals.price.map((p) => `${p.amount.toFixed(2)} ${p.currency}`);
      const open = r.totals.unpriced > 0 ? [`${plural(r.totals.unpriced, "part")} without a price`] : [];
      return `${r.totals.destroyed.map(partName).join(", ")}: ${[...price, ...open].join(", ")}`;
    },
  },
  { name: "Risk", of: (r) => r.totals.risks.map((k) => labels.Risk[k]).join(", ") || "none known" },
];
