/** How long and how hard, and how repairable, each with what makes it so. */
import styled from "styled-components";
import type { FoldView } from "../../api/client";
import { labels } from "../../api/tables";
import { Heading, Muted } from "../../parts/controls";
import { plural } from "../../parts/format";
import { Table } from "../../parts/table";
import { space } from "../../theme";
import { ScoreSheet } from "./ScoreSheet";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: ${space.wide};
  margin: ${space.wide} 0;
  align-items: start;
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
`;
const List = styled.ul`
  display: grid;
  gap: ${space.hair};
  b { font-weight: 600; }
`;
type Work = FoldView["work"];

export function WorkSheet({ work }: { work: Work }) {
  return (
    <Columns>
      <section aria-label="How long and how hard">
        <Heading as="h3">{work.says}</Heading>
        <List>
          {work.reasons.map((reason) => (
            <li key={reason.because}>
              <b>{labels.Grade[reason.grade]}</b>: {reason.because}
            </li>
          ))}
          <li>{plural(work.tool_changes, "change")} of tool while taking apart</li>
        </List>
        <Muted>
          For somebody who does it the first time: two to four times as long as the practised hand of the recording, or
          of screws, plugs, joints and acts where it shows nothing (MOST, from memory). What an author said counts
          instead.
        </Muted>
      </section>
      <section aria-label="How repairable">
        <Heading as="h3">How repairable: {plural(work.counted_steps, "step")} to the last part</Heading>
        <Table>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Class</th>
              <th scope="col">Because</th>
            </tr>
          </thead>
          <tbody>
            {work.classes.map((row) => (
              <tr key={row.of}>
                <th scope="row">{labels.Classed[row.of]}</th>
                <td>
                  <b>{row.class}</b>
                </td>
                <td>
                  {row.means}
                  {row.because && <Muted>{row.because}</Muted>}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        <ScoreSheet score={work.score} />
      </section>
    </Columns>
  );
}
