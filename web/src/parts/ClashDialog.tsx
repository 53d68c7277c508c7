/** Two versions of one thing: the author looks at both and chooses. */
import { Heading } from "react-aria-components";
import type { Problem } from "../api/client";
import type { Choice } from "../api/outbox";
import { inWords, label, wanted, withBoth } from "../api/words";
import { Button, Muted, PrimaryButton } from "./controls";
import { Card, Foot, ModalDialog } from "./ModalDialog";

export function ClashDialog({ problem, onChoose }: { problem: Problem | null; onChoose: (choice: Choice) => void }) {
  const clash = problem?.clash;
  const mine = clash?.mine;
  const [first, more] = clash?.theirs ?? [];
  const both = mine && first && !more && withBoth(mine, first.value) !== null;
  return (
    <ModalDialog isOpen={problem !== null} label="Changed by somebody else">
      <Heading slot="title">Changed by somebody else</Heading>
      <p>{problem?.detail}</p>
      {clash?.theirs.map((t) => (
        <Card key={`${t.place.aspect}${t.place.id}${t.place.field}`}>
          <Muted>
            {t.author}
            {t.place.field ? `: ${t.place.field.startsWith("actions/") ? "the sentence" : label(t.place.field)}` : ""}
          </Muted>
          <Words>{t.value == null ? "taken away" : inWords(t.value)}</Words>
        </Card>
      ))}
      {mine ? (
        <Card>
          <Muted>You</Muted>
          <Words>{wanted(mine)}</Words>
        </Card>
      ) : null}
      <Foot>
        {mine ? <PrimaryButton onPress={() => onChoose("mine")}>Mine goes over theirs</PrimaryButton> : null}
        {both ? <Button onPress={() => onChoose("both")}>Keep both, theirs first</Button> : null}
        <Button onPress={() => onChoose("theirs")}>Theirs stands</Button>
      </Foot>
    </ModalDialog>
  );
}

/** Line breaks are part of what was written. */
const Words = ({ children }: { children: string }) => <p style={{ whiteSpace: "pre-line" }}>{children}</p>;
