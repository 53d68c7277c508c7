/** Notes around the work: how the device arrived, what a reader must know, and which variants there are. */
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { type Edit, type Finding, type Note, type NoteKind, newId } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { AddLine } from "../../parts/AddLine";
import {
  Button,
  Check,
  Checks,
  CommitField,
  ErrorNote,
  Heading,
  IconButton,
  Muted,
  Select,
  Typed,
} from "../../parts/controls";
import { Findings, isOfKind } from "../../parts/Findings";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Box = styled.div`
  display: grid;
  gap: ${space.wide};
  section { display: grid; gap: ${space.small}; }
`;
const Line = styled.div`
  display: grid;
  grid-template-columns: 12em minmax(0, 1fr) auto auto;
  gap: ${space.small};
  align-items: end;
`;

/** Which notes tell how the device arrived, and which stand around a guide. */
const only = (kinds: NoteKind[]) => kinds.map((k): [NoteKind, string] => [k, labels.NoteKind[k]]);
const ARRIVAL = only(["damage", "missing_screw", "empty_hole", "promise"]);
const AROUND = only(["before", "bound", "lost", "harmless", "must_pass"]);

export function Notes({ found }: { found: Finding[] }) {
  return (
    <Box>
      <Findings name="To look at" findings={found.filter((f) => isOfKind(f, "note"))} />
      <About />
      <Section
        name="How it arrived"
        says="For yourself: what was broken, missing or empty before you began, and what you promised. It is not published."
        kinds={ARRIVAL}
      />
      <Section
        name="Around the work"
        says="Readers see these before the first step, and the tests behind the last one."
        kinds={AROUND}
        jobs
      />
      <Variants />
    </Box>
  );
}

/** What the manual is called, and of which device it is. */
function About() {
  const { view, edit } = useManual();
  const { head } = view.manual;
  return (
    <section aria-label="The manual">
      <Heading as="h3">The manual</Heading>
      <Row>
        <CommitField label="Title" width="26em" value={head.title} onCommit={(title) => edit({ head: { title } })} />
        <CommitField
          label="Device, as its maker names it"
          width="20em"
          value={head.device}
          onCommit={(device) => edit({ head: { device } })}
        />
      </Row>
    </section>
  );
}

function Section(props: { name: string; says: string; kinds: [NoteKind, string][]; jobs?: boolean }) {
  const { view, edit } = useManual();
  const { kinds } = props;
  const [kind, setKind] = useState<NoteKind>(kinds[0]?.[0] ?? "damage");
  const notes = Object.values(view.manual.notes ?? {}).filter((n) => kinds.some(([k]) => k === n.kind));
  return (
    <section aria-label={props.name}>
      <Heading as="h3">{props.name}</Heading>
      <Muted>{props.says}</Muted>
      {notes.map((note) => (
        <NoteLine key={note.id} note={note} kinds={kinds} jobs={props.jobs ?? false} />
      ))}
      <AddLine
        name={`New note: ${props.name}`}
        button="Write it down"
        width="26em"
        onAdd={(text) => edit({ note: { add: { id: newId(), kind, text } } })}
      >
        <Select
          label="Kind of a new note"
          hideLabel
          value={kind}
          options={kinds}
          onChange={(k) => k !== "" && setKind(k)}
        />
      </AddLine>
    </section>
  );
}

function NoteLine({ note, kinds, jobs }: { note: Note; kinds: [NoteKind, string][]; jobs: boolean }) {
  const { view, edit } = useManual();
  type Field = Extract<Extract<Edit, { note: unknown }>["note"], { set: unknown }>["set"]["field"];
  const set = (field: Field) => edit({ note: { set: { id: note.id, field } } });
  const guides = Object.values(view.manual.jobs);
  return (
    <Line role="group" aria-label={note.text}>
      <Select
        label="Kind"
        hideLabel
        value={note.kind}
        options={kinds}
        onChange={(kind) => kind !== "" && void set({ kind })}
      />
      <CommitField label="Note" hideLabel value={note.text} onCommit={(text) => set({ text })} />
      {jobs && guides.length > 0 ? (
        <Select
          label="Stands in"
          hideLabel
          value={note.job ?? ""}
          options={[["", "every guide"], ...guides.map((j): [string, string] => [j.id, j.title])]}
          onChange={(job) => void set({ job: job === "" ? null : job })}
        />
      ) : note.kind === "promise" ? (
        <Check checked={note.done} onChange={(done) => void set({ done })}>
          told
        </Check>
      ) : (
        <span />
      )}
      <IconButton aria-label={`Remove: ${note.text}`} onPress={() => void edit({ note: { remove: { id: note.id } } })}>
        <Trash2 size={16} />
      </IconButton>
    </Line>
  );
}

function Variants() {
  const { view, edit } = useManual();
  const [name, setName] = useState("");
  const [tell, setTell] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const add = async () => {
    const result = await edit({ variant: { add: { id: newId(), name, how_to_tell: tell } } });
    setWrong(result.ok ? null : result.problem.detail);
    if (result.ok) {
      setName("");
      setTell("");
    }
  };
  return (
    <section aria-label="Variants">
      <Heading as="h3">Variants</Heading>
      <Muted>Steps, screws and parts can hold for some of them only; readers are told how to know theirs.</Muted>
      {Object.values(view.manual.variants).map((v) => (
        <Row key={v.id} role="group" aria-label={v.name}>
          <CommitField
            label="Variant"
            hideLabel
            width="14em"
            value={v.name}
            onCommit={(name) => edit({ variant: { change: { ...v, name } } })}
          />
          <CommitField
            label="How to tell it"
            hideLabel
            width="26em"
            value={v.how_to_tell}
            onCommit={(how_to_tell) => edit({ variant: { change: { ...v, how_to_tell } } })}
          />
          <IconButton
            aria-label={`Remove the variant ${v.name}`}
            onPress={() =>
              void edit({ variant: { remove: { id: v.id } } }).then((r) => setWrong(r.ok ? null : r.problem.detail))
            }
          >
            <Trash2 size={16} />
          </IconButton>
        </Row>
      ))}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <Row>
          <Typed label="Name of a new variant" width="14em" value={name} onChange={setName} />
          <Typed label="How to tell the new variant" width="26em" value={tell} onChange={setTell} />
          <Button type="submit">
            <Plus size={15} aria-hidden /> Add a variant
          </Button>
        </Row>
        {wrong && <ErrorNote>{wrong}</ErrorNote>}
      </form>
    </section>
  );
}

/** "Only for": the variants that a step, a part or screws hold for; none ticked means all. */
export function OnlyFor({
  of,
  chosen,
  onChange,
}: {
  of: string;
  chosen: string[];
  onChange: (next: string[]) => void;
}) {
  const { view } = useManual();
  const variants = Object.values(view.manual.variants);
  if (variants.length === 0) return null;
  return (
    <Checks
      label={`${of}: only for`}
      words="only for"
      options={variants.map((v): [string, string] => [v.id, v.name])}
      chosen={chosen}
      onChange={onChange}
    />
  );
}
