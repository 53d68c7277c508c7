/** Listen: what was said, in time, with its kind and the reason for it; put right by single keys. */
import { useRef, useState } from "react";
import { VisuallyHidden } from "react-aria";
import type { Key } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { type Action, type Edit, type Evidence, type Heard, newId } from "../api/client";
import { useHand, useListen } from "../api/manual";
import { Button, Heading, Key as KeyCap, Pending, Quiet, Select, TextInput, Wrong } from "../parts/controls";
import { useEvidence, useTape } from "../parts/tape-context";
import { clock, KINDS, plural } from "../parts/words";
import { narrow, space } from "../theme";
import { Contradictions, openFindings } from "./listen/Contradictions";
import { type Acts, InHand } from "./listen/InHand";
import { Recordings } from "./listen/Recordings";
import { FILTERS, type Filter, itemsOf, keyOf, placesOf, type Said, summary } from "./listen/rows";
import { type Focuser, StatementList } from "./listen/StatementList";

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
const Main = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space.small};
  min-height: 0;
  min-width: 0;
`;
/* What is shown grows into the rest of the page and scrolls by itself. */
const Shown = styled.div`
  flex: 1;
  min-height: 0;
`;
const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small};
  align-items: end;
`;
const Views = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small};
  align-items: baseline;
  button[aria-pressed="true"] { background: var(--accent); border-color: var(--accent); color: var(--on-accent); font-weight: 650; }
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

type View = "statements" | "contradictions" | "recordings";

export default function Listen() {
  const { data, error } = useListen();
  const { edit, view } = useHand();
  const [shown, setShown] = useState<View>("statements");
  const [chosen, setChosen] = useState<Key | null>(null);
  const [filter, setFilter] = useState<Filter>("work");
  const [find, setFind] = useState("");
  const [replace, setReplace] = useState("");
  const [raw, setRaw] = useState(false);
  const [editing, setEditing] = useState(false);
  const words = useRef<HTMLDivElement>(null);
  const search = useRef<HTMLInputElement>(null);
  const focuser = useRef<Focuser | null>(null);
  const tape = useTape();
  const go = useNavigate();
  const items = data ? itemsOf(data, filter, find) : [];
  const at = items.findIndex((i) => i.id === chosen);
  const inHand = items[at];
  const said = inHand?.row === "said" ? inHand : undefined;
  useEvidence(said ? [evidenceOf(said.recording, said.heard)] : undefined);

  if (!data)
    return (
      <Page>
        <Pending error={error}>Reading the recording …</Pending>
      </Page>
    );
  const sums = summary(data);
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
    if (!said.heard.step) await edit(stepFrom(said.recording, said.heard, view.order, view.manual));
    await go("../steps");
  };
  const acts: Acts = {
    kind: (kind) =>
      correct(
        (base) => ({ reading: { change_kind: { ...base, kind: said?.heard.statement.kind === kind ? null : kind } } }),
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
    const kind = KINDS.find((k) => k.key === key)?.kind;
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
  const places = find.trim() === "" ? [] : placesOf(data, find);
  const replaceAll = () =>
    void edit({
      reading: { several: { edits: places.map((p) => ({ word: { id: newId(), ...p, meant: replace } })) } },
    }).then((r) => r.ok && setFind(""));
  const openNow = openFindings(data);

  return (
    <Page>
      <Main aria-label="Statements">
        <VisuallyHidden>
          <h2>What was said</h2>
        </VisuallyHidden>
        <Views role="group" aria-label="What is shown">
          <Button aria-pressed={shown === "statements"} onPress={() => setShown("statements")}>
            What was said
          </Button>
          <Button aria-pressed={shown === "contradictions"} onPress={() => setShown("contradictions")}>
            Contradictions ({openNow})
          </Button>
          <Button aria-pressed={shown === "recordings"} onPress={() => setShown("recordings")}>
            Recordings ({data.length})
          </Button>
          <Quiet>
            {plural(sums.statements, "statement")}, {sums.talk} talk or noise, {sums.doubtful} doubtful,{" "}
            {plural(sums.unused, "act")} in no step
            {sums.silence_ms > 0 && `, ${clock(sums.silence_ms)} silent`}
          </Quiet>
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
        <Shown onKeyDownCapture={shown === "statements" ? onKey : undefined}>
          {data.length === 0 && shown !== "recordings" ? (
            <>
              <Heading>No recording</Heading>
              <Quiet>
                This manual is written from scratch. Its steps are at the next stop; a recording can be added under
                Recordings.
              </Quiet>
            </>
          ) : shown === "contradictions" ? (
            <Contradictions
              recordings={data}
              edit={(e) => void edit(e)}
              onShow={(recording, heard) => {
                setShown("statements");
                setFilter("all");
                setFind("");
                choose(keyOf(recording, heard));
              }}
            />
          ) : shown === "recordings" ? (
            <Recordings recordings={data} />
          ) : (
            <StatementList {...{ items, chosen, raw, focuser }} order={view.order} onChoose={choose} />
          )}
        </Shown>
        {data
          .flatMap((r) => r.heard.lost)
          .map((c) => (
            <Wrong key={c.id}>
              A correction at characters {c.start}–{c.end} ({c.what}) fits no statement of today's reading any more.
            </Wrong>
          ))}
      </Main>
      <Hold aria-label="In hand" tabIndex={-1}>
        {said ? (
          <InHand
            said={said}
            all={data}
            stepNumber={view.order.indexOf(said.heard.step ?? "") + 1}
            {...{ editing, words, acts, edit }}
            onEditing={setEditing}
          />
        ) : (
          <>
            <Quiet>Choose a statement to see why it is what it is, and to put it right.</Quiet>
            <Quiet>
              <KeyCap>↑</KeyCap> <KeyCap>↓</KeyCap> move, letters set the kind, <KeyCap>.</KeyCap> goes to the next
              doubtful one, <KeyCap>W</KeyCap> to its words, <KeyCap>F</KeyCap> to its facts, <KeyCap>X</KeyCap> leaves
              it out, <KeyCap>J</KeyCap> joins, <KeyCap>Space</KeyCap> plays it, <KeyCap>Enter</KeyCap> goes to its
              step.
            </Quiet>
          </>
        )}
      </Hold>
    </Page>
  );
}

type Span = { id: string; recording: string; start: number; end: number };

function evidenceOf(recording: string, heard: Heard): Evidence {
  const { start, end, from_ms, to_ms } = heard.statement;
  return { source: "recording", recording, start, end, from_ms, to_ms };
}

/** A step out of one statement, behind the last step of its half of the work. */
function stepFrom(
  recording: string,
  heard: Heard,
  order: string[],
  manual: { steps: Record<string, { phase: string }> },
): Edit {
  const phase = heard.statement.rebuild ? "rebuild" : "teardown";
  const evidence = [evidenceOf(recording, heard)];
  const text = heard.statement.text;
  const action: Action = { id: newId(), act: heard.statement.facts.acts[0]?.act ?? "place", parts: [], text, evidence };
  const after = order.filter((id) => manual.steps[id]?.phase === phase).at(-1) ?? null;
  return { step: { add: { id: newId(), phase, after, title: text.slice(0, 80), actions: [action] } } };
}
