/** Where the minutes go: the recording as a strip of its steps, talk taken out of it, and the seconds that want a look. */
import { Link } from "react-router";
import styled from "styled-components";
import type { FoldView } from "../../api/client";
import { labels } from "../../api/tables";
import { Heading, More, Muted } from "../../parts/controls";
import { clock, duration, plural } from "../../parts/format";
import { Table } from "../../parts/table";
import { focusRing, space } from "../../theme";

type Time = FoldView["work"]["times"][number];
type Shown = NonNullable<Time["shown"]>;

const Strip = styled.div`
  display: flex;
  gap: 2px;
  height: 46px;
  margin: ${space.small} 0 ${space.hair};
`;
const Stretch = styled.button`
  flex: 1 1 0;
  min-width: 8px;
  display: flex;
  border: 0;
  padding: 0;
  background: none;
  font: 700 0.92rem/1.25 inherit;
  color: var(--ink);
  cursor: pointer;
  &:focus-visible { ${focusRing} z-index: 1; }
  span { overflow: hidden; text-align: center; white-space: nowrap; }
  small { display: block; font-size: 0.8rem; font-weight: 400; }
  /* Work is full, talk a low hollow rest of it, what is not believed a dashed frame. */
  span:first-child { height: 100%; background: var(--accent-wash); border-top: 4px solid var(--accent); }
  span:nth-child(2) { align-self: end; height: 10px; border: 1px solid var(--strong-line); }
  &[data-doubt] span:first-child { background: none; border: 2px dashed var(--hazard); }
  &[aria-pressed="true"] span:first-child { background: var(--accent); color: var(--on-accent); }
`;
const Look = styled.ul`
  display: grid;
  gap: ${space.hair};
  margin: ${space.small} 0;
`;

const heardOf = (t: Time): Shown[] => (t.shown ? [t.shown] : []);
const named = (t: Time) => `Step ${t.number}, ${t.title}`;

/** Both halves, each in its own order. */
type Half = { name: string; strip: string; times: Time[] };

export function Times({
  work,
  chosen,
  onChoose,
}: {
  work: FoldView["work"];
  chosen: string | null;
  onChoose: (step: string) => void;
}) {
  const halves: Half[] = [
    { name: "Taking apart", strip: "The recording, step by step", times: work.times },
    { name: "Putting together", strip: "The recording of the rebuild, step by step", times: work.times_back },
  ];
  const times = halves.flatMap((half) => half.times);
  const shown = times.filter((t) => t.shown);
  const doubted = shown.filter((t) => t.shown?.doubt);
  const by = (of: Time["clock"]) => times.filter((t) => t.clock === of).length;
  const said = (["said", "shown", "motions"] as const)
    .filter((c) => by(c) > 0)
    .map((c) => `${plural(by(c), "step")} by ${labels.Clock[c]}`);
  if (shown.length === 0) return null;
  return (
    <section aria-label="Where the minutes go" style={{ marginTop: space.wide }}>
      <Heading as="h3">Where the minutes go</Heading>
      {halves
        .filter((half) => half.times.some((t) => t.shown))
        .map((half) => (
          <div key={half.name}>
            <Muted>{half.name}</Muted>
            <Strip role="group" aria-label={half.strip}>
              {half.times.flatMap((t) =>
                heardOf(t).map((s) => <One key={t.step} {...{ time: t, shown: s, chosen, onChoose }} />),
              )}
            </Strip>
          </div>
        ))}
      <Muted>{said.join(", ")}. Talk is taken out, silence is not: hands work while nobody speaks.</Muted>
      {doubted.length > 0 && (
        <>
          <Heading as="h4">Look at these seconds</Heading>
          <Look>
            {doubted.flatMap((t) =>
              heardOf(t).map((s) => (
                <li key={t.step}>
                  <Link to={`../listen?${new URLSearchParams({ said: `${s.recording}/${s.start}`, show: "all" })}`}>
                    {clock(s.from_ms)} to {clock(s.to_ms)}
                  </Link>{" "}
                  {named(t)}. {s.doubt}
                </li>
              )),
            )}
          </Look>
        </>
      )}
      <More title="Step by step">
        <Table>
          <thead>
            <tr>
              <th scope="col">Step</th>
              <th scope="col">Takes</th>
              <th scope="col">Rests on</th>
              <th scope="col">In the recording</th>
            </tr>
          </thead>
          {halves.map((half) => (
            <tbody key={half.name}>
              <tr>
                <th scope="rowgroup" colSpan={4}>
                  {half.name}
                </th>
              </tr>
              {half.times.map((t) => (
                <tr key={`${t.number} ${t.step}`}>
                  <th scope="row">
                    {t.number}. {t.title}
                  </th>
                  <td>{t.says}</td>
                  <td>{labels.Clock[t.clock]}</td>
                  <td>{heardOf(t).map(inWords)}</td>
                </tr>
              ))}
            </tbody>
          ))}
        </Table>
      </More>
    </section>
  );
}

function One(props: { time: Time; shown: Shown; chosen: string | null; onChoose: (step: string) => void }) {
  const { time, shown, chosen, onChoose } = props;
  const whole = Math.max(shown.work_s + shown.talk_s, 1);
  // What is to be seen, number and seconds, stands in the name as it is written.
  const label = `Step ${time.number} ${inWords(shown)}${shown.doubt ? ", not believed" : ""}: ${time.title}`;
  return (
    <Stretch
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={chosen === time.step}
      data-doubt={shown.doubt ? "" : undefined}
      style={{ flexGrow: whole }}
      onClick={() => onChoose(time.step)}
    >
      <span style={{ flex: Math.max(shown.work_s, 0.1) }}>
        {time.number} <small>{duration(shown.work_s)}</small>
      </span>
      {shown.talk_s > 0 && <span style={{ flex: shown.talk_s }} />}
    </Stretch>
  );
}

function inWords(shown: Shown): string {
  const talk = shown.talk_s >= 1 ? `, ${duration(shown.talk_s)} of talk` : "";
  const silent = shown.silent_s >= 1 ? `, ${duration(shown.silent_s)} of it silent` : "";
  return `${duration(shown.work_s)} of work${silent}${talk}`;
}
