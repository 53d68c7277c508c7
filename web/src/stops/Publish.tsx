/** Publish: the guide as its reader sees it, what remains before that, and the files. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, Printer, TriangleAlert } from "lucide-react";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { api, type Guide, must, sentence } from "../api/client";
import { useGuide, useHand } from "../api/manual";
import { BitProfile } from "../parts/BitProfile";
import { Button, Heading, Pending, PrimaryButton, Quiet, Select, Wrong } from "../parts/controls";
import { Table } from "../parts/table";
import { plural, when } from "../parts/words";
import { font, narrow, space } from "../theme";
import { Tag } from "./screws/Tag";

const Page = styled.div`
  max-width: 1240px;
  margin: 0 auto;
  padding: ${space.normal} ${space.wide} ${space.page};
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: ${space.page};
  ${narrow} { grid-template-columns: minmax(0, 1fr) 260px; gap: ${space.wide}; }
  @media print { display: block; padding: 0; }
`;
const Paper = styled.article`
  background: var(--sheet);
  border: 1px solid var(--line);
  padding: ${space.page};
  font: 400 1.04rem/1.55 ${font.text};
  h1 { font: 700 1.7rem/1.2 ${font.text}; }
  h2 { font: 700 1.3rem ${font.text}; margin: ${space.wide} 0 ${space.small}; break-after: avoid; }
  h3 { font: 650 1.08rem ${font.text}; break-after: avoid; }
  ul.plain { padding-left: 1.2em; list-style: disc; }
  @media print { border: 0; padding: 0; background: none; }
`;
const StepBox = styled.section`
  display: grid;
  grid-template-columns: 3em minmax(0, 1fr);
  padding: ${space.small} 0;
  border-top: 1px solid var(--line);
  break-inside: avoid;
  & > span { font: 700 1.15rem ${font.plain}; }
`;
/** A stage of the work: a chapter, no step. */
const Stage = styled.h3`
  margin-top: ${space.wide};
  font-style: italic;
`;
const Warn = styled.p`
  border: 2px solid var(--hazard);
  border-radius: 5px;
  padding: 4px 10px;
  margin: 5px 0;
  font: 500 0.98rem ${font.plain};
  display: flex;
  gap: 9px;
  svg { color: var(--hazard); flex: none; margin-top: 2px; }
`;
const Screws = styled.p`
  display: flex;
  gap: 8px;
  align-items: center;
  font: 500 0.96rem ${font.plain};
`;
const Side = styled.aside`
  display: grid;
  gap: ${space.wide};
  align-content: start;
  position: sticky;
  top: ${space.normal};
  align-self: start;
  @media print { display: none; }
  ul { display: grid; gap: 6px; }
  section { display: grid; gap: ${space.small}; }
`;
const Remains = styled.li<{ $blocks: boolean }>`
  border-left: 4px solid ${(p) => (p.$blocks ? "var(--danger)" : "var(--line)")};
  padding-left: 10px;
  font-size: 0.95rem;
`;
const FileLink = styled.a`
  display: flex;
  gap: 7px;
  align-items: center;
`;

export default function Publish() {
  const [search, setSearch] = useSearchParams();
  const { view } = useHand();
  const wanted = search.get("job");
  const job = wanted && view.manual.jobs[wanted] ? wanted : null;
  const { data, error } = useGuide(job);
  if (!data)
    return (
      <Page>
        <Pending error={error}>Setting the guide …</Pending>
      </Page>
    );
  return (
    <Page>
      <Reader guide={data} job={job} />
      <Side aria-label="Before publishing">
        <Select
          label="Guide"
          value={job ?? ""}
          options={[
            ["", "The whole teardown"],
            ...Object.values(view.manual.jobs).map((j): [string, string] => [j.id, j.title]),
          ]}
          onChange={(id) => setSearch(id === "" ? {} : { job: id })}
        />
        <Before guide={data} job={job} />
      </Side>
    </Page>
  );
}

const Figure = styled.figure`
  margin: ${space.normal} 0;
  img { max-width: 100%; max-height: 380px; background: #fff; border-radius: 6px; }
  figcaption { font-size: 0.9rem; color: var(--soft); }
`;

function Reader({ guide, job }: { guide: Guide; job: string | null }) {
  return (
    <Paper aria-label="The guide as its reader sees it">
      <h1>{guide.title}</h1>
      {guide.device && <p>{guide.device}</p>}
      <h2>Before you begin</h2>
      {guide.care.map((c) => (
        <Warn key={c}>
          <TriangleAlert size={18} aria-hidden /> {c}
        </Warn>
      ))}
      <List title="Which one is yours" lines={guide.variants.map((v) => `${v.name}: ${v.text}`)} />
      {guide.around
        .filter((a) => a.kind !== "must_pass")
        .map((a) => (
          <List key={a.kind} title={a.title} lines={a.lines} />
        ))}
      <List title="To order" lines={guide.orders.map((o) => `${o.name}: ${o.text}`)} />
      <List title="Tools" lines={guide.tools} />
      <List title="Materials" lines={guide.consumables} />
      <h2>Taking apart</h2>
      {guide.steps.map((step) => (
        <GuideStep
          key={step.id}
          step={step}
          called={guide.called.find((c) => c.from <= step.number && step.number <= c.to)}
        />
      ))}
      <h2>Putting together</h2>
      {guide.fold.rebuild.map((step, i) => (
        <StepBox key={`${step.of}${step.title}`}>
          <span>{i + 1}</span>
          <div>
            <h3>{step.title}</h3>
            {step.lines.map((line) => (
              <p key={line.text}>
                {line.text} {line.because}
              </p>
            ))}
          </div>
        </StepBox>
      ))}
      <ScrewSheet guide={guide} job={job} />
      {guide.around
        .filter((a) => a.kind === "must_pass")
        .map((a) => (
          <List key={a.kind} title={a.title} lines={a.lines} />
        ))}
    </Paper>
  );
}

/** One step, or the guide that stands in its place. */
function GuideStep({ step, called }: { step: Guide["steps"][number]; called: Guide["called"][number] | undefined }) {
  if (called && called.from !== step.number) return null;
  if (called)
    return (
      <StepBox>
        <span>{called.from === called.to ? called.from : `${called.from}–${called.to}`}</span>
        <div>
          <h3>
            Follow the guide “<Link to={`?job=${called.job}`}>{called.title}</Link>”
          </h3>
          {called.expects.map((line) => (
            <p key={line}>It expects: {line}</p>
          ))}
          <p>It leaves out of the device: {called.leaves.join(", ")}.</p>
        </div>
      </StepBox>
    );
  return (
    <>
      {step.stage && <Stage>{step.stage}</Stage>}
      <StepBox id={`step-${step.id}`}>
        <span>{step.number}</span>
        <div>
          <h3>{step.title}</h3>
          {step.variants.length > 0 && <Quiet>Only for: {step.variants.join(", ")}</Quiet>}
          {step.posture && <Quiet>The device lies {step.posture}.</Quiet>}
          {step.cautions.map((c) => (
            <Warn key={c.id}>
              <TriangleAlert size={18} aria-label="Caution" /> {c.text}
            </Warn>
          ))}
          {step.lines.map((line) => (
            <p key={line}>{line}</p>
          ))}
          {step.screws.map((s) => (
            <Screws key={s.group}>
              <BitProfile drive={s.profile} />
              {s.words}
            </Screws>
          ))}
          {step.heat.map((h) => (
            <Screws key={h}>♨ {h}</Screws>
          ))}
          {step.branches.map((b) => (
            <p key={b}>
              <i>{b}</i>
            </p>
          ))}
          {step.note && <p>{step.note}</p>}
        </div>
      </StepBox>
    </>
  );
}

/** All screws with how tight, the orders, and the maps that the numbers stand on. */
function ScrewSheet({ guide, job }: { guide: Guide; job: string | null }) {
  const { id } = useHand();
  const { rows, joints, layers } = guide.screws;
  if (rows.length === 0) return null;
  return (
    <>
      <h2>Screws</h2>
      <Table>
        <thead>
          <tr>
            <th scope="col">Group</th>
            <th scope="col">Screws</th>
            <th scope="col">Step</th>
            <th scope="col">How tight</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.group}>
              <th scope="row">
                <Tag tag={row.tag} size={26} />
              </th>
              <td>
                {row.count ?? "?"} × {row.kind}
                <br />
                <Quiet as="span">{[row.holds, ...row.notes].filter(Boolean).join(", ")}</Quiet>
              </td>
              <td>{row.step_number}</td>
              <td>{row.torque ?? row.by_hand}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {joints.map((joint) => (
        <p key={joint.title}>
          {joint.title}: {joint.says} {joint.order && `Order: ${joint.order}.`}
        </p>
      ))}
      {layers.map((layer) => (
        <Figure key={layer.id}>
          <img
            src={`/api/manuals/${id}/layers/${layer.id}/map${job ? `?job=${job}` : ""}`}
            alt={`${layer.name} with ${plural(layer.holes, "hole")}, numbered in the order of tightening`}
          />
          <figcaption>{layer.name}</figcaption>
        </Figure>
      ))}
    </>
  );
}

function List({ title, lines }: { title: string; lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <>
      <h2>{title}</h2>
      <ul className="plain">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </>
  );
}

function Before({ guide, job }: { guide: Guide; job: string | null }) {
  const { id } = useHand();
  const queries = useQueryClient();
  const revisions = useQuery({
    queryKey: ["revisions", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/revisions", { params: { path: { id } } })),
  });
  const publish = useMutation({
    mutationFn: () =>
      must(api.POST("/api/manuals/{id}/revisions", { params: { path: { id }, query: { job: job ?? undefined } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["revisions", id] }),
  });
  const blocks = guide.remaining.filter((r) => r.blocks).length;
  return (
    <>
      <section>
        <Heading>{blocks > 0 ? `${plural(blocks, "thing")} to mend first` : "Ready to publish"}</Heading>
        <ul>
          {guide.remaining.map((r) => (
            <Remains key={r.what} $blocks={r.blocks}>
              {r.blocks && <strong>Blocks: </strong>}
              {r.what} <Link to={`../${r.stop === "fold" && r.step ? "steps" : r.stop}`}>Go there</Link>
            </Remains>
          ))}
        </ul>
        <PrimaryButton isDisabled={blocks > 0 || publish.isPending} onPress={() => publish.mutate()}>
          Publish revision {(revisions.data?.[0]?.number ?? 0) + 1}
        </PrimaryButton>
        {publish.error ? <Wrong>{sentence(publish.error)}</Wrong> : null}
      </section>
      <section>
        <Heading>Take it along</Heading>
        <FileLink href={`/api/manuals/${id}/guide.md${job ? `?job=${job}` : ""}`} download>
          <Download size={16} aria-hidden /> Guide as Markdown
        </FileLink>
        <FileLink href={`/api/manuals/${id}/manual.json`} download>
          <Download size={16} aria-hidden /> Manual as JSON
        </FileLink>
        <Button onPress={() => window.print()}>
          <Printer size={16} aria-hidden /> Print
        </Button>
      </section>
      {revisions.data && revisions.data.length > 0 && (
        <section>
          <Heading>Published</Heading>
          <ul>
            {revisions.data.map((r) => (
              <li key={r.number}>
                <a href={`/api/manuals/${id}/revisions/${r.number}`}>Revision {r.number}</a>{" "}
                <Quiet as="span">{`${r.title}, ${when(r.at)}, ${r.author}`}</Quiet>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
