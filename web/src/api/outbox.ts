/**
 * Edits on their way to the server.
 *
 * Nothing typed is lost: an edit stays here (and in the browser's storage) until the server has acknowledged it, is sent
 * again while the server does not answer, and is shown beside the other version when somebody else changed the same.
 */
import type { QueryClient } from "@tanstack/react-query";
import { staleAfter } from "../stops/registry";
import {
  type Applied,
  api,
  authorName,
  type Edit,
  type Image,
  isProblem,
  type ManualView,
  newId,
  type Problem,
} from "./client";

type Pending = { id: string; edit: Edit };
export type OutboxState = {
  waiting: number;
  /** The server does not answer; edits are kept and sent again. */
  offline: boolean;
  clash: Problem | null;
  /** The latest refusal, for a place that has no field of its own. */
  refused: Problem | null;
};
export type Result = { ok: true } | { ok: false; problem: Problem };

const PAUSES_MS = [500, 1_000, 2_000, 5_000];

export class Outbox {
  private pending: Pending[];
  private answers = new Map<string, (result: Result) => void>();
  private listeners = new Set<() => void>();
  private state: OutboxState;
  private pumping = false;
  private tries = 0;

  constructor(
    private readonly manual: string,
    private readonly queries: QueryClient,
  ) {
    this.pending = this.stored();
    this.state = { waiting: this.pending.length, offline: false, clash: null, refused: null };
    void this.pump();
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  snapshot = () => this.state;

  /** Queues an edit; resolves once the server has taken or refused it. */
  send(edit: Edit): Promise<Result> {
    const item = { id: newId(), edit };
    this.pending.push(item);
    this.store();
    this.set({ waiting: this.pending.length, refused: null });
    return new Promise((resolve) => {
      this.answers.set(item.id, resolve);
      void this.pump();
    });
  }

  /** Undo or redo, once everything queued has gone. */
  async step(way: "undo" | "redo"): Promise<void> {
    await this.pump();
    if (this.pending.length > 0) return;
    try {
      const answer = await api.POST(way === "undo" ? "/api/manuals/{id}/undo" : "/api/manuals/{id}/redo", {
        params: { path: { id: this.manual } },
      });
      if (answer.data) this.take(answer.data);
      else if (isProblem(answer.error))
        this.set(answer.error.clash ? { clash: answer.error } : { refused: answer.error });
    } catch {
      this.set({ offline: true });
    }
  }

  /** Ends a clash: mine goes over theirs, or theirs stands. */
  settle(mine: boolean) {
    const clash = this.state.clash;
    const first = this.pending[0];
    this.set({ clash: null });
    if (first && clash?.clash?.mine) {
      if (mine) {
        // A new id: the server has not taken the old one, and a retry must not be mistaken for it.
        const again = { ...first, id: newId() };
        const answer = this.answers.get(first.id);
        this.answers.delete(first.id);
        if (answer) this.answers.set(again.id, answer);
        this.pending[0] = again;
        this.updateView((view) => ({ ...view, seq: clash.clash?.seq ?? view.seq }));
      } else {
        this.finish(first, { ok: true });
      }
      this.store();
    }
    void this.queries.invalidateQueries({ queryKey: ["manual", this.manual] }).then(() => this.pump());
  }

  dismiss = () => this.set({ refused: null });

  private async pump(): Promise<void> {
    if (this.pumping || this.state.clash) return;
    this.pumping = true;
    try {
      while (this.pending.length > 0 && !this.state.clash) {
        const item = this.pending[0];
        const view = this.view();
        if (!item || !view) break;
        await this.sendOne(item, view.seq);
      }
    } finally {
      this.pumping = false;
    }
  }

  /** Called when the manual has loaded, so that edits kept from an earlier visit go out. */
  wake = () => void this.pump();

  private async sendOne(item: Pending, base_seq: number): Promise<void> {
    try {
      const { data, error, response } = await api.POST("/api/manuals/{id}/edits", {
        params: { path: { id: this.manual } },
        body: { id: item.id, base_seq, edit: item.edit },
      });
      if (data) {
        this.tries = 0;
        this.take(data);
        this.finish(item, { ok: true });
      } else if (response.status >= 500 || !isProblem(error)) {
        await this.pause();
      } else if (error.clash) {
        this.set({ clash: error, offline: false });
      } else {
        this.finish(item, { ok: false, problem: error });
      }
    } catch {
      await this.pause();
    }
  }

  private finish(item: Pending, result: Result) {
    this.pending = this.pending.filter((p) => p.id !== item.id);
    this.store();
    this.set({
      waiting: this.pending.length,
      offline: false,
      refused: result.ok ? this.state.refused : result.problem,
    });
    this.answers.get(item.id)?.(result);
    this.answers.delete(item.id);
  }

  private pause(): Promise<void> {
    this.set({ offline: true });
    const wait = PAUSES_MS[Math.min(this.tries++, PAUSES_MS.length - 1)];
    return new Promise((resolve) => setTimeout(resolve, wait));
  }

  private view = () => this.queries.getQueryData<ManualView>(["manual", this.manual]);

  private updateView(change: (view: ManualView) => ManualView) {
    this.queries.setQueryData<ManualView>(["manual", this.manual], (view) => view && change(view));
  }

  /** Brings the copy in the browser up to date with what the server says has changed. */
  private take(applied: Applied) {
    this.set({ offline: false });
    this.updateView((view) => ({
      ...view,
      seq: applied.seq,
      order: applied.order,
      can_undo: applied.can_undo,
      can_redo: applied.can_redo,
      blocking: applied.blocking,
      manual: applied.change.images.reduce(withImage, view.manual),
    }));
    for (const name of staleAfter(applied.change.images))
      void this.queries.invalidateQueries({ queryKey: name === "shelf" ? [name] : [name, this.manual] });
  }

  private key = () => `paso.outbox.${this.manual}.${authorName()}`;
  private store() {
    if (this.pending.length > 0) localStorage.setItem(this.key(), JSON.stringify(this.pending));
    else localStorage.removeItem(this.key());
  }
  private stored(): Pending[] {
    try {
      return JSON.parse(localStorage.getItem(this.key()) ?? "[]") as Pending[];
    } catch {
      return [];
    }
  }

  private set(part: Partial<OutboxState>) {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

/** Writes one field, or a whole entity that came or went. */
function withImage(manual: ManualView["manual"], image: Image): ManualView["manual"] {
  const { aspect, id, field } = image.place;
  const after = image.after as unknown;
  if (aspect === "head") return { ...manual, head: { ...manual.head, [field ?? ""]: after } };
  const map = { ...(manual[aspect] as Record<string, Record<string, unknown>>) };
  if (field == null) {
    if (after == null) delete map[id];
    else map[id] = after as Record<string, unknown>;
  } else {
    const [list = "", entry] = field.split("/");
    const before = map[id]?.[list];
    // "actions/ID" is one entry of a list.
    const value =
      entry && Array.isArray(before) ? before.map((e: { id?: string }) => (e.id === entry ? after : e)) : after;
    map[id] = { ...map[id], [list]: value };
  }
  return { ...manual, [aspect]: map };
}
