/**
 * Fold: the teardown runs down the left, the rebuild up the right; partners face each other across the fold, and what
 * does not simply turn round is joined by a slanting line. The screws on the bench run along the fold and must come
 * back to nothing.
 */
import { useLayoutEffect, useRef, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { FoldView } from "../api/client";
import { useFindings, useGuide, useManual } from "../api/manual";
import { Heading, Muted, Pending } from "../parts/controls";
import { Findings } from "../parts/Findings";
import { plural } from "../parts/format";
import { useKeptPlace, usePlace } from "../parts/place";
import { useEvidence } from "../parts/tape-context";
import { focusRing, font, narrow, space } from "../theme";

const Page = styled.div`
  max-width: 1280px;
  margin: 0 auto;
  padding: ${space.normal} ${space.wide} ${space.page};
`;
const Heads = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px minmax(0, 1fr);
  align-items: baseline;
  & > :nth-child(2) { text-align: center; }
  ${narrow} { grid-template-columns: minmax(0, 1fr) 130px minmax(0, 1fr); }
`;
const Board = styled.div`
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px minmax(0, 1fr);
  align-items: center;
  row-gap: ${space.small};
  & > svg { position: absolute; inset: 0; width: 100%; height: 100%; pointer-events: none; }
  ${narrow} { grid-template-columns: minmax(0, 1fr) 130px minmax(0, 1fr); }
`;
const Half = styled.ol`
  display: contents;
`;
const Item = styled.li<{ $lit: boolean; $faded: boolean; $moved?: boolean; $row: number; $side: 1 | 3 }>`
  grid-row: ${(p) => p.$row};
  grid-column: ${(p) => p.$side};
  background: ${(p) => (p.$lit ? "var(--accent-wash)" : "var(--sheet)")};
  border: 1px solid ${(p) => (p.$lit ? "var(--accent)" : "var(--line)")};
  border-left-width: ${(p) => (p.$moved ? "5px" : "1px")};
  border-left-color: ${(p) => (p.$moved ? "var(--accent)" : p.$lit ? "var(--accent)" : "var(--line)")};
  border-radius: 6px;
  padding: 6px 11px;
  opacity: ${(p) => (p.$faded ? 0.55 : 1)};
  cursor: default;
  h3 { font: 600 1rem/1.35 ${font.text}; margin: 0; display: flex; gap: 9px; }
  h3 span:first-child { color: var(--soft); font: 700 1rem ${font.plain}; min-width: 1.4em; }
  ul { padding-left: 2.1em; font-size: 0.92rem; }
  &:focus-visible { ${focusRing} }
`;
const Spine = styled.div<{ $row: number }>`
  grid-row: ${(p) => p.$row};
  grid-column: 2;
  justify-self: center;
  font: 700 0.92rem ${font.plain};
  background: var(--paper);
  border: 1px solid var(--strong-line);
  border-radius: 12px;
  padding: 0 9px;
  z-index: 1;
`;
const Source = styled.small`
  margin-left: auto;
  white-space: nowrap;
  font: 400 0.85rem ${font.plain};
  color: var(--soft);
`;
const Verdict = styled.p<{ $bad: boolean }>`
  font-weight: 700;
  color: ${(p) => (p.$bad ? "var(--danger)" : "var(--accent)")};
`;
const Sum = styled.div<{ $bad: boolean }>`
  margin: ${space.wide} auto 0;
  max-width: 760px;
  text-align: center;
  padding: ${space.small} ${space.normal};
  border: 2px solid ${(p) => (p.$bad ? "var(--danger)" : "var(--accent)")};
  border-radius: 8px;
  background: var(--sheet);
  strong { font-size: 1.25rem; }
  table { margin: ${space.small} auto 0; border-collapse: collapse; font-size: 0.92rem; }
  th, td { padding: 2px 10px; text-align: right; font-weight: 400; }
  th:first-child, td:first-child { text-align: left; }
  thead th { color: var(--soft); }
  tr[data-bad] td { color: var(--danger); font-weight: 700; }
`;

type Places = Record<string, { mid: number; left: number; right: number }>;

export default function Fold() {
  const { data, error } = useGuide();
  const { view } = useManual();
  const [address] = usePlace();
  const [chosen, setChosen] = useState<string | null>(address("step"));
  useKeptPlace("step", chosen);
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "fold");
  const board = useRef<HTMLDivElement>(null);
  const places = usePlaces(board, data);
  const told = data?.fold.rebuild.filter((s) => s.told && place(s) === chosen).map((s) => s.told ?? "") ?? [];
  const steps = [...(chosen ? [chosen] : []), ...told.filter((id) => id !== chosen)];
  useEvidence(chosen ? steps.flatMap((id) => view.manual.steps[id]?.evidence ?? []) : undefined);

  if (!data)
    return (
      <Page>
        <Pending error={error}>Folding …</Pending>
      </Page>
    );
  const { teardown, rebuild, balance } = data.fold;
  if (teardown.length === 0)
    return (
      <Page>
        <Heading>Nothing to fold</Heading>
        <Muted>Write the teardown at Steps; its rebuild appears here.</Muted>
      </Page>
    );
  const lit = (id: string) => chosen === id;
  const faded = (id: string) => chosen !== null && chosen !== id;
  // The rebuild runs upwards: its first step stands lowest.
  const upwards = rebuild.map((step, i) => ({ step, number: i + 1 })).reverse();
  const anyTold = rebuild.some((s) => s.told != null);
  const open = balance.rows.filter((r) => r.open);
  const rows = facing(teardown, upwards);

  return (
    <Page>
      <Heads>
        <Heading>Taking apart ↓</Heading>
        <Verdict $bad={!balance.proven}>{balance.says}</Verdict>
        <Heading>↑ Putting together</Heading>
      </Heads>
      <Board ref={board}>
        <svg aria-hidden="true">
          {upwards.map(({ step, number }) => {
            const at = place(step);
            const a = places[`t${step.of}`];
            const b = places[`r${number}`];
            if (!a || !b) return null;
            const mid = (a.right + b.left) / 2;
            const width = lit(at) ? 3.5 : step.displaced ? 2.5 : 1.2;
            return (
              <path
                key={number}
                d={`M${a.right} ${a.mid} C${mid} ${a.mid} ${mid} ${b.mid} ${b.left} ${b.mid}`}
                fill="none"
                strokeWidth={width}
                strokeDasharray={step.displaced ? "7 4" : undefined}
                stroke={step.displaced || lit(at) ? "var(--accent)" : "var(--strong-line)"}
              />
            );
          })}
        </svg>
        <Half aria-label="Taking apart">
          {teardown.map((row) => (
            <Item
              key={row.step}
              data-place={`t${row.step}`}
              $side={1}
              $row={rows.left.get(row.step) ?? 1}
              tabIndex={0}
              $lit={lit(row.step)}
              $faded={faded(row.step)}
              onFocus={() => setChosen(row.step)}
              onClick={() => setChosen(row.step)}
            >
              <h3>
                <span>{row.number}</span> <span>{row.title}</span>
              </h3>
              {lit(row.step) && <Link to={`../steps?step=${row.step}&open=1`}>Open step {row.number}</Link>}
              {row.has_screws && (
                <Muted>
                  {row.screws_out == null ? "screws not counted" : `${plural(row.screws_out, "screw")} out`}
                </Muted>
              )}
            </Item>
          ))}
        </Half>
        {teardown
          .filter((row) => row.has_screws)
          .map((row) => (
            <Spine key={row.step} $row={rows.left.get(row.step) ?? 1} title="screws on the bench after this step">
              {row.on_bench ?? "?"} on the bench
            </Spine>
          ))}
        <Half aria-label="Putting together, last step first">
          {upwards.map(({ step, number }) => (
            <Item
              key={number}
              data-place={`r${number}`}
              $side={3}
              $row={rows.right.get(number) ?? 1}
              tabIndex={0}
              $lit={lit(place(step))}
              $faded={faded(place(step))}
              $moved={step.displaced != null}
              onFocus={() => setChosen(place(step))}
              onClick={() => setChosen(place(step))}
            >
              <h3>
                <span>{number}</span> <span>{step.title}</span>
                {anyTold && <Source>{step.told ? "told" : "worked out"}</Source>}
              </h3>
              <ul>
                {step.lines.map((line, i) => (
                  <li key={`${line.told} ${line.text}`}>
                    {line.text}{" "}
                    {line.because && line.because !== step.lines[i + 1]?.because && (
                      <Muted as="span">{line.because}</Muted>
                    )}
                  </li>
                ))}
              </ul>
              {open
                .filter((r) => step.groups.includes(r.group))
                .map((r) => (
                  <Verdict key={r.group} $bad>
                    {r.back ?? "?"} of {r.out ?? "?"} told back
                  </Verdict>
                ))}
              {step.displaced && <Muted>{step.displaced}</Muted>}
              {step.told && lit(place(step)) && (
                <Link to={`../steps?step=${step.told}&open=1`}>Open the told step</Link>
              )}
            </Item>
          ))}
        </Half>
      </Board>
      <Balance balance={balance} />
      <Findings name="To look at" findings={found} />
    </Page>
  );
}

/** What a step of the rebuild is chosen by: the teardown step that it undoes, else itself. */
function place(step: FoldView["rebuild"][number]) {
  return step.of ?? step.told ?? "";
}

/** Rows of the board: partners face each other, what was displaced or has no partner takes a row of its own. */
function facing(teardown: FoldView["teardown"], upwards: { step: FoldView["rebuild"][number]; number: number }[]) {
  const left = new Map<string, number>();
  const right = new Map<number, number>();
  let row = 0;
  let next = 0;
  for (const { step, number } of upwards) {
    const partner = teardown.findIndex((t) => t.step === step.of);
    if (step.displaced == null && partner >= next) {
      // Teardown steps that leave nothing to undo stand alone above.
      for (; next < partner; next++) left.set(teardown[next]?.step ?? "", ++row);
      left.set(teardown[partner]?.step ?? "", ++row);
      next = partner + 1;
    } else {
      row++;
    }
    right.set(number, row);
  }
  for (; next < teardown.length; next++) left.set(teardown[next]?.step ?? "", ++row);
  return { left, right };
}

function Balance({ balance }: { balance: FoldView["balance"] }) {
  return (
    <Sum $bad={!balance.proven} role="group" aria-label="Screw balance">
      <strong>{balance.says}</strong>
      <Muted>
        {balance.out} out, {balance.back} back, {balance.renewed} new
      </Muted>
      {balance.rows.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">Screws</th>
              <th scope="col">out</th>
              <th scope="col">back</th>
              <th scope="col">new</th>
              <th scope="col">left over</th>
            </tr>
          </thead>
          <tbody>
            {balance.rows.map((row) => (
              <tr key={row.group} data-bad={row.open ? "" : undefined}>
                <td>{row.label}</td>
                <td>{row.out ?? "?"}</td>
                <td>{row.back ?? "?"}</td>
                <td>{row.renewed}</td>
                <td>{row.left_over ?? "?"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Sum>
  );
}

/** Where the items stand, for the lines between them; measured, because text decides their height. */
function usePlaces(board: React.RefObject<HTMLDivElement | null>, data: unknown): Places {
  const [places, setPlaces] = useState<Places>({});
  // biome-ignore lint/correctness/useExhaustiveDependencies: new data moves the items
  useLayoutEffect(() => {
    const box = board.current;
    if (!box) return;
    const measure = () => {
      const origin = box.getBoundingClientRect();
      const found: Places = {};
      for (const item of box.querySelectorAll<HTMLElement>("[data-place]")) {
        const r = item.getBoundingClientRect();
        found[item.dataset.place ?? ""] = {
          mid: r.top - origin.top + r.height / 2,
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
  }, [board, data]);
  return places;
}
