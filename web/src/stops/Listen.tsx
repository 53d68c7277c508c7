/** Listen: what was said, in time, with its kind and the reason for it; triage by single keys. */
import { useState } from "react";
import { type Key, ListBox, ListBoxItem } from "react-aria-components";
import { useNavigate } from "react-router";
import styled, { css } from "styled-components";
import { type Action, type Edit, type Evidence, type Heard, type ListenRecording, newId } from "../api/client";
import { useHand, useListen } from "../api/manual";
import { Button, Heading, Key as KeyCap, Pending, PrimaryButton, Quiet, Wrong } from "../parts/controls";
import { useEvidence } from "../parts/tape-context";
import { clock, KINDS, kindName, plural } from "../parts/words";
import { focusRing, font, narrow, space } from "../theme";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: ${space.page};
  padding: ${space.normal} ${space.wide};
  max-width: 1280px;
  margin: 0 auto;
  ${narrow} { grid-template-columns: minmax(0, 1fr) 270px; gap: ${space.wide}; }
`;
const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small} ${space.normal};
  align-items: baseline;
  h2 { margin: 0; }
  p { flex: 1; }
`;
const List = styled(ListBox)`
  outline: none;
  margin-top: ${space.small};
`;
const Row = styled(ListBoxItem)<{ $quiet: boolean; $warns: boolean }>`
  display: grid;
  grid-template-columns: 52px 92px minmax(0, 1fr) 62px;
  gap: ${space.small};
  align-items: baseline;
  padding: 5px ${space.small};
  border-left: 4px solid transparent;
  cursor: default;
  font: ${(p) => (p.$quiet ? `400 0.9rem ${font.plain}` : `400 1rem/1.5 ${font.text}`)};
  ${(p) => p.$quiet && css`color: var(--soft);`}
  ${(p) => p.$warns && css`border-left-color: var(--hazard);`}
  &[data-hovered] { background: var(--sunk); }
  &[data-selected] { background: var(--accent-wash); border-left-color: var(--accent); }
  &[data-focus-visible] { ${focusRing} outline-offset: -3px; }
  time, small { font: 400 0.84rem ${font.plain}; color: var(--soft); }
  small:last-child { text-align: right; }
  del { color: var(--soft); }
  ins { text-decoration: underline dotted var(--accent); text-underline-offset: 3px; }
`;
const Tag = styled.span<{ $mine: boolean }>`
  font: ${(p) => (p.$mine ? 700 : 550)} 0.84rem ${font.plain};
  &::after { content: "${(p) => (p.$mine ? " ✎" : "")}"; }
`;
const Hold = styled.aside`
  position: sticky;
  top: ${space.normal};
  align-self: start;
  display: grid;
  gap: ${space.normal};
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.normal};
  ul { display: grid; gap: 3px; }
`;
const Kinds = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 5px;
  button { justify-content: space-between; }
  button[aria-pressed="true"] { background: var(--accent); border-color: var(--accent); color: var(--on-accent); font-weight: 650; }
`;

const isTalk = (h: Heard) => h.dropped || h.kind === "noise" || h.kind === "chatter";
const keyOf = (recording: string, h: Heard) => `${recording}/${h.statement.start}/${h.statement.end}`;

type Item = { id: string; recording: string; heard: Heard } | { id: string; folded: number; from: number | null };

/** Statements in time; stretches of talk and noise fold into one row. */
function itemsOf(recordings: ListenRecording[], unfolded: boolean): Item[] {
  const out: Item[] = [];
  for (const r of recordings) {
    for (const heard of r.heard.statements) {
      const last = out.at(-1);
      if (isTalk(heard) && !unfolded) {
        if (last && "folded" in last) last.folded += 1;
        else out.push({ id: `fold-${keyOf(r.id, heard)}`, folded: 1, from: heard.statement.from_ms ?? null });
      } else {
        out.push({ id: keyOf(r.id, heard), recording: r.id, heard });
      }
    }
  }
  return out;
}

export default function Listen() {
  const { data, error } = useListen();
  const { edit, view } = useHand();
  const [chosen, setChosen] = useState<Key | null>(null);
  const [unfolded, setUnfolded] = useState(false);
  const go = useNavigate();
  const items = data ? itemsOf(data, unfolded) : [];
  const inHand = items.find((i) => i.id === chosen);
  const heard = inHand && "heard" in inHand ? inHand : undefined;
  useEvidence(heard ? [evidenceOf(heard.recording, heard.heard)] : undefined);

  if (!data)
    return (
      <Page>
        <Pending error={error}>Reading the recording …</Pending>
      </Page>
    );
  if (data.length === 0) {
    return (
      <Page>
        <div>
          <Heading>No recording</Heading>
          <Quiet>This manual is written from scratch. Its steps are at the next stop.</Quiet>
        </div>
      </Page>
    );
  }
  const all = data.flatMap((r) => r.heard.statements);
  const talk = all.filter(isTalk).length;
  const unused = all.filter((h) => h.kind === "action" && !h.step && !h.dropped).length;

  const correct = (make: (base: Span) => Edit, folds: boolean) => {
    if (!heard) return;
    const { start, end } = heard.heard.statement;
    // What becomes talk folds away; the hand goes on to the next statement.
    const next = items.slice(items.indexOf(heard) + 1).find((i) => "heard" in i);
    if (folds && !unfolded && next) setChosen(next.id);
    void edit(make({ id: newId(), recording: heard.recording, start, end }));
  };
  const setKind = (kind: (typeof KINDS)[number]["kind"]) =>
    correct(
      (base) => ({ reading: { change_kind: { ...base, kind: heard?.heard.statement.kind === kind ? null : kind } } }),
      kind === "noise" || kind === "chatter",
    );
  const drop = () =>
    correct((base) => ({ reading: { drop: { ...base, dropped: !heard?.heard.dropped } } }), !heard?.heard.dropped);
  const toStep = async () => {
    if (!heard) return;
    if (!heard.heard.step) await edit(stepFrom(heard.recording, heard.heard, view.order, view.manual));
    await go("../steps");
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || !heard) return;
    const kind = KINDS.find((k) => k.key === event.key.toLowerCase())?.kind;
    const act = kind
      ? () => setKind(kind)
      : event.key === "x" || event.key === "Delete"
        ? drop
        : event.key === "Enter"
          ? toStep
          : null;
    if (!act) return;
    // Before the list takes the letter for its own search.
    event.preventDefault();
    event.stopPropagation();
    void act();
  };

  return (
    <Page>
      <section aria-label="Statements">
        <Top>
          <Heading>What was said</Heading>
          <Quiet>
            {plural(all.length, "statement")}, {talk} talk or noise, {plural(unused, "act")} in no step
          </Quiet>
          <Button aria-pressed={unfolded} onPress={() => setUnfolded(!unfolded)}>
            {unfolded ? "Fold talk away" : `Show talk (${talk})`}
          </Button>
        </Top>
        <div onKeyDownCapture={onKey}>
          <List
            aria-label="Statements in time"
            items={items}
            selectionMode="single"
            selectionBehavior="replace"
            selectedKeys={chosen ? [chosen] : []}
            onSelectionChange={(keys) => setChosen(keys === "all" ? null : ([...keys][0] ?? null))}
          >
            {(item) =>
              "heard" in (item as Item) ? (
                <StatementRow item={item as Extract<Item, { heard: Heard }>} order={view.order} />
              ) : (
                <FoldRow item={item as Extract<Item, { folded: number }>} />
              )
            }
          </List>
        </div>
        {data
          .flatMap((r) => r.heard.lost)
          .map((c) => (
            <Wrong key={c.id}>
              A correction at characters {c.start}–{c.end} fits no statement of today's reading any more.
            </Wrong>
          ))}
      </section>
      <Hold aria-label="In hand">
        {heard ? (
          <InHand
            heard={heard.heard}
            onKind={setKind}
            onDrop={drop}
            onStep={toStep}
            stepNumber={view.order.indexOf(heard.heard.step ?? "") + 1}
          />
        ) : (
          <>
            <Quiet>Choose a statement to see why it is what it is, and to put it right.</Quiet>
            <Quiet>
              <KeyCap>↑</KeyCap> <KeyCap>↓</KeyCap> move, letters set the kind, <KeyCap>X</KeyCap> drops,{" "}
              <KeyCap>Enter</KeyCap> goes to its step.
            </Quiet>
          </>
        )}
      </Hold>
    </Page>
  );
}

type Span = { id: string; recording: string; start: number; end: number };

function StatementRow({ item, order }: { item: { id: string; heard: Heard }; order: string[] }) {
  const { heard } = item;
  const { statement } = heard;
  const number = heard.step ? order.indexOf(heard.step) + 1 : 0;
  return (
    <Row
      id={item.id}
      textValue={statement.text}
      $quiet={isTalk(heard)}
      $warns={heard.kind === "caution" || statement.facts.cautions.length > 0}
    >
      <time>{statement.from_ms == null ? "" : clock(statement.from_ms)}</time>
      <Tag $mine={heard.corrected || heard.dropped}>{heard.dropped ? "Dropped" : kindName(heard.kind)}</Tag>
      <span>{heard.dropped ? <del>{statement.text}</del> : <Repaired heard={heard} />}</span>
      <small>{number > 0 ? `step ${number}` : ""}</small>
    </Row>
  );
}

function FoldRow({ item }: { item: { id: string; folded: number; from: number | null } }) {
  return (
    <Row id={item.id} textValue="talk and noise" $quiet $warns={false}>
      <time>{item.from === null ? "" : clock(item.from)}</time>
      <span>· · ·</span>
      <span>{plural(item.folded, "statement")} of talk or noise</span>
      <small />
    </Row>
  );
}

/** The text with repaired words shown as repairs: what was heard stays readable. */
function Repaired({ heard }: { heard: Heard }) {
  const { statement } = heard;
  const chars = Array.from(statement.text);
  const out: React.ReactNode[] = [];
  let at = 0;
  for (const r of statement.repairs) {
    const [from, to] = [r.start - statement.start, r.end - statement.start];
    out.push(chars.slice(at, from).join(""));
    out.push(
      <span key={r.start}>
        <ins title={r.because}>{r.meant}</ins> <del>{chars.slice(from, to).join("")}</del>
      </span>,
    );
    at = to;
  }
  out.push(chars.slice(at).join(""));
  return <>{out}</>;
}

function InHand(props: {
  heard: Heard;
  stepNumber: number;
  onKind: (kind: (typeof KINDS)[number]["kind"]) => void;
  onDrop: () => void;
  onStep: () => void;
}) {
  const { heard } = props;
  const { statement } = heard;
  return (
    <>
      <div>
        <Heading>
          {kindName(heard.kind)}
          {heard.corrected ? ", as you said" : `, ${Math.round(statement.confidence * 100)} % sure`}
        </Heading>
        <ul>
          {statement.because.map((b) => (
            <li key={b}>
              <Quiet>because {b}</Quiet>
            </li>
          ))}
          {statement.repairs.map((r) => (
            <li key={r.start}>
              <Quiet>repaired: {r.because}</Quiet>
            </li>
          ))}
        </ul>
      </div>
      <Kinds role="group" aria-label="Kind">
        {KINDS.map((k) => (
          <Button key={k.kind} aria-pressed={heard.kind === k.kind} onPress={() => props.onKind(k.kind)}>
            {k.name} <KeyCap>{k.key.toUpperCase()}</KeyCap>
          </Button>
        ))}
      </Kinds>
      <Facts heard={heard} />
      <PrimaryButton onPress={props.onStep}>
        {props.stepNumber > 0 ? `Go to step ${props.stepNumber}` : "Make a step of it"}
      </PrimaryButton>
      <Button onPress={props.onDrop}>
        {heard.dropped ? "Bring back" : "Drop"} <KeyCap>X</KeyCap>
      </Button>
    </>
  );
}

function Facts({ heard }: { heard: Heard }) {
  const f = heard.statement.facts;
  const lines = [
    ...f.parts.map((p) => `${p.op === "remove" ? "leaves" : "goes back"}: ${p.what}`),
    ...f.fasteners.map(
      (s) =>
        `screws ${s.op}: ${[s.count ?? "?", s.bit ?? s.drive, s.length_mm != null ? `${s.length_mm} mm` : null, s.what].filter(Boolean).join(", ")}`,
    ),
    ...f.connectors.map((c) => `${c.op}: ${c.what ?? "a cable"}`),
    ...f.heat.map(
      (h) =>
        `heat: ${[h.source, h.target, h.temp_c && `${h.temp_c.join("–")} °C`, h.dwell_s && `${h.dwell_s.join("–")} s`].filter(Boolean).join(", ")}`,
    ),
    ...f.cautions.map((c) => `caution about: ${c.replace("-", " ")}`),
    ...f.needs.map((n) => `${n.target} needs: ${n.after.join(", ") || "nothing off first"}`),
    ...(f.tools.length > 0 ? [`tools: ${f.tools.join(", ")}`] : []),
    ...(f.consumables.length > 0 ? [`materials: ${f.consumables.join(", ")}`] : []),
    ...f.measures.map((m) => `${m.quantity}: ${m.value}${m.to != null ? `–${m.to}` : ""} ${m.unit}`),
  ];
  if (lines.length === 0) return null;
  return (
    <ul aria-label="Facts">
      {lines.map((line) => (
        <li key={line}>
          <Quiet>{line}</Quiet>
        </li>
      ))}
    </ul>
  );
}

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
