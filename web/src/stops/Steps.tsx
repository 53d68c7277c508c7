/** Steps: the manual in its order, and what stands beside it: parts, tools, notes, all words at once. */
import { useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";
import { useDevice, useHand } from "../api/manual";
import { Heading, Pending } from "../parts/controls";
import { Page, Top } from "../parts/layout";
import { focusRing, space } from "../theme";
import { FindReplace } from "./steps/FindReplace";
import { Notes } from "./steps/Notes";
import { Parts } from "./steps/Parts";
import { Sequence } from "./steps/Sequence";
import { Tools } from "./steps/Tools";

/** What has the focus inside shows it itself. */
const Panels = styled(Tabs)`
  &[data-focus-visible] { outline: none; }
`;
const List = styled(TabList)`
  display: flex;
  gap: ${space.hair};
  border-bottom: 1px solid var(--line);
  flex: 1;
`;
const Name = styled(Tab)`
  padding: 5px 14px;
  cursor: pointer;
  color: var(--soft);
  border-bottom: 3px solid transparent;
  &[data-selected] { color: inherit; font-weight: 650; border-color: var(--accent); }
  &[data-focus-visible] { ${focusRing} }
`;

export default function Steps() {
  const { view } = useHand();
  const { data, error } = useDevice();
  const [tab, setTab] = useState<string>("order");
  /** A step that another panel wants to be shown. */
  const [shown, setShown] = useState<string | null>(null);
  const show = (step: string) => {
    setShown(step);
    setTab("order");
  };
  const count = (n: number) => (n > 0 ? ` ${n}` : "");
  const { manual } = view;
  return (
    <Page $width={1180}>
      <Panels selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
        <Top>
          <Heading>Steps</Heading>
          <List aria-label="Steps and what stands beside them">
            <Name id="order">Order</Name>
            <Name id="parts">Parts{count(Object.keys(manual.parts).length)}</Name>
            <Name id="tools">Tools{count(data?.tools.length ?? 0)}</Name>
            <Name id="notes">Notes{count(Object.keys(manual.notes ?? {}).length)}</Name>
            <Name id="words">Find and replace</Name>
          </List>
        </Top>
        <TabPanel id="order">
          <Sequence shown={shown} />
        </TabPanel>
        <TabPanel id="parts">
          {data ? <Parts device={data} onShow={show} /> : <Pending error={error}>…</Pending>}
        </TabPanel>
        <TabPanel id="tools">
          {data ? <Tools device={data} onShow={show} /> : <Pending error={error}>…</Pending>}
        </TabPanel>
        <TabPanel id="notes">{data ? <Notes device={data} /> : <Pending error={error}>…</Pending>}</TabPanel>
        <TabPanel id="words">
          <FindReplace onShow={show} />
        </TabPanel>
      </Panels>
    </Page>
  );
}
