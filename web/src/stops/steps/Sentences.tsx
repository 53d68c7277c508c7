/** The sentences of an opened step, each edited by itself: its words, what is done, and to which part. */
import { ArrowUp, Plus, Scissors, Trash2, Ungroup } from "lucide-react";
import styled from "styled-components";
import { type Edit, newId, type Step } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, CommitField, IconButton, Select } from "../../parts/controls";
import { options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: ${space.hair} ${space.small};
  align-items: start;
  padding-bottom: ${space.small};
  border-bottom: 1px solid var(--line);
`;

type Sentence = Step["actions"][number];
type SentenceEdit = Extract<Extract<Edit, { step: unknown }>["step"], { sentence: unknown }>["sentence"]["sentence"];

/** Sends an edit of one sentence; the others of the step are not spoken of. */
function useSentence(id: string) {
  const { edit } = useManual();
  return (sentence: SentenceEdit) => edit({ step: { sentence: { id, sentence } } });
}

export function Sentences({ step }: { step: Step }) {
  const send = useSentence(step.id);
  const last = step.actions.at(-1);
  return (
    <>
      {step.actions.map((a, i) => (
        <SentenceFields key={a.id} step={step} sentence={a} number={i + 1} />
      ))}
      <Row>
        <Button
          onPress={() =>
            void send({
              add: {
                sentence: { id: newId(), act: "place", parts: [], text: "New sentence.", evidence: [] },
                after: last?.id ?? null,
              },
            })
          }
        >
          <Plus size={15} aria-hidden /> Add a sentence
        </Button>
      </Row>
    </>
  );
}

function SentenceFields({ step, sentence, number }: { step: Step; sentence: Sentence; number: number }) {
  const { view, edit } = useManual();
  const send = useSentence(step.id);
  const { id } = sentence;
  const above = step.actions[number - 2];
  const parts = Object.values(view.manual.parts).sort((a, b) => a.name.localeCompare(b.name));
  return (
    <Line role="group" aria-label={`Sentence ${number}, its act and part`}>
      <CommitField
        label={`Sentence ${number}`}
        hideLabel
        multiline
        value={sentence.text}
        onCommit={(text) => send({ set: { id, field: { text } } })}
      />
      <Row>
        {above && (
          <>
            <IconButton
              aria-label={`Move sentence ${number} up`}
              onPress={() => void send({ move: { id, after: step.actions[number - 3]?.id ?? null } })}
            >
              <ArrowUp size={16} />
            </IconButton>
            <IconButton
              aria-label={`Join sentence ${number} to the one above`}
              onPress={() => void send({ join: { id: above.id } })}
            >
              <Ungroup size={16} />
            </IconButton>
            <IconButton
              aria-label={`Split the step before sentence ${number}`}
              onPress={() =>
                void edit({
                  step: { split: { id: step.id, at: number - 1, new_id: newId(), title: sentence.text.slice(0, 80) } },
                })
              }
            >
              <Scissors size={16} />
            </IconButton>
          </>
        )}
        <IconButton aria-label={`Remove sentence ${number}`} onPress={() => void send({ remove: { id } })}>
          <Trash2 size={16} />
        </IconButton>
      </Row>
      <Row>
        <Select
          label={`What sentence ${number} does`}
          hideLabel
          value={sentence.act}
          options={options(labels.Act)}
          onChange={(act) => act !== "" && void send({ set: { id, field: { act } } })}
        />
        <Select
          label={`The part that sentence ${number} moves`}
          hideLabel
          value={sentence.parts[0] ?? ""}
          options={[["", "moves no part"], ...parts.map((p): [string, string] => [p.id, p.name])]}
          // Further parts of the same act stay.
          onChange={(part) =>
            void send({
              set: { id, field: { parts: part ? [part, ...sentence.parts.slice(1).filter((p) => p !== part)] : [] } },
            })
          }
        />
      </Row>
    </Line>
  );
}
