/**
 * Rows of the fold: partners face each other on one line, what stands elsewhere or has no partner takes a line of its own;
 * in a long fold, stretches that simply turn round fold into one line.
 */
import type { FoldView } from "../../api/client";

export type Apart = FoldView["teardown"][number];
export type Back = FoldView["rebuild"][number] & { number: number };

/** One line; from the top, so the teardown runs down and the rebuild up. */
export type FoldRow = { apart?: Apart; back?: Back };

/** A line as it is drawn: itself, or a folded stretch of lines. */
export type Drawn = { key: string; row?: FoldRow; stretch?: FoldRow[] };

/** What a step of the rebuild is chosen by: the teardown step that it undoes, else itself. */
export const placeOf = (step: Pick<Back, "of" | "told">) => step.of ?? step.told ?? "";

/** Whether a step stands elsewhere than mere reversing puts it. */
export const stands = (step: Back) => step.moved != null && step.moved.overruled == null;

export function facing({ teardown, rebuild }: FoldView): FoldRow[] {
  const upwards = rebuild.map((step, i) => ({ ...step, number: i + 1 })).reverse();
  const rows: FoldRow[] = [];
  let next = 0;
  for (const back of upwards) {
    const partner = teardown.findIndex((t) => t.step === back.of);
    if (!stands(back) && partner >= next) {
      // Teardown steps that leave nothing to undo stand alone above.
      for (; next < partner; next++) rows.push({ apart: teardown[next] });
      rows.push({ apart: teardown[next++], back });
    } else {
      rows.push({ back });
    }
  }
  for (; next < teardown.length; next++) rows.push({ apart: teardown[next] });
  return rows;
}

/** Longer folds than this are folded by stretches. */
const LONG = 40;
/** Shorter stretches are not worth a press, longer ones hide how the pile grows. */
const [WORTH, MOST] = [4, 10];

/** What decides where a long fold is folded. */
type Folding = {
  /** The stretches that somebody unfolded. */
  open: Set<string>;
  /** What is never hidden. */
  keep: (row: FoldRow) => boolean;
  /** Where a stage of the work begins. */
  begins: (row: FoldRow) => boolean;
};

/** Folds what turns round plainly, stage by stage. */
export function folded(rows: FoldRow[], { open, keep, begins }: Folding): Drawn[] {
  const drawn: Drawn[] = [];
  let stretch: FoldRow[] = [];
  const close = () => {
    const key = keyOf(stretch[0]);
    if (stretch.length >= WORTH && !open.has(key)) drawn.push({ key, stretch });
    else drawn.push(...stretch.map((row) => ({ key: keyOf(row), row })));
    stretch = [];
  };
  for (const row of rows) {
    if (stretch.length === MOST || begins(row)) close();
    if (rows.length > LONG && row.apart && row.back && !keep(row)) stretch.push(row);
    else {
      close();
      drawn.push({ key: keyOf(row), row });
    }
  }
  close();
  return drawn;
}

const keyOf = (row?: FoldRow) => `${row?.apart?.step ?? ""} ${row?.back?.number ?? ""}`;
