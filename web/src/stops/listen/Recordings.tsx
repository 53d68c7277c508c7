/** The recordings of a manual: add one, take tables out and in, and lay two of one device side by side. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FileUp } from "lucide-react";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { api, bring, type ListenView, must, newId, sentence } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, ErrorNote, Heading, Muted, Pending, Select } from "../../parts/controls";
import { clock, plural } from "../../parts/format";
import { Row } from "../../parts/layout";
import { useTableFile } from "../../parts/TableFile";
import { Table } from "../../parts/table";
import { space } from "../../theme";

const Page = styled.div`
  display: grid;
  gap: ${space.wide};
  align-content: start;
  overflow: auto;
  height: 100%;
`;
const One = styled.li`
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
  padding: ${space.normal};
  display: grid;
  gap: ${space.small};
`;
const Compared = styled(Table)`
  background: var(--sheet);
  caption { text-align: left; padding-bottom: ${space.small}; }
  tr[data-differs="true"] td:first-child { border-left: 4px solid var(--hazard); }
  small { color: var(--soft); margin-left: ${space.hair}; }
`;

export function Recordings({ recordings }: { recordings: ListenView[] }) {
  return (
    <Page>
      <section aria-label="Recordings">
        <Heading>Recordings</Heading>
        <ul>
          {recordings.map((r) => (
            <Tables key={r.id} recording={r} several={recordings.length > 1} />
          ))}
        </ul>
        <Add />
      </section>
      {recordings.length > 1 && <Compare recordings={recordings} />}
    </Page>
  );
}

/** The fact sheet and the statements as files, and the edited table back. */
function Tables({ recording, several }: { recording: ListenView; several: boolean }) {
  const { id, view, edit } = useManual();
  const path = `/api/manuals/${id}/recordings/${recording.id}`;
  const follows = view.manual.head.follows === recording.id;
  const table = useTableFile({
    path: `${path}/statements`,
    button: "Bring the edited table back",
    name: `Bring the edited table back: ${recording.title}`,
    change: "correction",
  });
  return (
    <One>
      <Heading as="h3">
        {recording.title}
        {follows && " – the manual follows this one"}
      </Heading>
      <Muted>
        {plural(recording.heard.sums.statements, "statement")}
        {recording.timed && `, ${clock(recording.duration_ms)} long`}
      </Muted>
      <Row>
        <a href={`${path}/sheet`} download={`${recording.title}.facts.json`}>
          Fact sheet (JSON)
        </a>
        <a href={`${path}/statements`} download={`${recording.title}.statements.csv`}>
          Statements (CSV)
        </a>
        {table.trigger}
        {several && !follows && (
          <Button onPress={() => void edit({ recording: { follow: { recording: recording.id } } })}>
            Follow this one
          </Button>
        )}
      </Row>
      {table.outcome}
    </One>
  );
}

/** A further recording: what it tells that is new, or only to compare with. */
function Add() {
  const { id, view } = useManual();
  const queries = useQueryClient();
  const add = useMutation({
    mutationFn: async ({ file, append }: { file: File; append: boolean }) => {
      const info = await bring(file.name, file, () => {});
      return must(
        api.POST("/api/manuals/{id}/recordings", {
          params: { path: { id } },
          body: { id: newId(), base_seq: view.seq, recording: info.id, append },
        }),
      );
    },
    onSuccess: () => queries.invalidateQueries(),
  });
  const trigger = (append: boolean, label: string) => (
    <FileTrigger
      acceptedFileTypes={[".md", ".txt", ".vtt", ".srt", "text/*"]}
      onSelect={(files) => files?.[0] && add.mutate({ file: files[0], append })}
    >
      <Button isDisabled={add.isPending}>
        <FileUp size={15} aria-hidden /> {label}
      </Button>
    </FileTrigger>
  );
  return (
    <>
      <Row style={{ marginTop: space.normal }}>
        {trigger(true, "Add what a recording tells")}
        {trigger(false, "Add one to compare with")}
      </Row>
      {add.isError && <ErrorNote>{sentence(add.error)}</ErrorNote>}
    </>
  );
}

function Compare({ recordings }: { recordings: ListenView[] }) {
  const { id } = useManual();
  const [pair, setPair] = useState<[string, string]>([recordings[0]?.id ?? "", recordings[1]?.id ?? ""]);
  const [first, second] = pair;
  const { data, error } = useQuery({
    queryKey: ["listen", id, "compare", first, second],
    queryFn: () =>
      must(api.GET("/api/manuals/{id}/compare/{first}/{second}", { params: { path: { id, first, second } } })),
  });
  const options = recordings.map((r): [string, string] => [r.id, r.title]);
  const title = (of: string) => recordings.find((r) => r.id === of)?.title ?? "";
  return (
    <section aria-label="Side by side">
      <Heading>Side by side</Heading>
      <Row>
        <Select label="First" value={first} options={options} onChange={(to) => setPair([to, second])} />
        <Select label="Second" value={second} options={options} onChange={(to) => setPair([first, to])} />
      </Row>
      {!data ? (
        <Pending error={error}>Comparing …</Pending>
      ) : (
        <Compared>
          <caption>
            <Muted as="span">
              {data.filter((c) => !c.same).length} of {plural(data.length, "thing")} differ
            </Muted>
          </caption>
          <thead>
            <tr>
              <th scope="col">Of what</th>
              <th scope="col">{title(first)}</th>
              <th scope="col">{title(second)}</th>
            </tr>
          </thead>
          <tbody>
            {data.map((c) => (
              <tr key={`${c.topic}/${c.what}/${c.first_s}/${c.second_s}`} data-differs={!c.same}>
                <td>
                  {labels.Topic[c.topic]}: {c.what} {!c.same && <b>≠</b>}
                </td>
                <Told says={c.first} at={c.first_s} />
                <Told says={c.second} at={c.second_s} />
              </tr>
            ))}
          </tbody>
        </Compared>
      )}
    </section>
  );
}

function Told({ says, at }: { says?: string | null; at?: number | null }) {
  return (
    <td>
      {says ?? "not told"}
      {says != null && at != null && <small>{clock(at * 1000)}</small>}
    </td>
  );
}
