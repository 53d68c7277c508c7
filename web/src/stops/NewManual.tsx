/** A new manual: files dropped or chosen, or text pasted; read at once, drafted when asked. */
import { useQueryClient } from "@tanstack/react-query";
import { Check, Trash2 } from "lucide-react";
import { useId, useRef, useState } from "react";
import { DropZone, FileTrigger, ProgressBar, Text } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, bring, must, newId, type RecordingInfo, type StatementKind, sentence } from "../api/client";
import { labels } from "../api/tables";
import { Button, ErrorNote, IconButton, Muted, PrimaryButton, TextArea, TextInput } from "../parts/controls";
import { clock, plural } from "../parts/format";
import { space } from "../theme";

const Drop = styled(DropZone)`
  border: 2px dashed var(--strong-line);
  border-radius: 10px;
  padding: ${space.wide} ${space.normal};
  text-align: center;
  display: grid;
  gap: ${space.small};
  justify-items: center;
  &[data-drop-target] { border-color: var(--accent); background: var(--accent-wash); }
`;
const Stack = styled.div`
  display: grid;
  gap: ${space.small};
`;
const File_ = styled.li`
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: ${space.small};
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
`;
const Track = styled.div`
  height: 6px;
  border-radius: 3px;
  background: var(--sunk);
  overflow: hidden;
  div { height: 100%; background: var(--accent); }
`;

type Brought = { key: string; name: string; share: number; info?: RecordingInfo; wrong?: string };

export function NewManual() {
  const [files, setFiles] = useState<Brought[]>([]);
  const [pasted, setPasted] = useState("");
  const [title, setTitle] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [drafting, setDrafting] = useState(false);
  const attempt = useRef({ asked: "", id: "" });
  const go = useNavigate();
  const queries = useQueryClient();
  const id = useId();

  const change = (key: string, part: Partial<Brought>) =>
    setFiles((all) => all.map((f) => (f.key === key ? { ...f, ...part } : f)));
  const take = async (name: string, file: Blob) => {
    const key = crypto.randomUUID();
    setFiles((all) => [...all, { key, name, share: 0 }]);
    try {
      const info = await bring(name, file, (share) => change(key, { share }));
      change(key, { info, share: 1 });
      setTitle((now) => now || info.title);
      return true;
    } catch (problem) {
      change(key, { wrong: sentence(problem) });
      return false;
    }
  };
  const takeAll = async (list: Iterable<File>) => {
    for (const file of list) {
      if (file.name.endsWith(".json")) await takeManual(() => importManual(file));
      else if (file.name.endsWith(".zip")) await takeManual(() => bringBundle(file));
      else await take(file.name, file);
    }
  };
  /** A manual that was exported goes straight to the shelf. */
  const takeManual = async (bring: () => Promise<{ id: string }>) => {
    try {
      const made = await bring();
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      await go(`/manuals/${made.id}`);
    } catch (problem) {
      setWrong(sentence(problem));
    }
  };
  const paste = async () => {
    if (await take("Pasted text", new Blob([pasted]))) setPasted("");
  };
  const draft = async () => {
    setDrafting(true);
    setWrong(null);
    try {
      const recordings = files.flatMap((f) => (f.info ? [f.info.id] : []));
      const wanted = { title: title.trim() || "Untitled manual", device: "", recordings };
      // Pressed again after an outage, the same is asked for under the same id: there is one manual, not two.
      const asked = JSON.stringify(wanted);
      if (attempt.current.asked !== asked) attempt.current = { asked, id: newId() };
      const made = await must(api.POST("/api/manuals", { body: { id: attempt.current.id, ...wanted } }));
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      await go(`/manuals/${made.id}/${recordings.length > 0 ? "listen" : "steps"}`);
    } catch (problem) {
      setWrong(sentence(problem));
      setDrafting(false);
    }
  };
  const read = files.filter((f) => f.info).length;
  const busy = files.some((f) => !f.info && !f.wrong);

  return (
    <Stack>
      <Drop
        aria-label="Drop transcripts here"
        onDrop={async (event) => {
          const dropped = await Promise.all(event.items.filter((i) => i.kind === "file").map((i) => i.getFile()));
          await takeAll(dropped);
        }}
      >
        <Text slot="label">Drop a transcript or captions here</Text>
        <Muted>Timed text, WebVTT, SubRip or plain text, English for now; or a manual as JSON or ZIP</Muted>
        <FileTrigger allowsMultiple onSelect={(list) => list && void takeAll(Array.from(list))}>
          <Button>Choose files</Button>
        </FileTrigger>
      </Drop>
      <ul>
        {files.map((f) => (
          <File_ key={f.key}>
            <FileState file={f} />
            <IconButton aria-label={`Leave out ${f.name}`} onPress={() => setFiles(files.filter((x) => x !== f))}>
              <Trash2 size={16} />
            </IconButton>
          </File_>
        ))}
      </ul>
      <label htmlFor={`${id}-paste`}>
        <Muted as="span">or paste the text</Muted>
      </label>
      <TextArea
        id={`${id}-paste`}
        rows={3}
        value={pasted}
        placeholder="[0:00] Now I take the cover off …"
        onChange={(e) => setPasted(e.target.value)}
      />
      {pasted.trim() && <Button onPress={paste}>Read the pasted text</Button>}
      <label htmlFor={`${id}-title`}>
        <Muted as="span">Title</Muted>
      </label>
      <TextInput id={`${id}-title`} value={title} maxLength={200} onChange={(e) => setTitle(e.target.value)} />
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      <PrimaryButton isDisabled={busy || drafting} onPress={draft}>
        {read > 0 ? `Draft the manual from ${plural(read, "recording")}` : "Start an empty manual"}
      </PrimaryButton>
    </Stack>
  );
}

const importManual = async (file: File) =>
  must(api.POST("/api/manuals/import", { body: await file.text(), bodySerializer: (text) => text }));

const bringBundle = (file: File) =>
  must(
    api.POST("/api/bundles", {
      // The client's type knows no bytes.
      body: file as unknown as string,
      bodySerializer: (bytes) => bytes,
      headers: { "Content-Type": "application/zip" },
    }),
  );

function FileState({ file }: { file: Brought }) {
  if (file.wrong) {
    return (
      <div>
        <strong>{file.name}</strong>
        <ErrorNote>{file.wrong}</ErrorNote>
      </div>
    );
  }
  if (!file.info) {
    return (
      <ProgressBar aria-label={`Sending ${file.name}`} value={file.share * 100}>
        {({ percentage, valueText }) => (
          <>
            <span>{file.name}</span> <Muted as="span">{percentage === 100 ? "reading …" : valueText}</Muted>
            <Track>
              <div style={{ width: `${percentage ?? 0}%` }} />
            </Track>
          </>
        )}
      </ProgressBar>
    );
  }
  const { info } = file;
  const kinds = Object.entries(info.statements) as [StatementKind, number][];
  return (
    <div>
      <Check size={15} aria-hidden /> <strong>{info.title}</strong>
      <Muted>
        {plural(info.segments, "segment")}
        {info.timed ? `, ${clock(info.duration_ms)}` : ", no times"} ·{" "}
        {kinds.map(([k, n]) => `${n} ${labels.StatementKind[k].toLowerCase()}`).join(", ")}
      </Muted>
      {info.mended.map((m) => (
        <Muted key={`${m.line}${m.what}`}>
          Line {m.line}: {m.what}
        </Muted>
      ))}
    </div>
  );
}
