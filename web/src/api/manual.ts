/** Hooks for the manual in hand. */
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useMemo, useSyncExternalStore } from "react";
import { api, type Edit, type ManualView, must, type Wanted } from "./client";
import { Outbox, type Result } from "./outbox";

export type Hand = {
  id: string;
  view: ManualView;
  /** Sends an edit; resolves with the refusal, if there is one. */
  edit: (edit: Edit) => Promise<Result>;
  outbox: Outbox;
};

const HandContext = createContext<Hand | null>(null);
export const HandProvider = HandContext.Provider;

/** The manual that this page is about. */
export function useHand(): Hand {
  const hand = useContext(HandContext);
  if (!hand) throw new Error("outside a manual");
  return hand;
}

export function useManualQuery(id: string) {
  return useQuery({
    queryKey: ["manual", id],
    queryFn: () => must(api.GET("/api/manuals/{id}", { params: { path: { id } } })),
  });
}

const outboxes = new Map<string, Outbox>();

/** One outbox a manual, alive for as long as the page is. */
export function useOutbox(id: string): Outbox {
  const queries = useQueryClient();
  return useMemo(() => {
    const found = outboxes.get(id) ?? new Outbox(id, queries);
    outboxes.set(id, found);
    return found;
  }, [id, queries]);
}

export function useOutboxState(outbox: Outbox) {
  const state = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (outbox.snapshot().waiting > 0) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [outbox]);
  return state;
}

export function useListen() {
  const { id } = useHand();
  return useQuery({
    queryKey: ["listen", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/listen", { params: { path: { id } } })),
  });
}

export function useChain() {
  const { id } = useHand();
  return useQuery({
    queryKey: ["chain", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/chain", { params: { path: { id } } })),
  });
}

/** Routes to parts; nothing is asked for while none is chosen. */
export function useRoutes(targets: string[]) {
  const { id } = useHand();
  return useQuery({
    queryKey: ["chain", id, "routes", ...targets],
    enabled: targets.length > 0,
    queryFn: () =>
      must(
        api.GET("/api/manuals/{id}/chain/routes", { params: { path: { id }, query: { targets: targets.join(",") } } }),
      ),
  });
}

/** All of the Screws stop, for the whole manual or one of its jobs. */
export function useScrews(job: string) {
  const { id } = useHand();
  return useQuery({
    queryKey: ["screws", id, job],
    placeholderData: keepPreviousData,
    queryFn: () => must(api.GET("/api/manuals/{id}/screws", { params: { path: { id }, query: job ? { job } : {} } })),
  });
}

/** The guide of the whole manual, or of one of its jobs. */
export function useGuide(job?: string | null) {
  const { id } = useHand();
  return useQuery({
    queryKey: ["guide", id, job ?? ""],
    queryFn: () =>
      must(api.GET("/api/manuals/{id}/guide", { params: { path: { id }, query: { job: job ?? undefined } } })),
  });
}

export function useJobs() {
  const { id } = useHand();
  return useQuery({
    queryKey: ["chain", id, "jobs"],
    queryFn: () => must(api.GET("/api/manuals/{id}/jobs", { params: { path: { id } } })),
  });
}

/** How every spot is judged where a step could stand; asked for when a move begins. */
export function useSpots() {
  const { id } = useHand();
  return useCallback(
    (step: string) => must(api.GET("/api/manuals/{id}/chain/spots/{step}", { params: { path: { id, step } } })),
    [id],
  );
}

/** Parts, tools and what does not fit together. */
export function useDevice() {
  const { id } = useHand();
  return useQuery({
    queryKey: ["device", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/device", { params: { path: { id } } })),
  });
}

/** Every text that holds some words; nothing is asked for while none are written. */
export function useFind(wanted: Wanted) {
  const { id } = useHand();
  return useQuery({
    queryKey: ["device", id, "find", wanted],
    enabled: wanted.find !== "",
    placeholderData: keepPreviousData,
    queryFn: () => must(api.GET("/api/manuals/{id}/find", { params: { path: { id }, query: wanted } })),
  });
}
