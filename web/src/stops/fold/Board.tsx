/**
 * The fold as a picture: the teardown runs down the left, the rebuild up the right, partners on one line, what stands
 * elsewhere joined by a curve. Between them lies the pile on the bench. A step is opened by choosing it.
 */
import { Fragment, type KeyboardEvent, type ReactNode, useLayoutEffect, useRef, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Finding, FoldView } from "../../api/client";
import { useManual } from "../../api/manual";
import { Button, Muted } from "../../parts/controls";
import { isAbout } from "../../parts/Findings";
import { ordinal, plural } from "../../parts/format";
import { useInView } from "../../parts/place";
import { focusRing, font, space } from "../../theme";
import { BackStep } from "./BackStep";
import { lying, PileHalf, total } from "./Pile";
import { type Back, type Drawn, type FoldRow, facing, folded, placeOf, stands } from "./rows";

export const columns = `
  grid-template-columns: minmax(0, 1fr) 270px minmax(0, 1.15fr);
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr) 150px minmax(0, 1.15fr); }
`;

const Grid = styled.div`
  position: relative;
  display: grid;
  ${columns}
  & > svg { position: absolute; inset: 0; width: 100%; height: 100%; pointer-events: none; z-index: 1; }
  @media print { display: block; & > svg, & > div { display: none; } }
`;
const Half = styled.ol`
  display: contents;
  @media print { display: block; }
`;
const Item = styled.li<{ $lit: boolean; $row: number; $column: 1 | 3 }>`
  grid-row: ${(p) => p.$row};
  grid-column: ${(p) => p.$column};
  min-height: 36px;
  padding: 5px 10px;
  border-radius: 6px;
  border: 1px solid ${(p) => (p.$lit ? "var(--accent)" : "transparent")};
  background: ${(p) => (p.$lit ? "var(--sheet)" : "transparent")};
  align-self: start;
  cursor: default;
  z-index: 2;
  h3 { font: 600 1.02rem/1.4 ${font.text}; margin: 0; display: flex; gap: 9px; align-items: baseline; }
  h3 > span:first-child { color: var(--soft); font: 700 1rem ${font.plain}; min-width: 1.5em; text-align: right; }
  h3 > span:nth-child(2) { flex: 1; }
  &:hover { background: var(--sheet); }
  &:focus-visible { ${focusRing} }
`;
const Marks = styled.span`
  display: inline-flex;
  gap: 5px;
  align-items: baseline;
  font: 400 0.82rem ${font.plain};
  color: var(--soft);
  white-space: nowrap;
`;
const Mark = styled.span<{ $loud?: boolean }>`
  border: 1px solid ${(p) => (p.$loud ? "var(--hazard)" : "var(--strong-line)")};
  color: ${(p) => (p.$loud ? "var(--hazard)" : "inherit")};
  border-radius: 9px;
  padding: 0 6px;
  font-weight: ${(p) => (p.$loud ? 700 : 400)};
`;
const Middle = styled.div<{ $row: number; $joined: boolean }>`
  grid-row: ${(p) => p.$row};
  grid-column: 2;
  display: grid;
  grid-template-columns: 1fr 1fr;
  position: relative;
  margin: 0;
  &::before {
    content: "";
    position: absolute;
    inset: 18px 0 auto;
    border-top: ${(p) => (p.$joined ? "1px solid var(--strong-line)" : "0")};
  }
  &::after { content: ""; position: absolute; left: 50%; top: 0; bottom: 0; border-left: 1px dashed var(--strong-line); }
  & > div { position: relative; margin: 1px 0; }
`;
const Stretch = styled.div<{ $row: number; $column: 1 | 3 }>`
  grid-row: ${(p) => p.$row};
  grid-column: ${(p) => p.$column};
  padding: 5px 10px;
  display: flex;
  gap: ${space.small};
  align-items: center;
  font-family: ${font.text};
  color: var(--soft);
  min-height: 54px;
  z-index: 3;
  button { font-family: ${font.plain}; white-space: nowrap; }
`;
/** A column of its own at the edge, faint beside the work. */
const Told = styled.span`
  min-width: 6.2em;
  b { color: var(--ink); }
`;
const Foot = styled.div<{ $row: number }>`
  grid-row: ${(p) => p.$row};
  grid-column: 2;
  text-align: center;
  color: var(--soft);
  font-size: 0.85rem;
  padding-top: ${space.hair};
`;

type Props = {
  fold: FoldView;
  findings: Finding[];
  chosen: string | null;
  onChoose: (place: string) => void;
  all: boolean;
};

export function Board({ fold, findings, chosen, onChoose, all }: Props) {
  const { view } = useManual();
  const [open, setOpen] = useState<Set<string>>(new Set());
  const board = useRef<HTMLDivElement>(null);
  const rows = facing(fold);
  const about = (step: Back) =>
    findings.filter(
      (f) => f.set_aside == null && [step.told, step.of].some((id) => id != null && isAbout(f, "step", id)),
    );
  const anyTold = fold.rebuild.some((s) => s.told != null);
  const drawn = folded(rows, {
    open,
    keep: ({ apart, back }) => {
      const moved = fold.rebuild.some((s) => stands({ ...s, number: 0 }) && s.of === apart?.step);
      return moved || (back != null && (about(back).length > 0 || placeOf(back) === chosen));
    },
    begins: ({ apart }) => view.manual.steps[apart?.step ?? ""]?.stage != null,
  });
  const at = new Map(drawn.map((d, i) => [d.key, i + 1]));
  const rowOf = (find: (d: Drawn) => boolean) => at.get(drawn.find(find)?.key ?? "") ?? 0;
  const most = Math.max(1, ...fold.teardown.map((r) => total(r.bench)));
  const scale = Math.min(11, 96 / most);
  const lit = (id: string) => chosen === id;
  const before = (back: Back) => fold.rebuild[back.number - 2]?.bench ?? fold.turn;
  let last = { screws: 0, plugs: 0, parts: 0, seals: 0 } as FoldView["turn"];
  const places = usePlaces(board, [fold, chosen, all, open]);
  useInView(board, chosen);

  return (
    <Grid ref={board} onKeyDown={(event) => walk(event, board.current)}>
      <Curves fold={fold} places={places} lit={lit} />
      <Half aria-label="Taking apart">
        {fold.teardown.map((row) => {
          const line = rowOf((d) => d.row?.apart?.step === row.step);
          if (line === 0) return null;
          return (
            <Item
              key={row.step}
              data-place={`t${row.step}`}
              $column={1}
              $row={line}
              tabIndex={0}
              $lit={lit(row.step)}
              aria-current={lit(row.step) || undefined}
              onFocus={() => onChoose(row.step)}
              onClick={() => onChoose(row.step)}
            >
              <h3>
                <span>{row.number}</span> <span>{row.title}</span>
                {row.has_screws && (
                  <Marks>
                    {row.screws_out == null ? "screws not counted" : `${plural(row.screws_out, "screw")} out`}
                  </Marks>
                )}
              </h3>
              {lit(row.step) && (
                <Muted as="div" style={{ paddingLeft: "2.4em" }}>
                  {lying(row.bench)}. <Link to={`../steps?step=${row.step}&open=1`}>Open step {row.number}</Link>
                </Muted>
              )}
            </Item>
          );
        })}
      </Half>
      {drawn.map(({ key, row, stretch }, i) => {
        if (stretch) {
          last = stretch[stretch.length - 1]?.apart?.bench ?? last;
          const lies = stretch[stretch.length - 1]?.back;
          return (
            <Fragment key={key}>
              <Folded rows={stretch} line={i + 1} onOpen={() => setOpen(new Set([...open, key]))} />
              <Middle $row={i + 1} $joined>
                <PileHalf bench={last} side="left" scale={scale} figure />
                {lies && <PileHalf bench={before(lies)} side="right" scale={scale} figure />}
              </Middle>
            </Fragment>
          );
        }
        const figure = row?.apart != null && total(row.apart.bench) !== total(last);
        last = row?.apart?.bench ?? last;
        const lies = row?.back ? before(row.back) : null;
        return (
          <Middle key={key} $row={i + 1} $joined={row?.apart != null && row?.back != null}>
            <PileHalf bench={last} side="left" scale={scale} figure={figure} />
            {lies ? (
              <PileHalf bench={lies} side="right" scale={scale} figure={figure} />
            ) : (
              <Carried drawn={drawn} at={i} fold={fold} scale={scale} />
            )}
          </Middle>
        );
      })}
      <Half aria-label="Putting together">
        {fold.rebuild.map((step, i) => {
          const back: Back = { ...step, number: i + 1 };
          const line = rowOf((d) => d.row?.back?.number === back.number);
          if (line === 0) return null;
          return (
            <BackItem
              key={back.number}
              back={back}
              line={line}
              anyTold={anyTold}
              differs={about(back)}
              lit={lit(placeOf(back))}
              opened={all || lit(placeOf(back))}
              onChoose={() => onChoose(placeOf(back))}
            />
          );
        })}
      </Half>
      <Foot $row={drawn.length + 1}>all apart: {lying(fold.turn)}</Foot>
    </Grid>
  );
}

/** A stretch that simply turns round, in one line. */
function Folded({ rows, line, onOpen }: { rows: FoldRow[]; line: number; onOpen: () => void }) {
  const [first, last] = [rows[0], rows[rows.length - 1]];
  return (
    <>
      <Stretch $row={line} $column={1}>
        <Button onPress={onOpen} aria-label={`Show steps ${first?.apart?.number} to ${last?.apart?.number}`}>
          {first?.apart?.number} to {last?.apart?.number}
        </Button>
        <span>
          {first?.apart?.title} … {last?.apart?.title}
        </span>
      </Stretch>
      <Stretch $row={line} $column={3}>
        <span>
          {last?.back?.number} to {first?.back?.number}: the same turned round
        </span>
      </Stretch>
    </>
  );
}

/** A line without a step of the rebuild shows what lay there before the one above it. */
function Carried({ drawn, at, fold, scale }: { drawn: Drawn[]; at: number; fold: FoldView; scale: number }) {
  const below = drawn.slice(at + 1).find((d) => d.row?.back)?.row?.back;
  const bench = below ? (fold.rebuild[below.number - 1]?.bench ?? fold.turn) : fold.turn;
  return <PileHalf bench={bench} side="right" scale={scale} figure={false} />;
}

/** The rebuild as it was told, beside the one that stands: which of the told steps this was, and that it was told elsewhere. */
function ToldAs({ back }: { back: Back }) {
  if (back.told_number == null) return <Told>○ worked out</Told>;
  const as = `● told ${ordinal(back.told_number)}`;
  return <Told>{back.told_elsewhere ? <b>{as}</b> : as}</Told>;
}

type BackProps = {
  back: Back;
  line: number;
  anyTold: boolean;
  differs: Finding[];
  lit: boolean;
  opened: boolean;
  onChoose: () => void;
};

function BackItem({ back, line, anyTold, differs, lit, opened, onChoose }: BackProps) {
  const marks: ReactNode[] = [
    back.renews && <Mark key="new">new</Mark>,
    back.proofs.length > 0 && <Mark key="check">✓ {plural(back.proofs.length, "check")}</Mark>,
    stands(back) && <Mark key="moved">↕ moved</Mark>,
    differs.length > 0 && (
      <Mark key="differs" $loud>
        ≠ differs
      </Mark>
    ),
    anyTold && <ToldAs key="told" back={back} />,
  ];
  return (
    <Item
      data-place={`r${back.number}`}
      $column={3}
      $row={line}
      tabIndex={0}
      $lit={lit}
      onFocus={onChoose}
      onClick={onChoose}
    >
      <h3>
        <span>{back.number}</span> <span>{back.title}</span>
        <Marks>{marks.filter(Boolean)}</Marks>
      </h3>
      {opened && <BackStep step={back} findings={differs} chosen={lit} />}
    </Item>
  );
}

type Places = Record<string, { mid: number; left: number; right: number }>;

/** What stands elsewhere, joined to the step that it undoes. */
function Curves({ fold, places, lit }: { fold: FoldView; places: Places; lit: (id: string) => boolean }) {
  return (
    <svg aria-hidden="true">
      {fold.rebuild.map((step, i) => {
        const back = { ...step, number: i + 1 };
        const a = places[`t${step.of}`];
        const b = places[`r${back.number}`];
        if (!stands(back) || !a || !b) return null;
        const mid = (a.right + b.left) / 2;
        return (
          <path
            key={back.number}
            d={`M${a.right} ${a.mid} C${mid} ${a.mid} ${mid} ${b.mid} ${b.left} ${b.mid}`}
            fill="none"
            strokeWidth={lit(placeOf(back)) ? 4 : 2.5}
            strokeDasharray="8 4"
            stroke="var(--ink)"
          />
        );
      })}
    </svg>
  );
}

/** Arrows walk the picture: up and down a column, left and right to the partner. */
function walk(event: KeyboardEvent, board: HTMLElement | null) {
  const here = event.target as HTMLElement;
  const place = here.dataset.place;
  if (!place || !board) return;
  const top = (e: HTMLElement) => e.getBoundingClientRect().top;
  const items = [...board.querySelectorAll<HTMLElement>("[data-place]")];
  const column = items.filter((e) => e.dataset.place?.[0] === place[0]).sort((a, b) => top(a) - top(b));
  const at = column.indexOf(here);
  const other = items.filter((e) => e.dataset.place?.[0] !== place[0]);
  const near = other.reduce<HTMLElement | undefined>(
    (best, e) => (best && Math.abs(top(best) - top(here)) <= Math.abs(top(e) - top(here)) ? best : e),
    undefined,
  );
  const sideways = (event.key === "ArrowRight" && place[0] === "t") || (event.key === "ArrowLeft" && place[0] === "r");
  const next =
    event.key === "ArrowDown" ? column[at + 1] : event.key === "ArrowUp" ? column[at - 1] : sideways ? near : null;
  if (!next) return;
  event.preventDefault();
  next.focus();
}

/** Where the items stand, for the curves between them; measured, because text decides their height. */
function usePlaces(board: React.RefObject<HTMLDivElement | null>, moves: unknown[]): Places {
  const [places, setPlaces] = useState<Places>({});
  useLayoutEffect(() => {
    const box = board.current;
    if (!box) return;
    const measure = () => {
      const origin = box.getBoundingClientRect();
      const found: Places = {};
      for (const item of box.querySelectorAll<HTMLElement>("[data-place]")) {
        const r = item.getBoundingClientRect();
        found[item.dataset.place ?? ""] = {
          mid: r.top - origin.top + 18,
          left: r.left - origin.left,
          right: r.right - origin.left,
        };
      }
      setPlaces(found);
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(box);
    return () => observer.disconnect();
  }, [board, ...moves]);
  return places;
}
