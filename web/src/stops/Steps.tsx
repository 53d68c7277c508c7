/** Steps: the manual in its order, and what stands beside it: parts, tools, notes, all words at once. */
import { TabPanel } from "react-aria-components";
import { useFindings, useManual, useSteps } from "../api/manual";
import { Heading, PanelList, PanelName, Panels, Pending } from "../parts/controls";
import { Page, Top } from "../parts/layout";
import { usePlace } from "../parts/place";
import { FindReplace } from "./steps/FindReplace";
import { Notes } from "./steps/Notes";
import { Parts } from "./steps/Parts";
import { Sequence } from "./steps/Sequence";
import { Tools } from "./steps/Tools";

export default function Steps() {
  const { view } = useManual();
  const { data, error } = useSteps();
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "steps");
  const [place, go] = usePlace();
  const tab = place("tab") ?? "order";
  /** A step that another panel wants to be shown. */
  const show = (step: string) => go({ tab: null, step }, "asks");
  const count = (n: number) => (n > 0 ? ` ${n}` : "");
  const { manual } = view;
  return (
    <Page $width={1180}>
      <Panels selectedKey={tab} onSelectionChange={(key) => go({ tab: key === "order" ? null : String(key) })}>
        <Top>
          <Heading>Steps</Heading>
          <PanelList style={{ flex: 1 }} aria-label="Steps and what stands beside them">
            <PanelName id="order">Order</PanelName>
            <PanelName id="parts">Parts{count(Object.keys(manual.parts).length)}</PanelName>
            <PanelName id="tools">Tools{count(data?.tools.length ?? 0)}</PanelName>
            <PanelName id="notes">Notes{count(Object.keys(manual.notes ?? {}).length)}</PanelName>
            <PanelName id="words">Find and replace</PanelName>
          </PanelList>
        </Top>
        <TabPanel id="order">
          <Sequence margins={data?.margins} found={found} />
        </TabPanel>
        <TabPanel id="parts">
          {data ? <Parts steps={data} found={found} onShow={show} /> : <Pending error={error}>…</Pending>}
        </TabPanel>
        <TabPanel id="tools">
          {data ? <Tools steps={data} found={found} onShow={show} /> : <Pending error={error}>…</Pending>}
        </TabPanel>
        <TabPanel id="notes">
          <Notes found={found} />
        </TabPanel>
        <TabPanel id="words">
          <FindReplace onShow={show} />
        </TabPanel>
      </Panels>
    </Page>
  );
}
