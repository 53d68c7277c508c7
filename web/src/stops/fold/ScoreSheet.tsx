/** Points for classes of repairability: a table that the house fills in, and the score that follows from it. */
import styled from "styled-components";
import type { FoldView, ScoreTable } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, FigureField, Heading, Muted } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { Table } from "../../parts/table";
import { space } from "../../theme";

type Score = NonNullable<FoldView["work"]["score"]>;
type Rated = "steps" | "fasteners" | "tools" | "place" | "skill";
type Column = "weight" | "a" | "b" | "c";

const RATED: Rated[] = ["steps", "fasteners", "tools", "place", "skill"];
const COLUMNS: [Column, string][] = [
  ["weight", "Weight"],
  ["a", "A"],
  ["b", "B"],
  ["c", "C"],
];
const blank = { weight: null, a: null, b: null, c: null };
const EMPTY: ScoreTable = {
  steps: blank,
  steps_up_to: { a: null, b: null },
  fasteners: blank,
  tools: blank,
  place: blank,
  skill: blank,
};

const Cell = styled.td`
  /* The class that this guide has: its points are the ones that count. */
  &[data-counts] input { border: 2px solid var(--accent); font-weight: 700; }
`;

export function ScoreSheet({ score }: { score: Score | null | undefined }) {
  const { view, edit } = useManual();
  const table = view.manual.head.scores;
  if (!table)
    return (
      <>
        <Muted>
          Classes after EN 45554, from memory, A the easiest. Whoever declares something holds the standard beside it.
          Points and weights are no standard's: a score follows from a table of your own, or there is none.
        </Muted>
        <Row style={{ marginTop: space.small }}>
          <Button onPress={() => edit({ head: { scores: EMPTY } })}>Score it by a table of your own</Button>
        </Row>
      </>
    );
  const set = (next: Partial<ScoreTable>) => edit({ head: { scores: { ...table, ...next } } });
  const limit = (key: "a" | "b") => (
    <FigureField
      label={`Class ${key.toUpperCase()} up to, steps`}
      whole
      width="9.5em"
      value={table.steps_up_to[key]}
      onCommit={(steps) => set({ steps_up_to: { ...table.steps_up_to, [key]: steps } })}
    />
  );
  return (
    <section aria-label="Score" style={{ marginTop: space.normal }}>
      <Heading as="h3" aria-live="polite">
        Score: {score?.says ?? "…"}
      </Heading>
      <Table>
        <thead>
          <tr>
            <th scope="col">What</th>
            {COLUMNS.map(([key, name]) => (
              <th key={key} scope="col">
                {name}
              </th>
            ))}
            <th scope="col">Counts</th>
          </tr>
        </thead>
        <tbody>
          {RATED.map((of) => {
            const rated = score?.rows.find((row) => row.of === of);
            return (
              <tr key={of}>
                <th scope="row">{labels.Classed[of]}</th>
                {COLUMNS.map(([key, name]) => (
                  <Cell key={key} data-counts={rated?.class === name ? "" : undefined}>
                    <FigureField
                      label={`${labels.Classed[of]}, ${key === "weight" ? "weight" : `points of class ${name}`}`}
                      hideLabel
                      width="4.5em"
                      value={table[of][key]}
                      onCommit={(figure) => set({ [of]: { ...table[of], [key]: figure } })}
                    />
                  </Cell>
                ))}
                <td>{rated && counts(rated)}</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      <Row style={{ margin: `${space.small} 0`, alignItems: "start" }}>
        {limit("a")}
        {limit("b")}
      </Row>
      <Muted>The weighted mean of the points. Classes after EN 45554, from memory; points and weights are yours.</Muted>
      <Row style={{ marginTop: space.small }}>
        <Button onPress={() => edit({ head: { scores: null } })}>Take the table away</Button>
      </Row>
    </section>
  );
}

/** "class C: 2 × 5" */
function counts(row: Score["rows"][number]): string {
  if (row.points == null) return row.class === "?" ? "no limits yet" : `class ${row.class}: no points yet`;
  return `class ${row.class}: ${row.weight} × ${row.points}`;
}
