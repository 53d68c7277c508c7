/** Cables: what is connected, how it opens and is made, what hangs on it, and what is live when. */
import { Plus } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { type CableRow, type CablesView, newId } from "../api/client";
import { useCables, useFindings, useManual } from "../api/manual";
import { labels } from "../api/tables";
import { Chooser } from "../parts/Chooser";
import { Button, Heading, Key, Muted, Pending, Select } from "../parts/controls";
import { Findings, idOf } from "../parts/Findings";
import { plural } from "../parts/format";
import { HalvesHead, Lined } from "../parts/halves";
import { Page, Row, Top } from "../parts/layout";
import { useChosen, usePlace } from "../parts/place";
import { useTableFile } from "../parts/TableFile";
import { useEvidence } from "../parts/tape-context";
import { space } from "../theme";
import { Life } from "./cables/Life";
import { Plug } from "./cables/Plug";
import { PowerLine } from "./cables/PowerLine";
import { Routes } from "./cables/Routes";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: ${space.wide};
  align-items: start;
  @media (max-width: 1040px) { grid-template-columns: minmax(0, 1fr); }
`;

export default function Cables() {
  const { data, error } = useCables();
  if (!data)
    return (
      <Page $width={1280}>
        <Pending error={error}>Following the cables …</Pending>
      </Page>
    );
  return <Loaded cables={data} />;
}

function Loaded({ cables }: { cables: CablesView }) {
  const { view, id } = useManual();
  const [place] = usePlace();
  const linked = cables.cables.find((c) => c.step === place("step"))?.connector;
  const [chosen, setChosen] = useChosen("cable", { linked, first: cables.cables[0]?.connector ?? null });
  const row = cables.cables.find((c) => c.connector === chosen);
  const plug = row && view.manual.connectors[row.connector];
  useEvidence(plug?.evidence);
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "cables");
  const table = useTableFile({ path: `/api/manuals/${id}/cables`, button: "Bring a list (CSV)", change: "change" });
  return (
    <Page $width={1280}>
      <Top>
        <Heading>Cables</Heading>
        <Muted role="status">
          {plural(cables.cables.length, "connector")}
          {cables.not_made > 0 && `, ${cables.not_made} of which the rebuild never makes`}
        </Muted>
        <Muted as="span">
          <Key>↑</Key> <Key>↓</Key> choose a connector
        </Muted>
      </Top>
      <PowerLine line={cables.power} />
      <Columns data-cables="">
        <div>
          <Findings
            name="To look at"
            findings={found}
            also={(f) => {
              const at = cables.cables.find((c) => c.step === idOf(f, "step"));
              return at && <Button onPress={() => setChosen(at.connector)}>Show it</Button>;
            }}
          />
          {cables.cables.length === 0 ? (
            <Muted>
              No connector yet. Sentences that unplug something bring them; or add one to a step, or bring a list.
            </Muted>
          ) : (
            <>
              <HalvesHead halves={cables} />
              <Chooser
                label="Connectors"
                chosen={chosen}
                onChoose={setChosen}
                rows={cables.cables.map((c) => ({
                  id: c.connector,
                  name: `${nameOf(c)}, ${told(c)}`,
                  shown: (
                    <Lined>
                      <span>
                        {nameOf(c)}
                        <small>{c.kind ? labels.ConnectorKind[c.kind] : "kind not known"}</small>
                      </span>
                      <Life row={c} cables={cables} says={told(c)} />
                    </Lined>
                  ),
                }))}
              />
            </>
          )}
          <Row style={{ marginTop: space.small }}>
            <AddPlug onAdded={setChosen} />
            {table.trigger}
            <Button onPress={() => window.location.assign(`/api/manuals/${id}/cables.csv`)}>Take the list (CSV)</Button>
          </Row>
          {table.outcome}
          {plug && <Routes key={plug.id} plug={plug} cables={cables} />}
          <Trials trials={cables.trials} />
          <Boards cables={cables} onChoose={setChosen} />
        </div>
        {row ? <Plug key={row.connector} row={row} /> : <Muted>Choose a connector to see how it opens.</Muted>}
      </Columns>
    </Page>
  );
}

const nameOf = (row: CableRow) => `${row.serves}${row.power ? " (power)" : ""}`;

/** A life in words. */
function told(row: CableRow): string {
  const hangs = row.tether ? `lifted in step ${row.tether.lifted} while it is on, ` : "";
  const made = row.temporary
    ? "only to try"
    : row.made_in == null
      ? "never made again"
      : `made in step ${row.made_in} of the rebuild`;
  return `${hangs}undone in step ${row.step_number}, ${made}`;
}

/** Where the open device is live on purpose. */
function Trials({ trials }: { trials: CablesView["trials"] }) {
  if (trials.length === 0) return null;
  return (
    <section aria-label="Trials">
      <Heading as="h3">Live on purpose</Heading>
      <ul className="plain">
        {trials.map((t) => (
          <li key={t.step}>
            <Link to={`../steps?step=${t.step}`}>{t.title}</Link>: live{" "}
            {t.live.join(", ") || "by a source that nobody told"}
            {t.keep_off.length > 0 && `; keep off the ${t.keep_off.join(" and the ")}`}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What stands on the way of a board, in the order of the work. */
function Boards({ cables, onChoose }: { cables: CablesView; onChoose: (connector: string) => void }) {
  const [board, setBoard] = useState("");
  const chosen = cables.boards.find((b) => b.board === board) ?? cables.boards[0];
  if (!chosen) return null;
  return (
    <section aria-label="To undo for a board">
      <Row>
        <Select
          label="What to undo before it leaves"
          value={chosen.board}
          options={cables.boards.map((b): [string, string] => [b.board, b.name])}
          onChange={setBoard}
        />
      </Row>
      <ol style={{ listStyle: "decimal inside" }}>
        {chosen.undo.map((id) => {
          const row = cables.cables.find((c) => c.connector === id);
          return row ? (
            <li key={id}>
              <Button onPress={() => onChoose(id)}>{nameOf(row)}</Button> step {row.step_number}
            </li>
          ) : null;
        })}
      </ol>
      {chosen.undo.length === 0 && <Muted>No connector stands on its way.</Muted>}
    </section>
  );
}

function AddPlug({ onAdded }: { onAdded: (connector: string) => void }) {
  const { view, edit } = useManual();
  const steps = view.order.filter((s) => view.manual.steps[s]?.phase === "teardown");
  const [step, setStep] = useState("");
  const at = step || steps[0] || "";
  if (steps.length === 0) return <Muted>Write a step first: connectors belong to steps.</Muted>;
  return (
    <>
      <Select
        label="Another connector in step"
        value={at}
        options={steps.map((s, i): [string, string] => [s, `${i + 1}. ${view.manual.steps[s]?.title ?? ""}`])}
        onChange={setStep}
      />
      <Button
        onPress={() => {
          const id = newId();
          void edit({ connector: { add: { id, step: at } } }).then((r) => r.ok && onAdded(id));
        }}
      >
        <Plus size={15} aria-hidden /> Add a connector
      </Button>
    </>
  );
}
