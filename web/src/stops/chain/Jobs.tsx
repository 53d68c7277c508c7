/** Guides cut to one job: made from a way, listed with what they come to. */
import { Plus, Trash2 } from "lucide-react";
import { useId, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { type JobRow, newId, type RouteRow } from "../../api/client";
import { useJobs, useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import {
  Button,
  Checks,
  CommitField,
  ErrorNote,
  Heading,
  IconButton,
  More,
  Muted,
  Select,
  TextInput,
} from "../../parts/controls";
import { minutes, options, plural } from "../../parts/format";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Line = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: ${space.small};
  align-items: end;
  label { display: grid; gap: ${space.hair}; font-size: 0.86rem; color: var(--soft); }
`;
const Box = styled.div`
  li { padding: ${space.small} 0; border-bottom: 1px solid var(--line); display: grid; gap: ${space.hair}; }
`;
const Wording = styled.ol`
  display: grid;
  gap: ${space.hair};
  padding-left: ${space.normal};
`;

/** Guides that are done first: readers are sent there instead of reading the same steps again. */
function Calls({ job }: { job: JobRow }) {
  const { view, edit } = useManual();
  const [wrong, setWrong] = useState<string | null>(null);
  const calls = view.manual.jobs[job.id]?.calls ?? [];
  const others = Object.values(view.manual.jobs).filter((j) => j.id !== job.id);
  if (others.length === 0) return null;
  const call = (next: string[]) =>
    void edit({ job: { call: { id: job.id, calls: next } } }).then((r) => setWrong(r.ok ? null : r.problem.detail));
  return (
    <div>
      <Checks
        label={`Guides done before ${job.title}`}
        words="Done first:"
        options={others.map((other): [string, string] => [other.id, other.title])}
        chosen={calls}
        onChange={call}
      />
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </div>
  );
}

/** What becomes of every part that this guide takes out; the technique and the rebuild follow it. */
function Fates({ job }: { job: JobRow }) {
  const { view, edit } = useManual();
  return (
    <Row role="group" aria-label={`What becomes of the parts in ${job.title}`}>
      {job.fates.map(({ part, fate }) => (
        <Select
          key={part}
          label={`The ${view.manual.parts[part]?.name ?? "part"}`}
          value={fate}
          options={options(labels.PartFate)}
          onChange={(fate) => fate !== "" && void edit({ job: { set_fate: { id: job.id, part, fate } } })}
        />
      ))}
    </Row>
  );
}

/** "Make a guide of this way." */
export function NewJob({ targets, way }: { targets: string[]; way: RouteRow }) {
  const { view, edit } = useManual();
  const names = targets.map((t) => view.manual.parts[t]?.name ?? "part").join(" and the ");
  const [title, setTitle] = useState(`Replace the ${names}`);
  const [wrong, setWrong] = useState<string | null>(null);
  const id = useId();
  const make = async () => {
    const result = await edit({ job: { add: { id: newId(), title, targets, without: way.barred } } });
    setWrong(result.ok ? null : result.problem.detail);
  };
  return (
    <div>
      <Line
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <div>
          <label htmlFor={id}>Title of a guide of this way</label>
          <TextInput
            id={id}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
            aria-invalid={wrong !== null}
          />
        </div>
        <Button type="submit">
          <Plus size={15} aria-hidden /> Make a guide
        </Button>
      </Line>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </div>
  );
}

export function Jobs({ onReach }: { onReach: (parts: string[]) => void }) {
  const { data } = useJobs();
  if (!data || data.length === 0) return null;
  return (
    <section aria-label="Guides cut from this manual">
      <Heading as="h3">Guides cut from this manual</Heading>
      {data.map((job) => (
        <Job key={job.id} job={job} onReach={onReach} />
      ))}
    </section>
  );
}

function Job({ job, onReach }: { job: JobRow; onReach: (parts: string[]) => void }) {
  const { view, edit } = useManual();
  const made = view.manual.jobs[job.id];
  const { route } = job;
  return (
    <More
      title={
        <>
          {job.title}{" "}
          <Muted as="span">
            {route
              ? `${plural(route.totals.steps, "step")}, ${minutes(route.totals.seconds)}, ${plural(route.totals.screws, "screw")}`
              : "no way leads there any more"}
          </Muted>
        </>
      }
    >
      <Box>
        <Row>
          <Button onPress={() => onReach(made?.targets ?? [])}>Show its way</Button>
          <Link to={`../publish?job=${job.id}`}>Read the guide</Link>
          <IconButton
            aria-label={`Remove the guide ${job.title}`}
            onPress={() => void edit({ job: { remove: { id: job.id } } })}
          >
            <Trash2 size={16} />
          </IconButton>
        </Row>
        <CommitField
          label="Title"
          value={job.title}
          onCommit={(title) => edit({ job: { rename: { id: job.id, title } } })}
        />
        {route && (
          <>
            <Muted>
              {plural(job.shared, "step")} shared with other guides, {job.reworded} worded for this one alone.
            </Muted>
            {job.prices.length + job.unpriced > 0 && (
              <Muted>
                New parts:{" "}
                {[
                  ...job.prices.map((p) => `${p.amount.toFixed(2)} ${p.currency}`),
                  job.unpriced > 0 && `${plural(job.unpriced, "part")} without a price`,
                ]
                  .filter(Boolean)
                  .join(", ")}
              </Muted>
            )}
            <Calls job={job} />
            <Fates job={job} />
            <Wording>
              {route.steps.map((step) => (
                <li key={step}>
                  <CommitField
                    label={made?.wording[step] ? "Worded for this guide" : "As in the manual"}
                    value={made?.wording[step] ?? view.manual.steps[step]?.title ?? ""}
                    onCommit={(typed) => {
                      const same = typed.trim() === "" || typed === view.manual.steps[step]?.title;
                      return edit({ job: { word: { id: job.id, step, title: same ? null : typed } } });
                    }}
                  />
                </li>
              ))}
            </Wording>
          </>
        )}
      </Box>
    </More>
  );
}
