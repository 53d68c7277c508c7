/**
 * The stops that are built, one entry each: its page, what it asks of the server, and which edits make that stale.
 *
 * The list itself comes from the core (`api/tables.ts`); the compiler asks for an entry here for each stop that the core
 * calls built. Routes, rail and refetching follow from the two.
 */
import { type ComponentType, type LazyExoticComponent, lazy } from "react";
import type { Image } from "../api/client";
import { type BuiltStop, stops } from "../api/tables";

/** Names of queries; a key is the name, the manual's id, and what is asked in particular. */
export type QueryName =
  | "manual"
  | "findings"
  | "listen"
  | "steps"
  | "chain"
  | "screws"
  | "seams"
  | "cables"
  | "cautions"
  | "guide"
  | "shelf";

type Entry = {
  page: LazyExoticComponent<ComponentType>;
  /** What its page shows comes from these queries. */
  asks: QueryName[];
};

export const entries: Record<BuiltStop, Entry> = {
  listen: { page: lazy(() => import("./Listen")), asks: ["listen", "findings"] },
  steps: { page: lazy(() => import("./Steps")), asks: ["steps", "findings"] },
  chain: { page: lazy(() => import("./Chain")), asks: ["chain", "findings"] },
  screws: { page: lazy(() => import("./Screws")), asks: ["screws", "findings"] },
  seams: { page: lazy(() => import("./Seams")), asks: ["seams", "findings"] },
  cables: { page: lazy(() => import("./Cables")), asks: ["cables", "findings"] },
  cautions: { page: lazy(() => import("./Cautions")), asks: ["cautions", "findings"] },
  fold: { page: lazy(() => import("./Fold")), asks: ["guide", "findings"] },
  publish: { page: lazy(() => import("./Publish")), asks: ["guide", "findings"] },
};

export const isBuilt = (stop: string): stop is BuiltStop => stop in entries;

/** What the recordings say changes by corrections, and by which step rests on what; a title or a count leaves it alone. */
function touchesWhatIsHeard({ place }: Image): boolean {
  switch (place.aspect) {
    case "recordings":
    case "corrections":
    case "word_fixes":
    case "cuts":
      return true;
    case "steps":
      return place.field == null || place.field === "evidence";
    default:
      return false;
  }
}

/** Everything else is worked out from the whole manual, so any edit may change it. */
const STALE: Record<QueryName, (images: Image[]) => boolean> = {
  // Its fields come with the answer; its sentences are worded on the server, where a renamed part changes any of them.
  manual: () => true,
  listen: (images) => images.some(touchesWhatIsHeard),
  findings: () => true,
  steps: () => true,
  chain: () => true,
  screws: () => true,
  seams: () => true,
  cables: () => true,
  cautions: () => true,
  guide: () => true,
  shelf: () => true,
};

/** The queries that a change makes stale. */
export const staleAfter = (images: Image[]): QueryName[] =>
  (Object.keys(STALE) as QueryName[]).filter((name) => STALE[name](images));

/** All stops with what the rail needs of them. */
export const stations = stops.map(({ stop, name, later }) => ({ stop, name, later, to: isBuilt(stop) ? stop : null }));
