/** A line that adds a thing by its name; a refusal is shown below, and what was typed stays. */
import { Plus } from "lucide-react";
import { type ReactNode, useState } from "react";
import type { Result } from "../api/outbox";
import { Button, ErrorNote, TextInput } from "./controls";
import { Row } from "./layout";

export function AddLine(props: {
  /** What is to be typed, for those who cannot see the line. */
  name: string;
  button: string;
  width: string;
  onAdd: (typed: string) => Promise<Result>;
  /** What stands before the field, such as a kind. */
  children?: ReactNode;
}) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const add = async () => {
    const result = await props.onAdd(typed);
    setWrong(result.ok ? null : result.problem.detail);
    if (result.ok) setTyped("");
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <Row>
        {props.children}
        <TextInput
          aria-label={props.name}
          aria-invalid={wrong !== null}
          style={{ width: props.width }}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="submit">
          <Plus size={15} aria-hidden /> {props.button}
        </Button>
      </Row>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </form>
  );
}
