/**
 * Edits on their way to the server.
 *
 * Nothing typed is lost: an edit stays in the browser's storage until the server has acknowledged it. While the server
 * does not answer it is sent again; what the server refuses is set aside with its words, and the rest goes on; where
 * somebody else changed the same, both versions are shown. All pages of one author share what is kept, and one at a time
 * sends.
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
import { type Aside, Kept, type Pending } from "./kept";
import { withBoth } from "./words";

export type OutboxState = {
  pending: Pending[];
  /** The server does not answer; edits are kept and sent again. */
  offline: boolean;
  /** Why, where it says so. */
  because: string | null;
  clash: Problem | null;
  /** What was refused, for as long as no field shows it. */
  aside: Aside[];
  /** What was undone or done again last. */
  stepped: { way: Way; images: Image[] } | null;
};
export type Result = { ok: true } | { ok: false; problem: Problem /** A field shows it. */; seen?: () => void };
export type Way = "undo" | "redo";
export type Choice = "mine" | "theirs" | "both";

const PAUSES_MS = [500, 1_000, 2_000, 5_000];
/** Answers that get better by waiting: no way through, overloaded, away, too slow, no room. */
const OUTAGES = new Set([429, 502, 503, 504, 507]);

export class Outbox {
  private readonly kept: Kept<Pending>;
  private readonly aside: Kept<Aside>;
  private answers = new Map<string, (result: Result) => void>();
  private listeners = new Set<() => void>();
  private state: OutboxState;
  private pumping = false;
  private tries = 0;

  constructor(
    private readonly manual: string,
    private readonly queries: QueryClient,
  ) {
    const whose = `${manual}.${authorName()}`;
    this.kept = new Kept(`paso.edit.${whose}.`);
    this.aside = new Kept(`paso.aside.${whose}.`);
    const [pending, aside] = [this.kept.all(), this.aside.all()];
    this.state = { pending, offline: false, because: null, clash: null, aside, stepped: null };
    window.addEventListener("storage", this.elsewhere);
    // A page that comes back was told nothing in between.
    window.addEventListener("pageshow", this.wake);
    window.addEventListener("online", this.wake);
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
    this.kept.add(item);
    this.set({ stepped: null });
    this.readAgain();
    return new Promise((resolve) => {
      this.answers.set(item.id, resolve);
      void this.pump();
    });
  }

  /** Undo or redo, once everything queued has gone. */
  async step(way: Way): Promise<void> {
    await this.pump();
    if (this.state.pending.length > 0) return;
    const id = newId();
    try {
      const answer = await api.POST(way === "undo" ? "/api/manuals/{id}/undo" : "/api/manuals/{id}/redo", {
        params: { path: { id: this.manual }, query: { request: id } },
      });
      if (answer.data) {
        this.take(answer.data);
        this.set({ stepped: { way, images: answer.data.change.images } });
      } else if (isProblem(answer.error)) {
        if (answer.error.clash) this.set({ clash: answer.error });
        else this.setAside({ id, edit: null, problem: answer.error }, false);
      }
    } catch {
      this.set({ offline: true });
    }
  }

  /** Ends a clash: mine goes over theirs, theirs stands, or both are kept. */
  settle(choice: Choice) {
    const clash = this.state.clash?.clash;
    const first = this.state.pending[0];
    this.set({ clash: null });
    if (first && clash?.mine) {
      if (choice === "theirs") this.finish(first, { ok: true });
      else {
        const edit = (choice === "both" && withBoth(first.edit, clash.theirs[0]?.value)) || first.edit;
        this.replace(first, edit);
        this.updateView((view) => ({ ...view, seq: clash.seq }));
      }
    }
    void this.queries.invalidateQueries({ queryKey: ["manual", this.manual] }).then(() => this.pump());
  }

  /** The same edit under a new id: the server has not taken the old one, and a retry must not be mistaken for it. */
  private replace(item: Pending, edit: Edit) {
    // Between the old id and the next one's, so that its turn stays the first.
    const again = { id: `${item.id.slice(0, -4)}${newId().slice(-4)}`, edit };
    const answer = this.answers.get(item.id);
    if (answer) this.answers.set(again.id, answer);
    this.answers.delete(item.id);
    this.kept.remove(item.id);
    this.kept.add(again);
    this.set({ pending: this.state.pending.filter((p) => p.id !== item.id) });
    this.readAgain();
  }

  /** Something that was refused has been seen, or is given up. */
  dismiss = (id: string) => {
    this.aside.remove(id);
    this.set({ aside: this.state.aside.filter((a) => a.id !== id) });
  };

  private async pump(): Promise<void> {
    if (this.pumping) return;
    this.pumping = true;
    try {
      while (!this.state.clash && this.view() && this.kept.all().length > 0) {
        const done = await alone(`paso.outbox.${this.manual}`, () => this.sendFirst());
        if (!done) await this.pause();
      }
      this.readAgain();
    } finally {
      this.pumping = false;
    }
  }

  /** Called when the manual has loaded, so that edits kept from an earlier visit go out. */
  wake = () => {
    this.set({ aside: this.aside.all() });
    this.readAgain();
    void this.pump();
  };

  /** Sends what is first now; `false` where the server does not answer. */
  private async sendFirst(): Promise<boolean> {
    const [item] = this.kept.all();
    const view = this.view();
    if (!item || !view) return true;
    try {
      const { data, error, response } = await api.POST("/api/manuals/{id}/edits", {
        params: { path: { id: this.manual } },
        body: { id: item.id, base_seq: view.seq, edit: item.edit },
      });
      if (data) {
        this.tries = 0;
        this.take(data);
        this.finish(item, { ok: true });
        return true;
      }
      if (OUTAGES.has(response.status) || !isProblem(error)) {
        this.set({ because: isProblem(error) ? error.detail : null });
        return false;
      }
      if (error.clash) this.set({ clash: error, offline: false });
      else {
        this.setAside({ ...item, problem: error }, true);
        this.finish(item, { ok: false, problem: error, seen: () => this.dismiss(item.id) });
      }
      return true;
    } catch {
      this.set({ because: null });
      return false;
    }
  }

  /** Shows a refusal until it was seen; `keeps` its words over a reload too. */
  private setAside(item: Aside, keeps: boolean) {
    if (keeps) this.aside.add(item);
    this.set({ aside: [...this.state.aside.filter((a) => a.id !== item.id), item] });
  }

  private finish(item: Pending, result: Result) {
    this.kept.remove(item.id);
    this.set({ pending: this.state.pending.filter((p) => p.id !== item.id), offline: false, because: null });
    this.readAgain();
    this.answers.get(item.id)?.(result);
    this.answers.delete(item.id);
  }

  /** Another page of the same author has queued, sent or set aside something. */
  private elsewhere = (event: StorageEvent) => {
    if (!this.kept.owns(event.key) && !this.aside.owns(event.key)) return;
    this.set({ aside: this.aside.all() });
    this.readAgain();
    // It may have come and gone before this page ever saw it.
    if (event.newValue === null) this.loadAgain();
  };

  /**
   * What is kept now. What was there and is gone had its answer on another page: the storage shows that at once, and its
   * event may come long after.
   */
  private readAgain() {
    const pending = this.kept.all();
    const gone = this.state.pending.filter((p) => !pending.some((q) => q.id === p.id));
    this.set({ pending });
    if (gone.length === 0) return;
    this.set({ offline: false, because: null });
    this.loadAgain();
    const aside = this.aside.all();
    for (const { id } of gone) {
      const refused = aside.find((a) => a.id === id);
      this.answers.get(id)?.(
        refused ? { ok: false, problem: refused.problem, seen: () => this.dismiss(id) } : { ok: true },
      );
      this.answers.delete(id);
    }
  }

  private loadAgain() {
    void this.queries.invalidateQueries({ queryKey: ["manual", this.manual] });
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

  private set(part: Partial<OutboxState>) {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

/** Does something while no other page does it. Without the browser's locks the server's own order has to do. */
const alone = <T>(name: string, work: () => Promise<T>): Promise<T> =>
  navigator.locks ? (navigator.locks.request(name, work) as Promise<T>) : work();

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
