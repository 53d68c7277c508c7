/** The words of the statement in hand: pick one to say what was meant, here or everywhere, or to begin a statement there. */
import { useState } from "react";
import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";
import { type Edit, newId, type StatementRow } from "../../api/client";
import { useHeard } from "../../api/manual";
import { Button, ErrorNote, Muted, PrimaryButton, TextInput } from "../../parts/controls";
import { Row as Buttons } from "../../parts/layout";
import { focusRing, font, space } from "../../theme";
import { wordsOf } from "./rows";

const Row = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
`;
const One = styled(ToggleButton)`
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  padding: 1px 4px;
  font: 400 1rem ${font.text};
  cursor: pointer;
  &[data-hovered] { background: var(--sunk); }
  &[data-selected] { background: var(--accent); color: var(--on-accent); }
  &[data-focus-visible] { ${focusRing} }
`;
const Form = styled.form`
  display: grid;
  gap: ${space.small};
  label { font-size: 0.86rem; color: var(--soft); }
`;

type Props = {
  recording: string;
  heard: StatementRow;
  edit: (edit: Edit) => Promise<{ ok: boolean; problem?: { detail: string } }>;
  first: React.RefObject<HTMLDivElement | null>;
};

export function Words({ recording, heard, edit, first }: Props) {
  const words = wordsOf(heard);
  const [picked, setPicked] = useState<number | null>(null);
  const word = picked === null ? undefined : words[picked];
  return (
    <>
      <Row
        ref={first}
        aria-label="Words"
        selectionMode="single"
        selectedKeys={picked === null ? [] : [picked]}
        onSelectionChange={(keys) => setPicked(([...keys][0] as number | undefined) ?? null)}
      >
        {words.map((w, i) => (
          <One key={w.start} id={i}>
            {w.text}
          </One>
        ))}
      </Row>
      {word ? (
        <WordForm
          key={word.start}
          word={word}
          isFirst={picked === 0}
          fixed={heard.statement.repairs.find((r) => r.by_author && r.start <= word.start && word.end <= r.end)?.meant}
          {...{ recording, edit }}
          onDone={() => setPicked(null)}
        />
      ) : (
        <Muted>Pick a word to say what was meant, or to begin a statement there.</Muted>
      )}
    </>
  );
}

function WordForm(props: {
  word: { text: string; start: number; end: number };
  isFirst: boolean;
  fixed: string | undefined;
  recording: string;
  edit: Props["edit"];
  onDone: () => void;
}) {
  const { word, recording, edit, onDone } = props;
  const [meant, setMeant] = useState(props.fixed ?? word.text);
  const [wrong, setWrong] = useState<string | null>(null);
  const everywhere = useHeard(word.text).data ?? [];
  const send = async (made: Edit) => {
    const result = await edit(made);
    if (result.ok) onDone();
    else setWrong(result.problem?.detail ?? "The correction was not taken.");
  };
  const fix = (place: { recording: string; start: number; end: number; heard: string }, text: string | null) => ({
    word: { id: newId(), ...place, meant: text },
  });
  const here = { recording, start: word.start, end: word.end, heard: word.text };
  return (
    <Form
      onKeyDown={(event) => event.stopPropagation()}
      onSubmit={(event) => {
        event.preventDefault();
        void send({ reading: fix(here, meant) });
      }}
    >
      <label htmlFor="meant">Meant where “{word.text}” was heard</label>
      <TextInput
        id="meant"
        value={meant}
        autoFocus
        onFocus={(event) => event.target.select()}
        onChange={(event) => setMeant(event.target.value)}
        aria-invalid={wrong !== null}
      />
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      <Buttons>
        <PrimaryButton type="submit">Here</PrimaryButton>
        {everywhere.length > 1 && (
          <Button onPress={() => void send({ reading: { several: { edits: everywhere.map((p) => fix(p, meant)) } } })}>
            In all {everywhere.length} places
          </Button>
        )}
        {props.fixed !== undefined && <Button onPress={() => void send({ reading: fix(here, null) })}>As heard</Button>}
        {!props.isFirst && (
          <Button
            onPress={() => void send({ reading: { cut: { id: newId(), recording, at: word.start, joins: false } } })}
          >
            Begin a statement here
          </Button>
        )}
      </Buttons>
    </Form>
  );
}
