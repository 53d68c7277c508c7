/** Hooks for the manual that is open: the manual itself, its edits, and what each stop asks of the server. */
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useMemo, useSyncExternalStore } from "react";
import { api, type Edit, type Heating, type ManualView, must, type Step, type Wanted } from "./client";
import { Outbox, type Result } from "./outbox";

export type OpenManual = {
  id: string;
  view: ManualView;
  /** Sends an edit; resolves with the refusal, if there is one. */
  edit: (edit: Edit) => Promise<Result>;
  outbox: Outbox;
};

const ManualContext = createContext<OpenManual | null>(null);
export const ManualProvider = ManualContext.Provider;

/** The manual that this page is about. */
export function useManual(): OpenManual {
  const open = useContext(ManualContext);
  if (!open) throw new Error("outside a manual");
  return open;
}

/** The words that readers see of a sentence. */
export function useWording(): (sentence: Step["actions"][number]) => string {
  const { worded } = useManual().view;
  return (sentence) => sentence.text ?? worded[sentence.id] ?? "";
}

export function useManualQuery(id: string) {
  const queries = useQueryClient();
  return useQuery({
    queryKey: ["manual", id],
    queryFn: async () => {
      const fetched = await must(api.GET("/api/manuals/{id}", { params: { path: { id } } }));
      // An edit that was answered meanwhile is newer than what was asked for before it.
      const held = queries.getQueryData<ManualView>(["manual", id]);
      return held && held.seq > fetched.seq ? held : fetched;
    },
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
      if (outbox.snapshot().pending.length > 0) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [outbox]);
  return state;
}

export function useListen() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["listen", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/listen", { params: { path: { id } } })),
  });
}

export function useChain() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["chain", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/chain", { params: { path: { id } } })),
  });
}

/** Routes to parts; nothing is asked for while none is chosen. */
export function useRoutes(targets: string[]) {
  const { id } = useManual();
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
  const { id } = useManual();
  return useQuery({
    queryKey: ["screws", id, job],
    placeholderData: keepPreviousData,
    queryFn: () => must(api.GET("/api/manuals/{id}/screws", { params: { path: { id }, query: job ? { job } : {} } })),
  });
}

/** The parts of the manual as a choice, by their names. */
export function usePartChoices(): [string, string][] {
  const parts = Object.values(useManual().view.manual.parts).sort((a, b) => a.name.localeCompare(b.name));
  return parts.map((p) => [p.id, p.name]);
}

/** All of the Seams stop. */
export function useSeams() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["seams", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/seams", { params: { path: { id } } })),
  });
}

export function useCables() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["cables", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/cables", { params: { path: { id } } })),
  });
}

export function useCautions() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["cautions", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/cautions", { params: { path: { id } } })),
  });
}

/** What a heating that is being tried out comes to; the last answer stays until the next one is there. */
export function useHeat(heating: Heating) {
  return useQuery({
    queryKey: ["heat", heating],
    placeholderData: keepPreviousData,
    queryFn: () => must(api.POST("/api/heat", { body: heating })),
  });
}

/** The guide of the whole manual, or of one of its jobs. */
export function useGuide(job?: string | null) {
  const { id } = useManual();
  return useQuery({
    queryKey: ["guide", id, job ?? ""],
    queryFn: () =>
      must(api.GET("/api/manuals/{id}/guide", { params: { path: { id }, query: { job: job ?? undefined } } })),
  });
}

export function useJobs() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["chain", id, "jobs"],
    queryFn: () => must(api.GET("/api/manuals/{id}/jobs", { params: { path: { id } } })),
  });
}

/** How every spot is judged where a step could stand; asked for when a move begins. */
export function useSpots() {
  const { id } = useManual();
  return useCallback(
    (step: string) => must(api.GET("/api/manuals/{id}/chain/spots/{step}", { params: { path: { id, step } } })),
    [id],
  );
}

/** Margins, parts and tools. */
export function useSteps() {
  const { id } = useManual();
  return useQuery({
    queryKey: ["steps", id],
    queryFn: () => must(api.GET("/api/manuals/{id}/steps", { params: { path: { id } } })),
  });
}

/** What does not fit, of all rules, in the whole manual or in one of its guides. */
export function useFindings(job?: string | null) {
  return useFindingsOf(useManual().id, { job });
}

/** The same of a manual that need not be open yet. */
export function useFindingsOf(id: string, { job, when = true }: { job?: string | null; when?: boolean }) {
  return useQuery({
    queryKey: ["findings", id, job ?? ""],
    enabled: when,
    queryFn: () =>
      must(api.GET("/api/manuals/{id}/findings", { params: { path: { id }, query: { job: job || undefined } } })),
  });
}

/** Every place where some words were heard; nothing is asked for while none are written. */
export function useHeard(find: string) {
  const { id } = useManual();
  return useQuery({
    queryKey: ["listen", id, "heard", find],
    enabled: find.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () => must(api.GET("/api/manuals/{id}/heard", { params: { path: { id }, query: { find } } })),
  });
}

/** Every text that holds some words; nothing is asked for while none are written. */
export function useFind(wanted: Wanted) {
  const { id } = useManual();
  return useQuery({
    queryKey: ["steps", id, "find", wanted],
    enabled: wanted.find !== "",
    placeholderData: keepPreviousData,
    queryFn: () => must(api.GET("/api/manuals/{id}/find", { params: { path: { id }, query: wanted } })),
  });
}
