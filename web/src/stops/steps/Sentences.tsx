/**
 * The sentences of an opened step, each edited by itself: its words, or what it tells, from which it is worded until an
 * author types over it.
 */
import { ArrowUp, Plus, Quote, RotateCcw, Scissors, Trash2, Ungroup } from "lucide-react";
import { Fragment, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { type Edit, newId, type Step } from "../../api/client";
import { useListen, useManual, usePartChoices, useWording } from "../../api/manual";
import { labels } from "../../api/tables";
import { Button, CommitField, IconButton, Key, More, Muted, Select, type Writing } from "../../parts/controls";
import { clock, listOf, options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { afterPress } from "../../parts/pointer";
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

/** The field that stands for a sentence which is still to be written, behind another one. */
type Fresh = { after: string | null; id: string };

/** In place of a sentence: a new one behind the last. */
export const WRITE_ON = "write on";

/** `at`: the sentence that somebody meant to change, or [WRITE_ON]; it has the focus from the beginning. */
export function Sentences({ step, at, onDone }: { step: Step; at: string | null; onDone: () => void }) {
  const send = useSentence(step.id);
  const { outbox } = useManual();
  const box = useRef<HTMLDivElement>(null);
  const [fresh, setFresh] = useState<Fresh | null>(() =>
    at === WRITE_ON ? { after: step.actions.at(-1)?.id ?? null, id: newId() } : null,
  );
  /** The sentence that gets the focus as soon as it stands, and where in it. */
  const [next, setNext] = useState<{ id: string; at: number } | null>(() => {
    const id = fresh?.id ?? at;
    return id ? { id, at: Number.MAX_SAFE_INTEGER } : null;
  });
  const write = (after: string | null) => {
    const id = newId();
    setFresh({ after, id });
    setNext({ id, at: 0 });
  };
  useEffect(() => {
    const field = next && box.current?.querySelector<HTMLTextAreaElement>(`[data-sentence="${next.id}"] textarea`);
    if (!field) return;
    field.focus();
    const caret = Math.min(next.at, field.value.length);
    field.setSelectionRange(caret, caret);
    setNext(null);
  });
  const put = async ({ after, id }: Fresh, words: string) => {
    const sentence = { id, act: "place" as const, parts: [], text: words, evidence: [] };
    // Its own fields are larger than this one, and move what somebody may be pressing.
    const stands = () => afterPress(() => setFresh((now) => (now?.id === id ? null : now)));
    // Without a connection it stands in its place all the same; what is refused, however late, stays open here.
    const unlessSent = () => outbox.snapshot().offline && stands();
    const stop = outbox.subscribe(unlessSent);
    unlessSent();
    const result = await send({ add: { sentence, after } });
    stop();
    if (result.ok) stands();
    return result;
  };
  const blank = (after: string | null) =>
    fresh?.after === after ? (
      <Line key={fresh.id} data-sentence={fresh.id}>
        <CommitField
          label="New sentence"
          hideLabel
          multiline
          value=""
          onCommit={(words) => put(fresh, words)}
          onLeft={() => setFresh((now) => (now?.id === fresh.id ? null : now))}
          onKey={(event, { typed, commit }) => {
            if (event.key === "Escape" || (event.key === "Backspace" && typed === "")) {
              setFresh(null);
              if (after) setNext({ id: after, at: 9999 });
              return true;
            }
            if (event.key !== "Enter" || event.shiftKey) return false;
            if (endsAll(event)) {
              void (typed.trim() === "" ? Promise.resolve(true) : commit(typed)).then((ok) => ok && onDone());
              return true;
            }
            if (typed.trim() === "") return true;
            void commit(typed);
            write(fresh.id);
            return true;
          }}
        />
      </Line>
    ) : null;
  return (
    <div ref={box} style={{ display: "grid", gap: space.small }}>
      {blank(null)}
      {step.actions.map((a, i) => (
        <Fragment key={a.id}>
          {a.id !== fresh?.id && (
            <SentenceFields
              {...{ step, sentence: a, number: i + 1 }}
              onWrite={() => write(a.id)}
              onDone={onDone}
              onFocus={(id, at) => setNext({ id, at })}
            />
          )}
          {blank(a.id)}
        </Fragment>
      ))}
      <Row>
        <Button onPress={() => write(step.actions.at(-1)?.id ?? null)}>
          <Plus size={15} aria-hidden /> Add a sentence
        </Button>
        {/* Always there: a line that came with the first sentence would move what somebody is pressing. */}
        <Muted as="span">
          <Key>Enter</Key> a sentence behind, or parts it at the cursor; <Key>⌫</Key> at its start joins it to the one
          above; <Key>Alt ↑ ↓</Key> moves it; <Key>Ctrl Enter</Key> keeps it and closes the step
        </Muted>
      </Row>
    </div>
  );
}

type Props = { step: Step; sentence: Sentence; number: number };

/** Keeps what is typed, and closes the step. */
const endsAll = (event: React.KeyboardEvent) => event.key === "Enter" && (event.ctrlKey || event.metaKey);

function SentenceFields({
  step,
  sentence,
  number,
  onWrite,
  onDone,
  onFocus,
}: Props & { onWrite: () => void; onDone: () => void; onFocus: (id: string, at: number) => void }) {
  const send = useSentence(step.id);
  const wording = useWording();
  const { id } = sentence;
  const set = (field: SentenceField) => send({ set: { id, field } });
  const above = step.actions[number - 2];
  /** Enter writes on, or parts the sentence; Backspace at its start joins it; Alt and the arrows move it. */
  const onKey = (event: React.KeyboardEvent, { typed, at, commit }: Writing): boolean => {
    if (event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      const up = event.key === "ArrowUp";
      const after = up ? step.actions[number - 3]?.id : step.actions[number]?.id;
      const ends = up ? above === undefined : after === undefined;
      if (!ends) void send({ move: { id, after: after ?? null } }).then(() => onFocus(id, at));
      return true;
    }
    if (endsAll(event)) {
      void commit(typed).then((ok) => ok && onDone());
      return true;
    }
    if (event.key === "Enter" && !event.shiftKey) {
      const letters = Array.from(typed);
      const rest = at < 0 ? "" : letters.slice(at).join("").trim();
      const whole = rest === "" || rest === "." || letters.slice(0, at).join("").trim() === "";
      // One behind the other: nobody waits for the first to arrive.
      const sent = commit(typed);
      if (whole) onWrite();
      else {
        const new_id = newId();
        void sent.then((ok) => ok && send({ split: { id, at, new_id } }).then((r) => r.ok && onFocus(new_id, 0)));
      }
      return true;
    }
    if (event.key === "Backspace" && at === 0 && above) {
      const end = wording(above).length + 1;
      void commit(typed).then((ok) => {
        if (ok) void send({ join: { id: above.id } }).then((r) => r.ok && onFocus(above.id, end));
      });
      return true;
    }
    return false;
  };
  return (
    <Line role="group" aria-label={`Sentence ${number}, its act and part`} data-sentence={id}>
      <CommitField
        label={`Sentence ${number}`}
        hideLabel
        multiline
        value={wording(sentence)}
        onCommit={(text) => set({ text })}
        onKey={onKey}
      />
      <Arrange step={step} sentence={sentence} number={number} onFocus={onFocus} />
      <Deed sentence={sentence} number={number} set={set} />
      <Heard sentence={sentence} number={number} set={set} />
    </Line>
  );
}

/** Where the sentence stands among the others. */
function Arrange({ step, sentence, number, onFocus }: Props & { onFocus: (id: string, at: number) => void }) {
  const { edit } = useManual();
  const send = useSentence(step.id);
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
            onPress={() => void send({ join: { id: above.id } }).then((r) => r.ok && onFocus(above.id, 0))}
          >
            <Ungroup size={16} />
          </IconButton>
          <IconButton
            aria-label={`Split the step before sentence ${number}`}
            onPress={() => void edit({ step: { split: { id: step.id, at: number - 1, new_id: newId() } } })}
          >
            <Scissors size={16} />
          </IconButton>
        </>
      )}
      <IconButton
        aria-label={`Remove sentence ${number}`}
        onPress={() => {
          // The hand stays where it was: at the next sentence, else at the one above.
          const beside = step.actions[number] ?? above;
          void send({ remove: { id } }).then((r) => r.ok && beside && onFocus(beside.id, 0));
        }}
      >
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
  const parts = usePartChoices();
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
          options={[["", "moves no part"], ...parts]}
          // Further parts of the same act stay.
          onChange={(part) =>
            void set({ parts: part ? [part, ...sentence.parts.slice(1).filter((p) => p !== part)] : [] })
          }
        />
      </Row>
      <More title="With what, where, how">
        <Row>
          {role("Done to", (roles?.things ?? []).join(", "), (t) => ({ role: { things: listOf(t) } }), "18em")}
          {role("With", roles?.by ?? "", (t) => ({ role: { by: t || null } }))}
          {role("Where (“under the lid”)", places, (t) => ({ role: { places: listOf(t) } }), "18em")}
          {role(
            "Only if (“if it is tight”)",
            roles?.condition ?? "",
            (t) => ({ role: { condition: t || null } }),
            "18em",
          )}
          {role("How (“slowly”)", (roles?.manner ?? []).join(", "), (t) => ({ role: { manner: listOf(t) } }))}
          {role(
            sentence.act === "test" ? "Good when" : "Until",
            roles?.until ?? "",
            (t) => ({ role: { until: t || null } }),
            "18em",
          )}
        </Row>
      </More>
    </>
  );
}

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
