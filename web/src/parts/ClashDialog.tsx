/** Two versions of one thing: the author looks at both and chooses. */
import { Heading } from "react-aria-components";
import type { Problem } from "../api/client";
import { Button, Muted, PrimaryButton } from "./controls";
import { Card, Foot, ModalDialog } from "./ModalDialog";

export function ClashDialog({ problem, onChoose }: { problem: Problem | null; onChoose: (mine: boolean) => void }) {
  const clash = problem?.clash;
  return (
    <ModalDialog isOpen={problem !== null} label="Changed by somebody else">
      <Heading slot="title">Changed by somebody else</Heading>
      <p>{problem?.detail}</p>
      {clash?.theirs.map((t) => (
        <Card key={`${t.place.aspect}${t.place.id}${t.place.field}`}>
          <Muted>
            {t.author} · {t.place.aspect}
            {t.place.field ? `, ${t.place.field.startsWith("actions/") ? "a sentence" : t.place.field}` : ""}
          </Muted>
          <pre>{shown(t.value)}</pre>
        </Card>
      ))}
      {clash?.mine ? (
        <Card>
          <Muted>What you asked for</Muted>
          <pre>{shown(clash.mine)}</pre>
        </Card>
      ) : null}
      <Foot>
        {clash?.mine ? <PrimaryButton onPress={() => onChoose(true)}>Mine goes over theirs</PrimaryButton> : null}
        <Button onPress={() => onChoose(false)}>Theirs stands</Button>
      </Foot>
    </ModalDialog>
  );
}

/** Words as people read them, wherever they stand in what was changed; the whole of it where it holds none. */
const shown = (value: unknown): string =>
  value === null || value === undefined
    ? "(removed)"
    : typeof value === "string"
      ? value
      : (wordsIn(value) ?? JSON.stringify(value, null, 1));

function wordsIn(value: unknown): string | null {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return null;
  const { text } = value as { text?: unknown };
  if (typeof text === "string") return text;
  for (const inner of Object.values(value)) {
    const words = wordsIn(inner);
    if (words !== null) return words;
  }
  return null;
}
