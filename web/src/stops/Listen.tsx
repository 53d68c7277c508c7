/** Listen: what was said, in time, with its kind and the reason for it; put right by single keys. */
import { useEffect, useRef, useState } from "react";
import { VisuallyHidden } from "react-aria";
import { type Key, TabPanel } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, type Edit, type Evidence, type ListenView, must, newId, type StatementRow } from "../api/client";
import { useFindings, useHeard, useListen, useManual } from "../api/manual";
import { keys } from "../api/tables";
import {
  Button,
  ErrorNote,
  Heading,
  Key as KeyCap,
  Muted,
  PanelList,
  PanelName,
  Panels,
  Pending,
  Select,
  TextInput,
} from "../parts/controls";
import { byKey, clock, plural } from "../parts/format";
import { useKeptPlace, usePlace } from "../parts/place";
import { useEvidence, useTape } from "../parts/tape-context";
import { narrow, space } from "../theme";
import { type Acts, InHand } from "./listen/InHand";
import { Recordings } from "./listen/Recordings";
import { FILTERS, type Filter, itemsOf, keyOf, type Said } from "./listen/rows";
import { type Focuser, StatementList } from "./listen/StatementList";
import { ToSettle } from "./listen/ToSettle";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  grid-template-rows: minmax(0, 1fr);
  gap: ${space.wide};
  padding: ${space.small} ${space.wide} ${space.small};
  max-width: 1360px;
  margin: 0 auto;
  height: 100%;
  min-height: 440px;
  ${narrow} { grid-template-columns: minmax(0, 1fr) 280px; gap: ${space.normal}; }
`;
const Main = styled(Panels)`
  display: flex;
  flex-direction: column;
  gap: ${space.small};
  min-height: 0;
  min-width: 0;
`;
/* What is shown grows into the rest of the page and scrolls by itself. */
const Shown = styled(TabPanel)`
  flex: 1;
  min-height: 0;
  outline: none;
`;
const Keys = styled.div`height: 100%;`;
const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small};
  align-items: end;
`;
const Views = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small} ${space.normal};
  align-items: baseline;
`;
const Find = styled.div`
  display: grid;
  label { font-size: 0.86rem; color: var(--soft); }
  input { width: 150px; }
`;
const Hold = styled.aside`
  overflow: auto;
  display: grid;
  align-content: start;
  gap: ${space.normal};
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.normal};
  ul { display: grid; gap: 3px; }
`;

type View = "statements" | "settle" | "recordings";

export default function Listen() {
  const { data, error } = useListen();
  const { id, edit, view } = useManual();
  const findings = useFindings().data?.findings ?? [];
  const [place, goTo] = usePlace();
  const shown = (place("tab") ?? "statements") as View;
  const setShown = (view: View) => goTo({ tab: view === "statements" ? null : view });
  const [chosen, setChosen] = useState<Key | null>(place("said"));
  const filter = (place("show") ?? "work") as Filter;
  const setFilter = (to: Filter) => goTo({ show: to === "work" ? null : to });
  const [find, setFind] = useState(place("find") ?? "");
  useKeptPlace("find", find.trim() === "" ? null : find);
  const [replace, setReplace] = useState("");
  const [raw, setRaw] = useState(false);
  const [editing, setEditing] = useState(false);
  const words = useRef<HTMLDivElement>(null);
  const search = useRef<HTMLInputElement>(null);
  const focuser = useRef<Focuser | null>(null);
  const heardPlaces = useHeard(find);
  const tape = useTape();
  const go = useNavigate();
  const items = data ? itemsOf(data, filter, find) : [];
  const at = items.findIndex((i) => i.id === chosen);
  const inHand = items[at];
  const said = inHand?.row === "said" ? inHand : undefined;
  useKeptPlace("said", chosen === null ? null : String(chosen));
  // A row that is to be shown may come with another list than the one that stands here now.
  const wanted = useRef<Key | null>(chosen);
  useEffect(() => {
    if (wanted.current === null || !items.some((i) => i.id === wanted.current)) return;
    focuser.current?.(String(wanted.current));
    wanted.current = null;
  });
  useEvidence(said ? [evidenceOf(said.recording, said.heard)] : undefined);

  if (!data)
    return (
      <Page>
        <Pending error={error}>Reading the recording …</Pending>
      </Page>
    );
  const found = findings.filter((f) => f.stop === "listen");
  const openNow = found.filter((f) => f.set_aside == null).length;
  const choose = (key: Key | null) => {
    setEditing(false);
    setChosen(key);
  };
  const show = (item: Said) => {
    choose(item.id);
    focuser.current?.(item.id);
  };
  const doubtful = (way: 1 | -1) => {
    const hits = items.flatMap((i, n) => (i.row === "said" && i.heard.doubtful ? [{ i, n }] : []));
    const next = way === 1 ? hits.find((h) => h.n > at) : hits.findLast((h) => h.n < at || at < 0);
    const hit = next ?? (way === 1 ? hits[0] : hits.at(-1));
    if (hit) show(hit.i);
  };
  const correct = (make: (base: Span) => Edit, folds: boolean) => {
    if (!said) return;
    const { start, end } = said.heard.statement;
    // What becomes talk folds away; the hand goes on to the next statement.
    const next = items.slice(at + 1).find((i) => i.row === "said");
    if (folds && filter !== "all" && next?.row === "said") show(next);
    void edit(make({ id: newId(), recording: said.recording, start, end }));
  };
  const toStep = async () => {
    if (!said) return;
    let { step } = said.heard;
    if (!step) {
      const { start } = said.heard.statement;
      const path = { id, recording: said.recording, start };
      const url = "/api/manuals/{id}/recordings/{recording}/statements/{start}/step";
      const made = await must(api.GET(url, { params: { path } }));
      if (!(await edit(made.edit)).ok) return;
      step = made.step;
    }
    // Back leads to this statement again.
    goTo({ said: said.id });
    await go(`../steps?step=${step}`);
  };
  const acts: Acts = {
    kind: (kind) =>
      correct(
        // The kind that it already has is confirmed.
        (base) => ({ reading: { change_kind: { ...base, kind } } }),
        kind === "noise" || kind === "chatter",
      ),
    drop: () =>
      correct((base) => ({ reading: { drop: { ...base, dropped: !said?.heard.dropped } } }), !said?.heard.dropped),
    join: () => {
      if (!said) return;
      const all = data.find((r) => r.id === said.recording)?.heard.statements ?? [];
      const before = all[all.indexOf(said.heard) - 1];
      if (!before) return;
      void edit({
        reading: { cut: { id: newId(), recording: said.recording, at: said.heard.statement.start, joins: true } },
      });
      choose(keyOf(said.recording, before));
    },
    step: () => void toStep(),
  };
  const KEYS: Record<string, () => void> = {
    x: acts.drop,
    delete: acts.drop,
    enter: acts.step,
    j: acts.join,
    f: () => setEditing(true),
    w: () => words.current?.querySelector("button")?.focus(),
    " ": () => tape.play("once"),
    r: () => tape.play("slow"),
    l: () => tape.play("loop"),
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const key = event.key.toLowerCase();
    const kind = byKey(keys.StatementKind, key);
    const anywhere: Record<string, () => void> = {
      ".": () => doubtful(1),
      ",": () => doubtful(-1),
      "/": () => search.current?.focus(),
      h: () => setRaw(!raw),
    };
    const act = anywhere[key] ?? (said ? (kind ? () => acts.kind(kind) : KEYS[key]) : undefined);
    if (!act) return;
    // Before the list takes the letter for its own search.
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  const places = find.trim() === "" ? [] : (heardPlaces.data ?? []);
  const replaceAll = () =>
    void edit({
      reading: { several: { edits: places.map((p) => ({ word: { id: newId(), ...p, meant: replace } })) } },
    }).then((r) => r.ok && setFind(""));

  return (
    <Page>
      <Main selectedKey={shown} onSelectionChange={(key) => setShown(key as View)}>
        <VisuallyHidden>
          <h2>What was said</h2>
        </VisuallyHidden>
        <Views>
          <PanelList aria-label="What is shown">
            <PanelName id="statements">What was said</PanelName>
            <PanelName id="settle">To settle ({openNow})</PanelName>
            <PanelName id="recordings">Recordings ({data.length})</PanelName>
          </PanelList>
          <Muted>
            {data.map((r) => (
              <Sums key={r.id} recording={r} named={data.length > 1} />
            ))}
          </Muted>
        </Views>
        {shown === "statements" && (
          <Top>
            <Select label="Show" value={filter} options={FILTERS} onChange={(f) => f && setFilter(f)} />
            <Find>
              <label htmlFor="find">
                Find <KeyCap>/</KeyCap>
              </label>
              <TextInput
                id="find"
                ref={search}
                type="search"
                value={find}
                onChange={(event) => setFind(event.target.value)}
                onKeyDown={(event) => event.key === "Escape" && setFind("")}
              />
            </Find>
            {find.trim() !== "" && (
              <>
                <Find>
                  <label htmlFor="replace">Meant was</label>
                  <TextInput id="replace" value={replace} onChange={(event) => setReplace(event.target.value)} />
                </Find>
                <Button isDisabled={places.length === 0 || replace.trim() === ""} onPress={replaceAll}>
                  Replace in {plural(places.length, "place")}
                </Button>
              </>
            )}
            <Button onPress={() => doubtful(-1)} aria-label="Previous doubtful statement">
              ◂ <KeyCap>,</KeyCap>
            </Button>
            <Button onPress={() => doubtful(1)} aria-label="Next doubtful statement">
              Doubtful ▸ <KeyCap>.</KeyCap>
            </Button>
            <Button aria-pressed={raw} onPress={() => setRaw(!raw)}>
              {raw ? "Show repairs" : "Show as heard"} <KeyCap>H</KeyCap>
            </Button>
          </Top>
        )}
        <Shown id="statements">
          {data.length === 0 ? (
            <NoRecording />
          ) : (
            <Keys onKeyDownCapture={onKey}>
              <StatementList {...{ items, chosen, raw, focuser }} order={view.order} onChoose={choose} />
            </Keys>
          )}
        </Shown>
        <Shown id="settle">
          {data.length === 0 ? (
            <NoRecording />
          ) : (
            <ToSettle
              wanted={place("finding")}
              recordings={data}
              found={found}
              onShow={(recording, heard) => {
                goTo({ tab: null, show: "all" });
                setFind("");
                choose(keyOf(recording, heard));
                wanted.current = keyOf(recording, heard);
              }}
            />
          )}
        </Shown>
        <Shown id="recordings">
          <Recordings recordings={data} />
        </Shown>
        {data
          .flatMap((r) => r.heard.lost)
          .map((c) => (
            <ErrorNote key={c.id}>
              A correction at characters {c.start}–{c.end} ({c.what}) fits no statement of today's reading any more.
            </ErrorNote>
          ))}
      </Main>
      <Hold aria-label="The chosen statement" tabIndex={-1}>
        {said ? (
          <InHand
            said={said}
            stepNumber={view.order.indexOf(said.heard.step ?? "") + 1}
            {...{ editing, words, acts, edit }}
            onEditing={setEditing}
          />
        ) : (
          <>
            <Muted>Choose a statement to see why it is what it is, and to put it right.</Muted>
            <Muted>
              <KeyCap>↑</KeyCap> <KeyCap>↓</KeyCap> move, letters set the kind, <KeyCap>.</KeyCap> goes to the next
              doubtful one, <KeyCap>W</KeyCap> to its words, <KeyCap>F</KeyCap> to its facts, <KeyCap>X</KeyCap> leaves
              it out, <KeyCap>J</KeyCap> joins, <KeyCap>Space</KeyCap> plays it, <KeyCap>Enter</KeyCap> goes to its
              step.
            </Muted>
          </>
        )}
      </Hold>
    </Page>
  );
}

type Span = { id: string; recording: string; start: number; end: number };

function evidenceOf(recording: string, heard: StatementRow): Evidence {
  const { start, end, from_ms, to_ms } = heard.statement;
  return { source: "recording", recording, start, end, from_ms, to_ms };
}

/** What a recording comes to. */
function Sums({ recording, named }: { recording: ListenView; named: boolean }) {
  const { statements, talk, doubtful, unused, silence_ms } = recording.heard.sums;
  return (
    <span style={{ display: "block" }}>
      {named && `${recording.title}: `}
      {plural(statements, "statement")}, {talk} talk or noise, {doubtful} doubtful, {plural(unused, "act")} in no step
      {silence_ms > 0 && `, ${clock(silence_ms)} silent`}
    </span>
  );
}

function NoRecording() {
  return (
    <>
      <Heading>No recording</Heading>
      <Muted>
        This manual is written from scratch. Its steps are at the next stop; a recording can be added under Recordings.
      </Muted>
    </>
  );
}
