/** An edited table back into the manual: every bad cell is named, and nothing is taken then. */
import { FileUp } from "lucide-react";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { authorName, type Edit, isProblem, type Problem } from "../api/client";
import { useManual } from "../api/manual";
import { Button, ErrorNote, Muted } from "./controls";
import { plural } from "./format";

/** Where a table is read, what its button says, and what one of its changes is called. */
type Props = { path: string; button: string; name?: string; change: string };

/** Most bad rows shown at once; the rest come up when these are mended. */
const MAX_ROWS = 20;
const LOST = "The server did not take the table. Nothing was changed; try again in a moment.";

/** The button and, below, what came of it. */
export function useTableFile({ path, button, name, change }: Props) {
  const { edit } = useManual();
  const [told, setTold] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setTold(null);
    setProblem(null);
    // The server takes a change only with the header that no foreign page can send.
    const headers = { "Content-Type": "text/csv", "Paso-Author": encodeURIComponent(authorName()) };
    const sent = fetch(path, { method: "POST", body: file, headers });
    const answer = await sent.then(
      async (r) => ({ ok: r.ok, body: (await r.json().catch(() => null)) as unknown }),
      () => ({ ok: false, body: null }),
    );
    const { body } = answer;
    if (!answer.ok && isProblem(body)) return setProblem(body);
    if (!answer.ok || body === null) return setTold(LOST);
    const read = body as { changes: number; edits: Edit[] };
    if (read.edits.length === 0) return setTold("The table says nothing new.");
    // A long table comes in several edits, which lie upon one another.
    for (const part of read.edits) {
      const result = await edit(part);
      if (!result.ok) return setProblem(result.problem);
    }
    setTold(`${plural(read.changes, change)} taken from the table.`);
  };
  return {
    trigger: (
      <FileTrigger acceptedFileTypes={[".csv", "text/csv"]} onSelect={(files) => void take(files)}>
        <Button aria-label={name}>
          <FileUp size={15} aria-hidden /> {button}
        </Button>
      </FileTrigger>
    ),
    outcome: (
      <>
        {told && <Muted role="status">{told}</Muted>}
        {problem && (
          <ErrorNote>
            {problem.detail}
            {(problem.rows ?? []).slice(0, MAX_ROWS).map((r) => (
              <span key={`${r.row}${r.column}`} style={{ display: "block" }}>
                Row {r.row}
                {r.column && `, column ${r.column}`}: {r.problem}
              </span>
            ))}
          </ErrorNote>
        )}
      </>
    ),
  };
}
