/** The recordings of a manual: add one, take tables out and in, and lay two of one device side by side. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FileUp } from "lucide-react";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { api, bring, type ListenRecording, must, newId, sentence } from "../../api/client";
import { useHand } from "../../api/manual";
import { Button, Heading, Pending, Quiet, Select, Wrong } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { useTableFile } from "../../parts/TableFile";
import { clock, plural } from "../../parts/words";
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
const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  background: var(--sheet);
  caption { text-align: left; padding-bottom: ${space.small}; }
  th, td { text-align: left; padding: 5px ${space.small}; border-bottom: 1px solid var(--line); vertical-align: top; }
  th { font-size: 0.86rem; color: var(--soft); font-weight: 600; }
  tr[data-differs="true"] td:first-child { border-left: 4px solid var(--hazard); }
  small { color: var(--soft); margin-left: ${space.hair}; }
`;

export function Recordings({ recordings }: { recordings: ListenRecording[] }) {
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
function Tables({ recording, several }: { recording: ListenRecording; several: boolean }) {
  const { id, view, edit } = useHand();
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
      <Quiet>
        {plural(recording.heard.statements.length, "statement")}
        {recording.timed && `, ${clock(recording.duration_ms)} long`}
      </Quiet>
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

/** A further recording: its steps behind those there are, or only to compare with. */
function Add() {
  const { id, view } = useHand();
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
        {trigger(true, "Append a recording")}
        {trigger(false, "Add one to compare with")}
      </Row>
      {add.isError && <Wrong>{sentence(add.error)}</Wrong>}
    </>
  );
}

const TOPIC: Record<string, string> = {
  screws: "Screws",
  heat: "Heat",
  setting: "Figure",
  connector: "Connector",
  order: "Order",
};

function Compare({ recordings }: { recordings: ListenRecording[] }) {
  const { id } = useHand();
  const [pair, setPair] = useState<[string, string]>([recordings[0]?.id ?? "", recordings[1]?.id ?? ""]);
  const [first, second] = pair;
  const { data, error } = useQuery({
    queryKey: ["compare", id, first, second],
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
        <Table>
          <caption>
            <Quiet as="span">
              {data.filter((c) => !c.same).length} of {plural(data.length, "thing")} differ
            </Quiet>
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
                  {TOPIC[c.topic]}: {c.what} {!c.same && <b>≠</b>}
                </td>
                <Told says={c.first} at={c.first_s} />
                <Told says={c.second} at={c.second_s} />
              </tr>
            ))}
          </tbody>
        </Table>
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
