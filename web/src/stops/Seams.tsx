/** Seams: joints without screws; how each opens, and the heat that softens its bond. */
import { Plus } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { newId, type SeamRow, type SeamsView } from "../api/client";
import { useFindings, useManual, usePartChoices, useSeams } from "../api/manual";
import { labels } from "../api/tables";
import { Chooser } from "../parts/Chooser";
import { Button, CommitField, FigureField, Heading, Key, Muted, Pending, Select } from "../parts/controls";
import { Findings, idOf } from "../parts/Findings";
import { options, plural } from "../parts/format";
import { Page, Row, Top } from "../parts/layout";
import { useChosen, usePlace } from "../parts/place";
import { useEvidence } from "../parts/tape-context";
import { space } from "../theme";
import { Bench } from "./seams/Bench";
import { Closing } from "./seams/Closing";
import { Opening } from "./seams/Opening";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(210px, 0.32fr) minmax(0, 1fr);
  gap: ${space.wide};
  align-items: start;
`;
const Sheet = styled.section`
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.normal};
  display: grid;
  gap: ${space.normal};
`;

export default function Seams() {
  const { data, error } = useSeams();
  if (!data)
    return (
      <Page $width={1280}>
        <Pending error={error}>Warming up …</Pending>
      </Page>
    );
  return <Loaded seams={data} />;
}

const nameOf = (row: SeamRow) => `${capital(labels.SeamKind[row.kind])}${row.part ? ` of the ${row.part}` : ""}`;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function Loaded({ seams }: { seams: SeamsView }) {
  const [place] = usePlace();
  const linked = seams.seams.find((s) => s.step === place("step"))?.seam;
  const [chosen, setChosen] = useChosen("seam", { linked, first: seams.seams[0]?.seam ?? null });
  const row = seams.seams.find((s) => s.seam === chosen);
  const { view } = useManual();
  useEvidence(row ? view.manual.seams[row.seam]?.evidence : undefined);
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "seams");
  const untold = seams.seams.filter((s) => s.opening.untold.length > 0).length;
  return (
    <Page $width={1280}>
      <Top>
        <Heading>Seams</Heading>
        <Muted role="status">
          {plural(seams.seams.length, "joint")} without screws
          {untold > 0 && `, ${untold} of which the recording does not tell everything`}
        </Muted>
        <Muted as="span">
          <Key>↑</Key> <Key>↓</Key> choose a joint
        </Muted>
      </Top>
      <Columns data-seams="">
        <div>
          <Findings
            name="To look at"
            findings={found}
            also={(f) => {
              const at = seams.seams.find((s) => s.step === idOf(f, "step"));
              return at && <Button onPress={() => setChosen(at.seam)}>Show it</Button>;
            }}
          />
          {seams.seams.length === 0 ? (
            <Muted>
              No joint without screws yet. Sentences about glue, tape and clips bring them; or add one to a step.
            </Muted>
          ) : (
            <Chooser
              label="Joints without screws"
              chosen={chosen}
              onChoose={setChosen}
              rows={seams.seams.map((s) => ({
                id: s.seam,
                name: nameOf(s),
                shown: (
                  <>
                    {nameOf(s)}
                    <small>
                      step {s.step_number}
                      {s.opening.untold.length > 0 && ` · not told: ${s.opening.untold.join(", ")}`}
                    </small>
                  </>
                ),
              }))}
            />
          )}
          <AddSeam onAdded={setChosen} />
        </div>
        {row ? (
          <Sheet key={row.seam} aria-label={nameOf(row)}>
            <Joint row={row} />
            <Opening row={row} />
            <Closing row={row} />
            {row.heat ? (
              <Bench row={row} heat={row.heat} sources={seams.sources} usual={seams.usual} />
            ) : (
              <Muted>Clips and snapped edges open without heat.</Muted>
            )}
            <Rest row={row} />
          </Sheet>
        ) : (
          <Muted>Choose a joint to see how it opens.</Muted>
        )}
      </Columns>
    </Page>
  );
}

/** What else there is to say of it. */
function Rest({ row }: { row: SeamRow }) {
  const { view, edit } = useManual();
  const seam = view.manual.seams[row.seam];
  if (!seam) return null;
  const { id } = seam;
  const set = (field: { note: string | null }) => edit({ seam: { set: { id, field } } });
  return (
    <Row>
      <CommitField
        label="Note"
        width="18em"
        value={seam.note ?? ""}
        onCommit={(text) => set({ note: text.trim() || null })}
      />
      <Button onPress={() => void edit({ seam: { remove: { id } } })}>Remove the joint</Button>
    </Row>
  );
}

/** What is known of the joint besides its heat. */
function Joint({ row }: { row: SeamRow }) {
  const parts = usePartChoices();
  const { view, edit } = useManual();
  const seam = view.manual.seams[row.seam];
  if (!seam) return null;
  const { id } = seam;
  type Field = Extract<
    Extract<Parameters<typeof edit>[0], { seam: unknown }>["seam"],
    { set: unknown }
  >["set"]["field"];
  const set = (field: Field) => edit({ seam: { set: { id, field } } });
  return (
    <div>
      <Heading as="h3">{nameOf(row)}</Heading>
      <Row>
        <Select
          label="Held by"
          value={seam.kind}
          options={options(labels.SeamKind)}
          onChange={(kind) => kind !== "" && void set({ kind })}
        />
        <Select
          label="What it holds"
          value={seam.part ?? ""}
          options={[["", "not said"], ...parts]}
          onChange={(part) => void set({ part: part || null })}
        />
        <FigureField
          label="Nowhere deeper than, mm"
          width="12em"
          value={seam.depth_mm}
          onCommit={(depth_mm) => set({ depth_mm })}
        />
      </Row>
    </div>
  );
}

function AddSeam({ onAdded }: { onAdded: (seam: string) => void }) {
  const { view, edit } = useManual();
  const steps = view.order.filter((s) => view.manual.steps[s]?.phase === "teardown");
  const [step, setStep] = useState("");
  const at = step || steps[0] || "";
  if (steps.length === 0) return <Muted>Write a step first: joints belong to steps.</Muted>;
  return (
    <Row>
      <Select
        label="Another joint in step"
        value={at}
        options={steps.map((s, i): [string, string] => [s, `${i + 1}. ${view.manual.steps[s]?.title ?? ""}`])}
        onChange={setStep}
      />
      <Button
        onPress={() => {
          const id = newId();
          void edit({ seam: { add: { id, step: at, kind: "glue" } } }).then((r) => r.ok && onAdded(id));
        }}
      >
        <Plus size={15} aria-hidden /> Add a joint
      </Button>
    </Row>
  );
}
