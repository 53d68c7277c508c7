/**
 * Edits as the browser keeps them until the server has answered: a key each, in the order they were made, so that no page
 * of one author overwrites what another one keeps.
 */
import type { Edit, Problem } from "./client";

export type Pending = { id: string; edit: Edit };
/** What the server refused, with the words that were in it; an undo has none. */
export type Aside = { id: string; edit: Edit | null; problem: Problem };

export class Kept<T extends { id: string }> {
  constructor(private readonly prefix: string) {}

  /** Oldest first: the ids sort by the time they were made. */
  all(): T[] {
    const keys = Object.keys(localStorage).filter((key) => key.startsWith(this.prefix));
    return keys.sort().flatMap((key) => parsed<T>(localStorage.getItem(key)));
  }

  add(item: T) {
    localStorage.setItem(this.prefix + item.id, JSON.stringify(item));
  }

  remove(id: string) {
    localStorage.removeItem(this.prefix + id);
  }

  has = (id: string) => localStorage.getItem(this.prefix + id) !== null;
  /** Whether a key of the browser's storage is one of these. */
  owns = (key: string | null) => key?.startsWith(this.prefix) ?? false;
}

/** What another program left under our key is nothing of ours. */
function parsed<T>(text: string | null): T[] {
  try {
    return text === null ? [] : [JSON.parse(text) as T];
  } catch {
    return [];
  }
}
