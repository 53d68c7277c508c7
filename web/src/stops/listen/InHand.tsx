/** The statement in hand: why it is what it is, and everything that can be put right about it. */
import styled from "styled-components";
import { type Edit, type Facts, newId, type StatementKind } from "../../api/client";
import type { Result } from "../../api/outbox";
import { keys, labels } from "../../api/tables";
import { Button, Heading, Key as KeyCap, Muted, PrimaryButton } from "../../parts/controls";
import { options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { useTape } from "../../parts/tape-context";
import { space } from "../../theme";
import { FactsEditor } from "./FactsEditor";
import type { Said } from "./rows";
import { Words } from "./Words";

const Kinds = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 5px;
  button { justify-content: space-between; padding: 3px 10px; }
  button[aria-pressed="true"] { background: var(--accent); border-color: var(--accent); color: var(--on-accent); font-weight: 650; }
`;
const Doubt = styled.div`
  border-left: 4px solid var(--hazard);
  background: var(--hazard-wash);
  padding: ${space.small};
  display: grid;
  gap: ${space.small};
`;

export type Acts = {
  kind: (kind: StatementKind) => void;
  drop: () => void;
  join: () => void;
  step: () => void;
};

export function InHand(props: {
  said: Said;
  stepNumber: number;
  editing: boolean;
  onEditing: (open: boolean) => void;
  words: React.RefObject<HTMLDivElement | null>;
  acts: Acts;
  edit: (edit: Edit) => Promise<Result>;
}) {
  const { said, acts, edit } = props;
  const { heard, recording } = said;
  const { statement } = heard;
  const tape = useTape();
  const { start, end } = statement;
  const setFacts = (facts: Facts | null) =>
    edit({ reading: { set_facts: { id: newId(), recording, start, end, facts } } });
  return (
    <>
      {(statement.doubts ?? []).map((d) => (
        <Doubt key={d.start} role="group" aria-label="Safety word in doubt">
          <p>
            Heard “<b>{d.heard}</b>”, but {d.because}. The facts follow “<b>{d.evident}</b>” until you choose.
          </p>
          <Row>
            {[d.evident, d.heard].map((meant) => (
              <Button
                key={meant}
                onPress={() =>
                  void edit({
                    reading: { word: { id: newId(), recording, start: d.start, end: d.end, heard: d.heard, meant } },
                  })
                }
              >
                It was “{meant}”
              </Button>
            ))}
          </Row>
        </Doubt>
      ))}
      <div>
        <Heading>
          {labels.StatementKind[heard.kind]}
          {heard.corrected ? ", as you said" : `, ${heard.percent} % sure`}
        </Heading>
        <ul>
          {statement.because.map((b) => (
            <li key={b}>
              <Muted>because {b}</Muted>
            </li>
          ))}
          {statement.repairs.map((r) => (
            <li key={r.start}>
              <Muted>
                “{r.said}” read as “{r.meant}”: {r.because}
              </Muted>
            </li>
          ))}
        </ul>
      </div>
      <Kinds role="group" aria-label="Kind">
        {options(labels.StatementKind).map(([kind, name]) => (
          <Button key={kind} aria-pressed={heard.kind === kind} onPress={() => acts.kind(kind)}>
            {name} <KeyCap>{keys.StatementKind[kind].toUpperCase()}</KeyCap>
          </Button>
        ))}
      </Kinds>
      <FactsEditor
        key={`${recording}/${start}`}
        heard={heard}
        open={props.editing}
        onOpen={props.onEditing}
        onSave={setFacts}
      />
      <section aria-label="Words heard">
        <Heading as="h3">
          Words <KeyCap>W</KeyCap>
        </Heading>
        <Words key={`${recording}/${start}`} {...{ recording, heard, edit }} first={props.words} />
      </section>
      <PrimaryButton onPress={acts.step}>
        {props.stepNumber > 0 ? `Go to step ${props.stepNumber}` : "Make a step of it"}
      </PrimaryButton>
      <Row>
        <Button onPress={acts.drop}>
          {heard.dropped ? "Bring back" : "Not part of this job"} <KeyCap>X</KeyCap>
        </Button>
        <Button onPress={acts.join}>
          Join to the one above <KeyCap>J</KeyCap>
        </Button>
        <Button isDisabled={!tape.ready} onPress={() => tape.play("once")}>
          Play <KeyCap>Space</KeyCap>
        </Button>
        <Button isDisabled={!tape.ready} onPress={() => tape.play("slow")}>
          Slower <KeyCap>R</KeyCap>
        </Button>
        <Button isDisabled={!tape.ready} aria-pressed={tape.looping} onPress={() => tape.play("loop")}>
          Loop <KeyCap>L</KeyCap>
        </Button>
      </Row>
    </>
  );
}
