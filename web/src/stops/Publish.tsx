/** Publish: the guide as its reader sees it, what remains before that, and the files. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, Printer } from "lucide-react";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import {
  api,
  type CableSheetRow,
  type Finding,
  type GuideBlock,
  type GuideLine,
  type GuideStepBlock,
  must,
  type SheetLayer,
  type SheetRoutes,
  type SheetRow,
  sentence,
} from "../api/client";
import { useFindings, useGuide, useManual } from "../api/manual";
import { labels } from "../api/tables";
import { BitProfile } from "../parts/BitProfile";
import { ConnectorDrawing } from "../parts/ConnectorDrawing";
import { Button, ErrorNote, Heading, Muted, Pending, PrimaryButton, Select } from "../parts/controls";
import { One } from "../parts/Findings";
import { plural, when } from "../parts/format";
import { wayTo } from "../parts/place";
import { Tag } from "../parts/Tag";
import { Table } from "../parts/table";
import { Warning } from "../parts/Warning";
import { font, narrow, space } from "../theme";

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
  & > section > p { margin: ${space.small} 0; }
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
  display: grid;
  gap: ${space.hair};
`;
const FileLink = styled.a`
  display: flex;
  gap: 7px;
  align-items: center;
`;

const Opens = styled.figure`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.normal};
  margin: ${space.small} 0;
  break-inside: avoid;
  img { flex: 3 1 280px; min-width: 0; max-width: 400px; align-self: start; background: #fff; border: 1px solid var(--line); border-radius: 6px; }
  figcaption { flex: 3 1 260px; display: grid; gap: ${space.hair}; align-content: start; }
  li { display: grid; grid-template-columns: 1.4em 1fr; }
  li span { font-weight: 650; }
`;
const Figure = styled.figure`
  margin: ${space.normal} 0;
  img { max-width: 100%; max-height: 380px; background: #fff; border-radius: 6px; }
  figcaption { font-size: 0.9rem; color: var(--soft); }
`;

export default function Publish() {
  const [search, setSearch] = useSearchParams();
  const { view } = useManual();
  const wanted = search.get("job");
  const job = wanted && view.manual.jobs[wanted] ? wanted : null;
  const { data, error } = useGuide(job);
  const findings = useFindings(job);
  // Both at once: a list that comes later would push the files away from under the pointer.
  if (!data || !findings.data)
    return (
      <Page>
        <Pending error={error ?? findings.error}>Setting the guide …</Pending>
      </Page>
    );
  return (
    <Page>
      <Paper aria-label="The guide as its reader sees it">
        <h1>{data.title}</h1>
        {data.device && <p>{data.device}</p>}
        {data.sections.map((section) => (
          <section key={section.title} aria-label={section.title}>
            <h2>{section.title}</h2>
            {runs(section.blocks).map((blocks) => (
              <Run key={JSON.stringify(blocks[0])} blocks={blocks} job={job} />
            ))}
          </section>
        ))}
      </Paper>
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
        <Before job={job} findings={findings.data.findings} />
      </Side>
    </Page>
  );
}

/** Items that follow each other are one list; everything else stands alone. */
function runs(blocks: GuideBlock[]): GuideBlock[][] {
  const out: GuideBlock[][] = [];
  for (const block of blocks) {
    const last = out.at(-1);
    if (last && "item" in block && last[0] && "item" in last[0]) last.push(block);
    else out.push([block]);
  }
  return out;
}

function Run({ blocks, job }: { blocks: GuideBlock[]; job: string | null }) {
  const [block] = blocks;
  if (!block) return null;
  if ("item" in block)
    return <ul className="plain">{blocks.flatMap((b) => ("item" in b ? [<li key={b.item}>{b.item}</li>] : []))}</ul>;
  if ("caution" in block) return <Warning head={block.caution.head}>{block.caution.text}</Warning>;
  if ("text" in block) return <p>{block.text}</p>;
  if ("stage" in block) return <Stage>{block.stage}</Stage>;
  if ("step" in block) return <GuideStep step={block.step} />;
  if ("screws" in block) return <ScrewTable rows={block.screws} />;
  if ("cables" in block) return <CableTable rows={block.cables} />;
  if ("routes" in block) return <CableRoutes sheet={block.routes} job={job} />;
  return <LayerMap layer={block.map} job={job} />;
}

/** One step, or the guide that stands in its place. */
function GuideStep({ step }: { step: GuideStepBlock }) {
  return (
    <StepBox>
      <span>{step.number}</span>
      <div>
        <h3>{step.guide ? <Link to={`?job=${step.guide}`}>{step.title}</Link> : step.title}</h3>
        {step.lines.map((line, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines are never moved, and two may be equal
          <Line key={at} line={line} />
        ))}
        {step.opens.map((sheet) => (
          <HowItOpens key={sheet.seam} sheet={sheet} />
        ))}
      </div>
    </StepBox>
  );
}

/** The picture with the lines that its numbers stand for. */
function HowItOpens({ sheet }: { sheet: GuideStepBlock["opens"][number] }) {
  const { id } = useManual();
  return (
    <Opens>
      <img src={`/api/manuals/${id}/seams/${sheet.seam}/opening`} alt={`${sheet.title}, drawn`} />
      <figcaption>
        <b>{sheet.title}</b>
        <ul>
          {sheet.lines.map((line) => (
            <li key={line.text}>
              <span>{line.number ?? (line.mark ? "!" : "")}</span>
              {line.text}
            </li>
          ))}
        </ul>
      </figcaption>
    </Opens>
  );
}

const Checked = styled.p`
  padding-left: 1.6em;
  text-indent: -1.6em;
  &::before { content: "✓"; display: inline-block; width: 1.6em; text-indent: 0; font-weight: 700; }
`;

function Line({ line: { kind, text, drive, head } }: { line: GuideLine }) {
  switch (kind) {
    case "caution":
      return <Warning head={head}>{text}</Warning>;
    case "screws":
      return (
        <Screws>
          {drive && <BitProfile drive={drive} />}
          {text}
        </Screws>
      );
    case "act":
    case "note":
      return <p>{text}</p>;
    case "branch":
      return (
        <p>
          <i>{text}</i>
        </p>
      );
    case "why":
      return <Muted>{text}</Muted>;
    case "check":
      return <Checked>{text}</Checked>;
    case "posture":
      return (
        <Muted>
          {labels.LineKind.posture} {text}
        </Muted>
      );
    default:
      return (
        <p>
          {labels.LineKind[kind]}: {text}
        </p>
      );
  }
}

function ScrewTable({ rows }: { rows: SheetRow[] }) {
  return (
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
              <Muted as="span">{[row.holds, ...row.notes].filter(Boolean).join(", ")}</Muted>
            </td>
            <td>{row.step_number}</td>
            <td>{row.torque ?? row.by_hand}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function CableTable({ rows }: { rows: CableSheetRow[] }) {
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Connector</th>
          <th scope="col">Step</th>
          <th scope="col">Where</th>
          <th scope="col">Made again</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={`${row.step_number}${row.serves}`}>
            <th scope="row">
              {row.serves}
              {row.drawing && <ConnectorDrawing path={row.drawing} />}
              <Muted as="span">{row.kind}</Muted>
            </th>
            <td>{row.step_number}</td>
            <td>{row.runs.join("; ")}</td>
            <td>
              {row.made.join("; ")}
              {row.wrong && (
                <>
                  <br />
                  <Muted as="span">{row.wrong}</Muted>
                </>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** The layer with its cables, and their ways in words. */
function CableRoutes({ sheet, job }: { sheet: SheetRoutes; job: string | null }) {
  const { id } = useManual();
  return (
    <Figure>
      <img
        src={`/api/manuals/${id}/layers/${sheet.layer}/cables${job ? `?job=${job}` : ""}`}
        alt={`${sheet.name} with the ways of ${plural(sheet.ways.length, "cable")}`}
      />
      <figcaption>
        {sheet.name}
        <ul className="plain">
          {sheet.ways.map((way) => (
            <li key={way}>{way}</li>
          ))}
        </ul>
      </figcaption>
    </Figure>
  );
}

function LayerMap({ layer, job }: { layer: SheetLayer; job: string | null }) {
  const { id } = useManual();
  return (
    <Figure>
      <img
        src={`/api/manuals/${id}/layers/${layer.id}/map${job ? `?job=${job}` : ""}`}
        alt={`${layer.name} with ${plural(layer.holes, "hole")}, numbered in the order of tightening`}
      />
      <figcaption>{layer.name}</figcaption>
    </Figure>
  );
}

function Before({ job, findings }: { job: string | null; findings: Finding[] }) {
  const { id } = useManual();
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
  const blocks = findings.filter((f) => f.blocks).length;
  return (
    <>
      <section>
        <Heading>{blocks > 0 ? `${plural(blocks, "thing")} to mend first` : "Ready to publish"}</Heading>
        <PrimaryButton isDisabled={blocks > 0 || publish.isPending} onPress={() => publish.mutate()}>
          Publish revision {(revisions.data?.[0]?.number ?? 0) + 1}
        </PrimaryButton>
        {publish.error ? <ErrorNote>{sentence(publish.error)}</ErrorNote> : null}
        <ul>
          {findings.map((f) => (
            <Remains key={f.key} $blocks={f.blocks}>
              <One finding={f} also={() => <Link to={wayTo(f)}>Go there</Link>} />
            </Remains>
          ))}
        </ul>
      </section>
      <section>
        <Heading>Take it along</Heading>
        <FileLink href={`/api/manuals/${id}/guide.md${job ? `?job=${job}` : ""}`} download>
          <Download size={16} aria-hidden /> Guide as Markdown
        </FileLink>
        <FileLink href={`/api/manuals/${id}/manual.json`} download>
          <Download size={16} aria-hidden /> Manual as JSON
        </FileLink>
        <FileLink href={`/api/manuals/${id}/bundle.zip`} download>
          <Download size={16} aria-hidden /> Manual, recordings and revisions as ZIP
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
                <Muted as="span">{`${r.title}, ${when(r.at)}, ${r.author}`}</Muted>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
