import { type Condition, newId } from "../../api/client";

/** The edit that says whether a plain condition holds. */
export function judged(c: Condition, standing: "confirmed" | "dropped") {
  const before = c.ways[0]?.[0] ?? "";
  const reason = c.whys[0]?.reason ?? ("author" as const);
  return { requirement: { judge: { id: newId(), step: c.step, before, reason, standing } } };
}
