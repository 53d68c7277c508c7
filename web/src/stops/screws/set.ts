/** One field of a group of screws, sent as an edit. */
import type { Edit } from "../../api/client";
import { useHand } from "../../api/manual";
import type { Result } from "../../api/outbox";

export type GroupField = Extract<Extract<Edit, { fastener: unknown }>["fastener"], { set: unknown }>["set"]["field"];

export function useSetGroup(id: string): (field: GroupField) => Promise<Result> {
  const { edit } = useHand();
  return (field) => edit({ fastener: { set: { id, field } } });
}

/** What was typed as a figure; nothing typed is nothing known. What is no figure goes to the server to be refused. */
export const figure = (typed: string) => (typed.trim() === "" ? null : Number(typed.replace(",", ".")));
export const written = (typed: string) => typed.trim() || null;
