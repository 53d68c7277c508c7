/**
 * Screws: the ledger stays in sight; choose a group, and its holes, order, torque and risks follow on one page.
 */
import { Plus, Printer } from "lucide-react";
import { useDeferredValue, useState } from "react";
import styled from "styled-components";
import { newId, type ScrewsView } from "../api/client";
import { useFindings, useManual, useScrews } from "../api/manual";
import { Button, Heading, Key, Muted, Pending, Select } from "../parts/controls";
import { Findings, idOf, isAbout, isOfKind } from "../parts/Findings";
import { plural } from "../parts/format";
import { Page, Row, Top } from "../parts/layout";
import { useChosen, usePlace } from "../parts/place";
import { useTableFile } from "../parts/TableFile";
import { Tag } from "../parts/Tag";
import { useEvidence } from "../parts/tape-context";
import { space } from "../theme";
import { Facts } from "./screws/Facts";
import { HoleMap } from "./screws/HoleMap";
import { Bits, Kinds, Risks } from "./screws/Kinds";
import { Ledger } from "./screws/Ledger";
import { Torque } from "./screws/Torque";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 440px) minmax(0, 1fr);
  gap: ${space.wide};
  align-items: start;
  > :first-child { position: sticky; top: 0; max-height: calc(100vh - 170px); overflow: auto; }
  @media (max-width: 1040px) {
    grid-template-columns: minmax(0, 1fr);
    > :first-child { position: static; max-height: 46vh; }
  }
`;
const Side = styled.div`
  display: grid;
  gap: ${space.wide};
`;
const Name = styled.header`
  display: flex;
  align-items: center;
  gap: ${space.small};
  h3 { margin: 0; }
`;

export default function Screws() {
  const [place, go] = usePlace();
  const job = place("job") ?? "";
  const { data, error } = useScrews(job);
  if (!data)
    return (
      <Page $width={1320}>
        <Pending error={error}>Counting the screws …</Pending>
      </Page>
    );
  return <Loaded screws={data} job={job} onJob={(job) => go({ job })} />;
}

function Loaded({ screws, job, onJob }: { screws: ScrewsView; job: string; onJob: (job: string) => void }) {
  const { view } = useManual();
  const [chosen, setChosen] = useChosen("group", { first: screws.ledger.rows[0]?.group ?? null });
  // The ledger stands at once; what is known of the group in hand is drawn between key presses.
  const inHand = useDeferredValue(chosen, null);
  const waits = chosen !== null && inHand === null;
  const group = inHand ? view.manual.fasteners[inHand] : undefined;
  const about = screws.groups.find((g) => g.group === inHand);
  const row = screws.ledger.rows.find((r) => r.group === inHand);
  const { balance } = screws.ledger;
  const found = (useFindings(job).data?.findings ?? []).filter((f) => isOfKind(f, "group"));
  useEvidence(group?.evidence);
  return (
    <Page $width={1320}>
      <Top>
        <Heading>Screws</Heading>
        <p role="status">
          {plural(balance.out, "screw")} out in {plural(screws.ledger.rows.length, "group")}.{" "}
          <b>{screws.ledger.says}</b>
        </p>
        <Papers job={job} onJob={onJob} />
      </Top>
      <Columns>
        <div>
          {screws.ledger.rows.length === 0 ? (
            <Muted>No screws yet. Sentences of the recording bring them; add a group here, or bring a list.</Muted>
          ) : (
            <>
              <Muted>
                <Key>↑</Key> <Key>↓</Key> choose a group
              </Muted>
              <Ledger screws={screws} found={found} chosen={chosen} onChoose={setChosen} />
            </>
          )}
          <AddGroup onAdded={setChosen} />
        </div>
        <Side>
          {waits ? null : group && about && row ? (
            <>
              <Name>
                <Tag tag={row.tag} size={38} />
                <Heading as="h3">
                  {row.count} × {row.label}
                </Heading>
              </Name>
              <Findings name="To look at" findings={found.filter((f) => isAbout(f, "group", inHand))} />
              <HoleMap key={group.id} group={group} screws={screws} onChoose={setChosen} />
              <Torque group={group} setting={about.setting} />
              <Risks screws={screws} chosen={inHand} />
              <Facts group={group} about={about} screws={screws} onChoose={setChosen} />
            </>
          ) : (
            <Muted>Choose a group in the ledger.</Muted>
          )}
          <Findings
            name="To look at in other groups"
            findings={waits ? [] : found.filter((f) => !isAbout(f, "group", inHand))}
            also={(f) => {
              const group = idOf(f, "group");
              return group && <Button onPress={() => setChosen(group)}>Show it</Button>;
            }}
          />
          {!waits && screws.ledger.rows.length > 0 && (
            <>
              <Bits screws={screws} />
              <Kinds screws={screws} />
            </>
          )}
        </Side>
      </Columns>
    </Page>
  );
}

/** The guide that is looked at, the mat to print, the table out and in. */
function Papers({ job, onJob }: { job: string; onJob: (job: string) => void }) {
  const { id, view } = useManual();
  const jobs = Object.values(view.manual.jobs).sort((a, b) => a.title.localeCompare(b.title));
  const path = `/api/manuals/${id}`;
  const query = (more: Record<string, string>) => `?${new URLSearchParams({ ...more, ...(job ? { job } : {}) })}`;
  const table = useTableFile({ path: `${path}/screws`, button: "Bring a list (CSV)", change: "change" });
  return (
    <div>
      <Row style={{ alignItems: "center" }}>
        {jobs.length > 0 && (
          <Select
            label="Guide"
            hideLabel
            value={job}
            options={[["", "the whole device"], ...jobs.map((j): [string, string] => [j.id, j.title])]}
            onChange={onJob}
          />
        )}
        <a href={`${path}/mat${query({ paper: "a4" })}`} target="_blank" rel="noreferrer">
          <Printer size={15} aria-hidden /> Mat, A4
        </a>
        <a href={`${path}/mat${query({ paper: "letter" })}`} target="_blank" rel="noreferrer">
          Mat, Letter
        </a>
        <a href={`${path}/screws.csv${query({})}`} download>
          Table (CSV)
        </a>
        {table.trigger}
      </Row>
      {table.outcome}
    </div>
  );
}

function AddGroup({ onAdded }: { onAdded: (group: string) => void }) {
  const { view, edit } = useManual();
  const steps = view.order.filter((s) => view.manual.steps[s]?.phase === "teardown");
  const [step, setStep] = useState("");
  const chosen = step || steps[0] || "";
  if (steps.length === 0) return <Muted>Write a step first: screws belong to steps.</Muted>;
  return (
    <Row>
      <Select
        label="More screws in step"
        value={chosen}
        options={steps.map((s, i): [string, string] => [s, `${i + 1}. ${view.manual.steps[s]?.title ?? ""}`])}
        onChange={setStep}
      />
      <Button
        onPress={() => {
          const id = newId();
          void edit({ fastener: { add: { id, step: chosen } } }).then((r) => r.ok && onAdded(id));
        }}
      >
        <Plus size={15} aria-hidden /> Add a group
      </Button>
    </Row>
  );
}
