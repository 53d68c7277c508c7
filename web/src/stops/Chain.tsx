/**
 * Chain: what must come before what, and why. The steps stand in the order of the work with their reasons as arcs in the
 * margin; pick a part, and what it needs stands out while the rest fades.
 */
import { useMemo, useRef, useState } from "react";
import styled from "styled-components";
import type { ChainView, Evidence } from "../api/client";
import { useChain, useFindings, useManual, useRoutes } from "../api/manual";
import { Button, Heading, Key, Muted, Pending } from "../parts/controls";
import { Findings, idOf } from "../parts/Findings";
import { plural } from "../parts/format";
import { Page, Top } from "../parts/layout";
import { useChosen, usePlace } from "../parts/place";
import { useEvidence } from "../parts/tape-context";
import { space } from "../theme";
import { Depths } from "./chain/Depths";
import { Jobs, NewJob } from "./chain/Jobs";
import { Picture } from "./chain/Picture";
import { RouteTable } from "./chain/RouteTable";
import { StepList } from "./chain/StepList";
import { TargetPicker } from "./chain/TargetPicker";
import { Why } from "./chain/Why";
import { WorkWeights } from "./chain/WorkWeights";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 430px;
  gap: ${space.wide};
  align-items: start;
  /* The titles need the width more than the reasons do. */
  @media (max-width: 1040px) { grid-template-columns: minmax(0, 1fr); }
`;
const Side = styled.div`
  display: grid;
  gap: ${space.normal};
`;
const Rule = styled.hr`
  border: 0;
  border-top: 1px solid var(--line);
  width: 100%;
  margin: 0;
`;

export default function Chain() {
  const { data, error } = useChain();
  if (!data)
    return (
      <Page $width={1320}>
        <Pending error={error}>Working out the order …</Pending>
      </Page>
    );
  if (data.steps.length === 0)
    return (
      <Page $width={1320}>
        <Heading>Nothing to order</Heading>
        <Muted>Write the teardown at Steps; what must come before what appears here.</Muted>
      </Page>
    );
  return <Loaded chain={data} />;
}

function Loaded({ chain }: { chain: ChainView }) {
  const { view, edit } = useManual();
  const [route, setRoute] = useState(0);
  const [picture, setPicture] = useState(false);
  const [place, go] = usePlace();
  const [chosen, setChosen] = useChosen("step", { first: null });
  /** A reason's evidence that somebody wants to see, as long as its step is in hand. */
  const [shown, setShown] = useState<{ step: string | null; evidence: Evidence[] } | null>(null);
  const side = useRef<HTMLDivElement>(null);
  const known = (place("to") ?? "").split(",").filter((t) => view.manual.parts[t]);
  const routes = useRoutes(known);
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "chain");
  const way = routes.data?.[Math.min(route, routes.data.length - 1)];
  const lit = useMemo(() => (way ? new Set(way.steps) : null), [way]);
  const inHand = chain.steps.find((s) => s.step === chosen) ?? null;
  const own = inHand ? view.manual.steps[inHand.step]?.evidence : undefined;
  useEvidence(shown && shown.step === chosen ? shown.evidence : own);

  const reach = (parts: string[]) => {
    go({ to: parts.join(",") });
    setRoute(0);
  };

  return (
    <Page $width={1320}>
      <Top>
        <Heading>Chain</Heading>
        <Muted>
          {plural(chain.steps.length, "step")}, {plural(chain.conditions.length, "reason")}, {chain.unconfirmed} not yet
          confirmed
        </Muted>
        <Muted as="span">
          <Key>↑</Key> <Key>↓</Key> go, <Key>T</Key> what it takes to get here, <Key>Y</Key> its reasons hold,{" "}
          <Key>A</Key> add one
        </Muted>
        <Button onPress={() => setPicture(!picture)} aria-pressed={picture}>
          {picture ? "Show the list" : "Show the picture"}
        </Button>
      </Top>
      <Columns>
        {picture ? (
          <Picture chain={chain} lit={lit} chosen={chosen} onChoose={setChosen} />
        ) : (
          <StepList
            chain={chain}
            lit={lit}
            chosen={chosen}
            onChoose={setChosen}
            onReach={(step) => step.removes.length > 0 && reach(step.removes)}
            onConfirm={(step) => {
              for (const c of chain.conditions) if (c.step === step && c.confirm) void edit(c.confirm);
            }}
            onAdd={() => side.current?.querySelector<HTMLElement>("[data-add] button")?.focus()}
          />
        )}
        <Side ref={side}>
          <TargetPicker targets={known} onChange={reach} />
          {known.length > 0 && (
            <RouteTable
              routes={routes.data}
              error={routes.error}
              chain={chain}
              targets={known}
              chosen={route}
              onChoose={setRoute}
              onShow={setChosen}
            />
          )}
          {way && <NewJob key={known.join()} targets={known} way={way} />}
          <Jobs onReach={reach} />
          <Findings
            name="To look at"
            findings={found}
            also={(f) => {
              const step = idOf(f, "step");
              return step && <Button onPress={() => setChosen(step)}>Show it</Button>;
            }}
          />
          {inHand && (
            <>
              <Rule />
              <Why
                step={inHand}
                chain={chain}
                onShow={(evidence) => setShown({ step: chosen, evidence })}
                onChoose={setChosen}
              />
            </>
          )}
          {!inHand && <Muted>Pick a step to see why it stands where it stands.</Muted>}
          <Depths chain={chain} onReach={(part) => reach([part])} />
          <WorkWeights />
        </Side>
      </Columns>
    </Page>
  );
}
