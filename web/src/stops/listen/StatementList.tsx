/** The statements in time, one row each; only the rows in sight are in the page, so three hours scroll like three minutes. */
import { memo, type RefObject, useContext } from "react";
import { type Key, ListBox, ListBoxItem, ListLayout, ListStateContext, Virtualizer } from "react-aria-components";
import styled, { css } from "styled-components";
import type { StatementRow } from "../../api/client";
import { labels } from "../../api/tables";
import { clock, plural } from "../../parts/format";
import { focusRing, font, space } from "../../theme";
import type { Item, Said } from "./rows";

const List = styled(ListBox)`
  outline: none;
  overflow: auto;
  height: 100%;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
`;
const Row = styled(ListBoxItem)<{ $quiet: boolean; $warns: boolean }>`
  display: grid;
  grid-template-columns: 52px 96px minmax(0, 1fr) 62px;
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
const Note = styled.em`
  font: 600 0.82rem ${font.plain};
  color: var(--soft);
  margin-left: ${space.small};
  white-space: nowrap;
`;

export type Focuser = (key: string) => void;

export function StatementList(props: {
  items: Item[];
  order: string[];
  chosen: Key | null;
  raw: boolean;
  onChoose: (key: Key | null) => void;
  focuser: RefObject<Focuser | null>;
}) {
  return (
    <Virtualizer layout={ListLayout} layoutOptions={{ estimatedRowHeight: 36 }}>
      <List
        aria-label="Statements in time"
        items={props.items}
        dependencies={[props.order, props.raw]}
        selectionMode="single"
        selectionBehavior="replace"
        disallowEmptySelection
        selectedKeys={props.chosen === null ? [] : [props.chosen]}
        onSelectionChange={(keys) => props.onChoose(keys === "all" ? null : ([...keys][0] ?? null))}
        renderEmptyState={() => <Note>Nothing of the kind is said.</Note>}
      >
        {(item) => <AnyRow item={item as Item} order={props.order} raw={props.raw} focuser={props.focuser} />}
      </List>
    </Virtualizer>
  );
}

type RowProps = { item: Item; order: string[]; raw: boolean; focuser: RefObject<Focuser | null> };

const AnyRow = memo(function AnyRow({ item, order, raw, focuser }: RowProps) {
  const state = useContext(ListStateContext);
  if (state) {
    // The list alone knows how to bring a row into sight that is not in the page yet.
    focuser.current = (key) => {
      state.selectionManager.setFocused(true);
      state.selectionManager.setFocusedKey(key);
    };
  }
  if (item.row === "said") return <SaidRow item={item} order={order} raw={raw} />;
  const gap = item.row === "gap";
  const text = gap
    ? `${Math.round((item.to - item.from) / 1000)} s ${item.kind === "silence" ? "of silence" : "in which speech was lost"}`
    : `${plural(item.count, "statement")} of talk or noise`;
  return (
    <Row id={item.id} textValue={text} $quiet $warns={gap && item.kind === "lost_speech"}>
      <time>{item.from === null ? "" : clock(item.from)}</time>
      <span>{gap ? (item.kind === "silence" ? "Silence" : "Lost") : "· · ·"}</span>
      <span>{text}</span>
      <small />
    </Row>
  );
});

function SaidRow({ item, order, raw }: { item: Said; order: string[]; raw: boolean }) {
  const { heard } = item;
  const { statement } = heard;
  const number = heard.step ? order.indexOf(heard.step) + 1 : 0;
  const marks = (statement.marks ?? []).map((m) => labels.Mark[m]);
  return (
    <Row
      id={item.id}
      textValue={statement.text}
      $quiet={heard.talk}
      $warns={heard.kind === "caution" || statement.facts.cautions.length > 0}
    >
      <time>{statement.from_ms == null ? "" : clock(statement.from_ms)}</time>
      <Tag $mine={heard.corrected || heard.dropped || heard.facts_corrected}>
        {heard.dropped ? "Left out" : labels.StatementKind[heard.kind]}
        {heard.doubtful && " ?"}
      </Tag>
      <span>
        {heard.dropped ? <del>{statement.text}</del> : raw ? statement.text : <Repaired heard={heard} />}
        {marks.length > 0 && <Note>{marks.join(", ")}</Note>}
      </span>
      <small>{number > 0 ? `step ${number}` : ""}</small>
    </Row>
  );
}

/** The text with repaired words shown as repairs: what was heard stays readable. */
function Repaired({ heard }: { heard: StatementRow }) {
  const { statement } = heard;
  const chars = Array.from(statement.text);
  const out: React.ReactNode[] = [];
  let at = 0;
  for (const r of statement.repairs) {
    const [from, to] = [r.start - statement.start, r.end - statement.start];
    if (from < at) continue;
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
