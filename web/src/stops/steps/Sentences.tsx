/**
 * The sentences of an opened step, each edited by itself: its words, or what it tells, from which it is worded until an
 * author types over it.
 */
import { ArrowUp, Plus, Quote, RotateCcw, Scissors, Trash2, Ungroup } from "lucide-react";
import styled from "styled-components";
import { type Edit, newId, type Step } from "../../api/client";
import { useListen, useManual, useWording } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, CommitField, IconButton, More, Muted, Select } from "../../parts/controls";
import { clock, options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: ${space.hair} ${space.small};
  align-items: start;
  padding-bottom: ${space.small};
  border-bottom: 1px solid var(--line);
  & > :nth-child(n + 3) { grid-column: 1 / -1; }
`;
/** The speaker's words: evidence, not text. */
const Said = styled(Muted)`
  display: flex;
  gap: ${space.small};
  align-items: baseline;
  font-style: italic;
`;

type Sentence = Step["actions"][number];
type SentenceEdit = Extract<Extract<Edit, { step: unknown }>["step"], { sentence: unknown }>["sentence"]["sentence"];
type SentenceField = Extract<SentenceEdit, { set: unknown }>["set"]["field"];

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

type Props = { step: Step; sentence: Sentence; number: number };

function SentenceFields({ step, sentence, number }: Props) {
  const send = useSentence(step.id);
  const wording = useWording();
  const { id } = sentence;
  const set = (field: SentenceField) => send({ set: { id, field } });
  return (
    <Line role="group" aria-label={`Sentence ${number}, its act and part`}>
      <CommitField
        label={`Sentence ${number}`}
        hideLabel
        multiline
        value={wording(sentence)}
        onCommit={(text) => set({ text })}
      />
      <Arrange step={step} sentence={sentence} number={number} />
      <Deed sentence={sentence} number={number} set={set} />
      <Heard sentence={sentence} number={number} set={set} />
    </Line>
  );
}

/** Where the sentence stands among the others. */
function Arrange({ step, sentence, number }: Props) {
  const { edit } = useManual();
  const send = useSentence(step.id);
  const wording = useWording();
  const { id } = sentence;
  const above = step.actions[number - 2];
  return (
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
            onPress={() => {
              const title = wording(sentence).replace(/\.$/, "").slice(0, 80);
              void edit({ step: { split: { id: step.id, at: number - 1, new_id: newId(), title } } });
            }}
          >
            <Scissors size={16} />
          </IconButton>
        </>
      )}
      <IconButton aria-label={`Remove sentence ${number}`} onPress={() => void send({ remove: { id } })}>
        <Trash2 size={16} />
      </IconButton>
    </Row>
  );
}

type Told = {
  sentence: Sentence;
  number: number;
  set: (field: SentenceField) => ReturnType<ReturnType<typeof useSentence>>;
};

/** What the sentence tells: the act, the part, and the roles around them. */
function Deed({ sentence, number, set }: Told) {
  const { view } = useManual();
  const parts = Object.values(view.manual.parts).sort((a, b) => a.name.localeCompare(b.name));
  const { roles } = sentence;
  const role = (label: string, value: string, field: (typed: string) => SentenceField, width = "13em") => (
    <CommitField label={label} width={width} value={value} onCommit={(typed) => set(field(typed.trim()))} />
  );
  const places = (roles?.places ?? []).map((p) => `${p.preposition} ${p.thing}`).join(", ");
  return (
    <>
      <Row>
        <Select
          label={`What sentence ${number} does`}
          hideLabel
          value={sentence.act}
          options={options(labels.Act)}
          onChange={(act) => act !== "" && void set({ act })}
        />
        <Select
          label={`The part that sentence ${number} moves`}
          hideLabel
          value={sentence.parts[0] ?? ""}
          options={[["", "moves no part"], ...parts.map((p): [string, string] => [p.id, p.name])]}
          // Further parts of the same act stay.
          onChange={(part) =>
            void set({ parts: part ? [part, ...sentence.parts.slice(1).filter((p) => p !== part)] : [] })
          }
        />
      </Row>
      <More title="With what, where, how">
        <Row>
          {role("Done to", (roles?.things ?? []).join(", "), (t) => ({ role: { things: listed(t) } }), "18em")}
          {role("With", roles?.by ?? "", (t) => ({ role: { by: t || null } }))}
          {role("Where (“under the lid”)", places, (t) => ({ role: { places: listed(t) } }), "18em")}
          {role("How (“slowly”)", (roles?.manner ?? []).join(", "), (t) => ({ role: { manner: listed(t) } }))}
          {role("Until", roles?.until ?? "", (t) => ({ role: { until: t || null } }), "18em")}
        </Row>
      </More>
    </>
  );
}

const listed = (text: string) =>
  text
    .split(",")
    .map((t) => t.trim())
    .filter(Boolean);

/** Whose words the sentence has, what was said for it, and the way from one to the other. */
function Heard({ sentence, number, set }: Told) {
  const { view } = useManual();
  const said = useSaid(sentence);
  const worded = view.worded[sentence.id] ?? "";
  return (
    <>
      {sentence.text != null && sentence.text !== worded && sentence.act !== "place" && (
        <Row>
          <Button
            aria-label={`Word sentence ${number} from its fields: ${worded}`}
            onPress={() => void set({ text: null })}
          >
            <RotateCcw size={14} aria-hidden /> {worded}
          </Button>
        </Row>
      )}
      {said && said.text !== sentence.text && (
        <Said>
          <span>
            {said.at} “{said.text}”
          </span>
          <IconButton
            aria-label={`Take the words as said for sentence ${number}`}
            onPress={() => void set({ text: said.text })}
          >
            <Quote size={15} />
          </IconButton>
        </Said>
      )}
    </>
  );
}

/** What the speaker said for a sentence, and when. */
function useSaid(sentence: Sentence) {
  const { data } = useListen();
  for (const e of sentence.evidence) {
    if (e.source !== "recording") continue;
    const rows = data?.find((r) => r.id === e.recording)?.heard.statements;
    const row = rows?.find(({ statement: s }) => s.start < e.end && e.start < s.end);
    if (row) return { text: row.statement.text, at: e.from_ms == null ? "" : `≈ ${clock(e.from_ms)}` };
  }
  return null;
}
