/** Fold: the teardown folded over into its rebuild, with the pile on the bench between them, which must come to nothing. */
import { useState } from "react";
import styled from "styled-components";
import type { FoldView } from "../api/client";
import { useFindings, useGuide, useManual } from "../api/manual";
import { Check, Heading, Key, More, Muted, Pending } from "../parts/controls";
import { Findings } from "../parts/Findings";
import { Page, Row } from "../parts/layout";
import { useChosen, useKeptPlace, usePlace } from "../parts/place";
import { useEvidence } from "../parts/tape-context";
import { font, space } from "../theme";
import { Accounts, ScrewAccounts } from "./fold/Accounts";
import { Board, columns } from "./fold/Board";
import { PileLegend } from "./fold/Pile";
import { placeOf } from "./fold/rows";
import { Times } from "./fold/Times";
import { WorkSheet } from "./fold/WorkSheet";

const Heads = styled.div`
  display: grid;
  ${columns}
  align-items: end;
  margin-top: ${space.normal};
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 4;
  padding-bottom: ${space.hair};
  & > :nth-child(2) { text-align: center; }
`;
const Verdict = styled.p<{ $bad: boolean }>`
  font: 700 1.2rem ${font.plain};
  color: ${(p) => (p.$bad ? "var(--danger)" : "var(--accent)")};
`;

export default function Fold() {
  const { data, error } = useGuide();
  if (!data)
    return (
      <Page $width={1320}>
        <Pending error={error}>Folding …</Pending>
      </Page>
    );
  if (data.fold.teardown.length === 0)
    return (
      <Page $width={1320}>
        <Heading>Nothing to fold</Heading>
        <Muted>Write the teardown at Steps; its rebuild appears here.</Muted>
      </Page>
    );
  return <Loaded fold={data.fold} />;
}

function Loaded({ fold }: { fold: FoldView }) {
  const { view } = useManual();
  const [address] = usePlace();
  const [step, setChosen] = useChosen("step", { first: null });
  // What is told of the rebuild stands across from what it puts back.
  const back = step ? fold.rebuild.find((s) => s.told === step) : undefined;
  const chosen = back ? placeOf(back) : step;
  const [all, setAll] = useState(address("lines") === "all");
  useKeptPlace("lines", all ? "all" : null);
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "fold");
  const told = fold.rebuild.filter((s) => s.told && placeOf(s) === chosen).map((s) => s.told ?? "");
  const steps = [...(chosen ? [chosen] : []), ...told.filter((id) => id !== chosen)];
  useEvidence(chosen ? steps.flatMap((id) => view.manual.steps[id]?.evidence ?? []) : undefined);
  const turn = fold.teardown[fold.teardown.length - 1]?.bench ?? fold.turn;

  return (
    <Page $width={1320}>
      <Row style={{ justifyContent: "space-between", alignItems: "center" }}>
        <Accounts accounts={fold.accounts} />
        <Row style={{ alignItems: "center" }}>
          <Check checked={all} onChange={setAll}>
            Every line
          </Check>
          <Muted as="span">
            <Key>↑</Key> <Key>↓</Key> step <Key>←</Key> <Key>→</Key> across
          </Muted>
        </Row>
      </Row>
      <Heads>
        <Heading>Taking apart ↓</Heading>
        <div>
          <Verdict $bad={!fold.balance.proven}>{fold.balance.says}</Verdict>
          <PileLegend bench={turn} />
        </div>
        <Heading>↑ Putting together</Heading>
      </Heads>
      <Board fold={fold} findings={found} chosen={chosen} onChoose={setChosen} all={all} />
      <Findings name="To look at" findings={found} />
      <Times work={fold.work} chosen={chosen} onChoose={setChosen} />
      <WorkSheet work={fold.work} />
      {fold.balance.rows.length > 0 && (
        <More title="Screws, group by group">
          <ScrewAccounts balance={fold.balance} />
        </More>
      )}
    </Page>
  );
}
