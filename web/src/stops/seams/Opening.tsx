/** How a joint opens: its face with the marks, placed by a press, by keys or in words, and the plan that is read from them. */
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { type MarkEdit, type MarkKind, newId, type Seam, type SeamMark, type SeamRow } from "../../api/client";
import { useManual, usePartChoices } from "../../api/manual";
import { labels } from "../../api/tables";
import {
  Button,
  Check,
  CommitField,
  ErrorNote,
  FigureField,
  Heading,
  IconButton,
  Muted,
  Select,
} from "../../parts/controls";
import { options } from "../../parts/format";
import { LayerForm } from "../../parts/LayerForm";
import { Row } from "../../parts/layout";
import { focusRing, space } from "../../theme";
import { Face } from "./Face";

const Halves = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(310px, 1fr));
  gap: ${space.wide};
  & > div { display: grid; gap: ${space.small}; align-content: start; }
`;
const Lines = styled.ol`
  display: grid;
  gap: 2px;
`;
const Line = styled.button`
  display: grid;
  grid-template-columns: 1.9em 1fr;
  align-items: baseline;
  width: 100%;
  text-align: left;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  padding: 4px ${space.small};
  cursor: pointer;
  b { font-variant-numeric: tabular-nums; }
  &:hover { background: var(--sunk); }
  &[aria-pressed="true"] { background: var(--accent-wash); border-left-color: var(--accent); }
  &:focus-visible { ${focusRing} outline-offset: -3px; }
`;
const Whole = styled.p`
  padding: 4px ${space.small} 4px calc(1.9em + ${space.small} + 4px);
`;
const Form = styled.div`
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.small};
  display: grid;
  gap: ${space.small};
`;

/** What marks of a kind are told with besides their place. */
const ASKED: Record<MarkKind, ("to" | "landmark" | "tool" | "depth" | "part" | "count" | "way")[]> = {
  entry: ["landmark", "tool", "depth"],
  run: ["to", "way", "tool", "depth"],
  shallow: ["to", "landmark", "depth", "part"],
  keep_out: ["to", "landmark", "part"],
  clip: ["to", "count"],
  glue_spot: ["to", "count"],
  pick: ["tool"],
  hand_over: ["tool"],
};

export function Opening({ row }: { row: SeamRow }) {
  const { view, edit } = useManual();
  const seam = view.manual.seams[row.seam];
  const [chosen, setChosen] = useState<string | null>(null);
  const [kind, setKind] = useState<MarkKind>("entry");
  const [wrong, setWrong] = useState<string | null>(null);
  if (!seam) return null;
  const marks = seam.marks ?? [];
  const mark = marks.find((m) => m.id === chosen);
  const change = async (edited: MarkEdit) => {
    const result = await edit({ seam: { mark: { id: seam.id, edit: edited } } });
    setWrong(result.ok ? null : result.problem.detail);
    return result;
  };
  const add = async (place: Place | null, to: Place | null) => {
    const id = newId();
    const result = await change({ add: { id, kind, place, to } });
    if (result.ok) setChosen(id);
  };
  return (
    <section aria-label="How it opens">
      <Halves>
        <div>
          <FaceChoice seam={seam} />
          {row.picture && (
            <Face
              picture={row.picture}
              marks={marks}
              chosen={chosen}
              onChoose={setChosen}
              onMark={(place, to) => void add(place, to)}
              onMove={(id, hours) => void change({ place: { id, end: "from", place: { hours } } })}
              onRemove={(id) => void change({ remove: { id } })}
            />
          )}
          <Row>
            <Select
              label="A press on the rim marks"
              value={kind}
              options={options(labels.MarkKind)}
              onChange={(k) => k !== "" && setKind(k)}
            />
            <Button onPress={() => void add(null, null)}>
              <Plus size={15} aria-hidden /> Mark it in words
            </Button>
          </Row>
          {wrong && <ErrorNote>{wrong}</ErrorNote>}
        </div>
        <div>
          <Heading as="h4">In this order</Heading>
          <Lines>
            {row.opening.lines.map((line) => (
              <li key={line.mark ?? line.text}>
                {line.mark ? (
                  <Line
                    type="button"
                    aria-pressed={line.mark === chosen}
                    onClick={() => setChosen(line.mark === chosen ? null : (line.mark ?? null))}
                  >
                    <b>{line.number ?? "!"}</b>
                    <span>{line.text}</span>
                  </Line>
                ) : (
                  <Whole>{line.text}</Whole>
                )}
              </li>
            ))}
          </Lines>
          {row.opening.lines.length === 0 && <Muted>Nothing is told of how it opens yet.</Muted>}
          {row.opening.untold.length > 0 && <Muted>Not told: {row.opening.untold.join(", ")}.</Muted>}
          {mark && (
            <MarkForm
              key={mark.id}
              mark={mark}
              at={row.places.find((p) => p.mark === mark.id)}
              before={marks[marks.indexOf(mark) - 1]?.id}
              behind={marks[marks.indexOf(mark) + 2]?.id ?? null}
              last={marks.at(-1) === mark}
              onChange={change}
            />
          )}
        </div>
      </Halves>
    </section>
  );
}

type Place = NonNullable<Extract<MarkEdit, { add: unknown }>["add"]["place"]>;

/** Which outline the joint runs round. */
function FaceChoice({ seam }: { seam: Seam }) {
  const { view, edit } = useManual();
  const layers = Object.values(view.manual.layers ?? {});
  const put = (face: string | null) => edit({ seam: { set: { id: seam.id, field: { face } } } });
  return (
    <>
      <Row>
        {layers.length > 0 && (
          <Select
            label="Face"
            value={seam.face ?? ""}
            options={[["", "no outline yet"], ...layers.map((l): [string, string] => [l.id, l.name])]}
            onChange={(face) => void put(face || null)}
          />
        )}
        <LayerForm
          button="New outline"
          save="Draw it"
          onSave={async (name, outline) => {
            const id = newId();
            const drawn = await edit({ layer: { add: { id, name, outline } } });
            return drawn.ok ? put(id) : drawn;
          }}
        />
      </Row>
      {!seam.face && (
        <Muted>
          Draw the outline of the face, or choose one: then entries, passes and limits are placed on it. In words they
          can be told without.
        </Muted>
      )}
    </>
  );
}

type FormProps = {
  mark: SeamMark;
  at: SeamRow["places"][number] | undefined;
  /** The mark that stands before it. */
  before: string | undefined;
  /** What it stands before once it goes down; `null` for the end. */
  behind: string | null;
  last: boolean;
  onChange: (edit: MarkEdit) => ReturnType<ReturnType<typeof useManual>["edit"]>;
};

function MarkForm({ mark, at, before, behind, last, onChange }: FormProps) {
  const parts = usePartChoices();
  const { id } = mark;
  const asks = ASKED[mark.kind];
  type Field = Extract<MarkEdit, { set: unknown }>["set"]["field"];
  const set = (field: Field) => onChange({ set: { id, field } });
  const place = (end: "from" | "to") => (words: string) =>
    words.trim() === "" && end === "to"
      ? onChange({ shrink: { id } })
      : onChange({ place: { id, end, place: { words } } });
  return (
    <Form role="group" aria-label={`${labels.MarkKind[mark.kind]}, its details`}>
      <Row>
        <Select
          label="Mark"
          value={mark.kind}
          options={options(labels.MarkKind)}
          onChange={(kind) => kind !== "" && void set({ kind })}
        />
        <CommitField
          label={asks.includes("to") ? "From, or a whole edge" : "Where"}
          width="13em"
          value={at?.from ?? ""}
          onCommit={place("from")}
        />
        {asks.includes("to") && (
          <CommitField label="Clockwise to" width="13em" value={at?.to ?? ""} onCommit={place("to")} />
        )}
      </Row>
      <Row>
        {asks.includes("landmark") && (
          <CommitField
            label="By a landmark"
            width="13em"
            value={mark.landmark ?? ""}
            onCommit={(text) => set({ landmark: text.trim() || null })}
          />
        )}
        {asks.includes("tool") && (
          <CommitField
            label={mark.kind === "hand_over" ? "Go on with" : "With"}
            width="10em"
            value={mark.tool ?? ""}
            onCommit={(text) => set({ tool: text.trim() || null })}
          />
        )}
        {asks.includes("depth") && (
          <FigureField
            label="No deeper than, mm"
            width="8.5em"
            value={mark.depth_mm}
            onCommit={(depth_mm) => set({ depth_mm })}
          />
        )}
        {asks.includes("part") && (
          <Select
            label="What lies behind"
            value={mark.part ?? ""}
            options={[["", "not said"], ...parts]}
            onChange={(part) => void set({ part: part || null })}
          />
        )}
        {asks.includes("count") && (
          <FigureField label="How many" width="6em" whole value={mark.count} onCommit={(count) => set({ count })} />
        )}
        {asks.includes("way") && mark.over != null && (
          <Check checked={mark.counter ?? false} onChange={(counter) => void set({ counter })}>
            counterclockwise
          </Check>
        )}
      </Row>
      <Row>
        <IconButton
          aria-label="Earlier"
          isDisabled={before === undefined}
          onPress={() => void onChange({ move: { id, before: before ?? null } })}
        >
          <ArrowUp size={16} />
        </IconButton>
        <IconButton
          aria-label="Later"
          isDisabled={last}
          onPress={() => void onChange({ move: { id, before: behind } })}
        >
          <ArrowDown size={16} />
        </IconButton>
        <IconButton aria-label="Remove the mark" onPress={() => void onChange({ remove: { id } })}>
          <Trash2 size={16} />
        </IconButton>
        <Muted as="span">“7 o'clock”, “top right corner”, “left edge, 34 mm from the top”, “all round”</Muted>
      </Row>
    </Form>
  );
}
