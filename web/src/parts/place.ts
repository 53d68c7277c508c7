/**
 * Where somebody is inside a stop, kept in the address: Back and reload lead there again, and a link can point at the
 * thing itself instead of at the stop.
 */
import { type RefObject, useCallback, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { useLocation, useNavigationType, useSearchParams } from "react-router";
import type { Finding } from "../api/client";

/** Names and values of the address; `null` takes one out. */
type Change = Record<string, string | null>;

/**
 * The search of each stop as it was left, by its path; the rail leads back to it. A page says so while it leaves, when the
 * rail is drawn already: so the rail listens.
 */
const left = new Map<string, string>();
const rails = new Set<() => void>();
let leavings = 0;

function leave(path: string, search: string) {
  if (left.get(path) === search) return;
  left.set(path, search);
  leavings += 1;
  for (const drawAgain of rails) drawAgain();
}

function listen(drawAgain: () => void) {
  rails.add(drawAgain);
  return () => rails.delete(drawAgain);
}

function changed(search: string, change: Change): string {
  const next = new URLSearchParams(search);
  for (const [name, value] of Object.entries(change)) {
    if (value) next.set(name, value);
    else next.delete(name);
  }
  const text = next.toString();
  return text === "" ? "" : `?${text}`;
}

/**
 * What a stop writes into the address stands for what was asked for before it. On a slow machine an address is drawn long
 * after it was written, when another may be on its way already; so the address itself says whose it is.
 */
type Own = { asked: string };

/** By which address somebody came here, and whether the one that is drawn was written by the stop itself since. */
export function useAsking(): { asking: string; own: boolean } {
  const { key, state } = useLocation();
  // Who goes Back asks for what stood there, whoever wrote it.
  const back = useNavigationType() === "POP";
  const asked = (state as Own | null)?.asked;
  return { asking: back ? key : (asked ?? key), own: asked !== undefined && !back };
}

/**
 * What the address says of a name, and the way to change it. It never adds a page to go Back through. Where a change
 * `asks`, it leads to something as a link does; else it keeps what somebody did.
 */
export function usePlace(): [(name: string) => string | null, (change: Change, asks?: "asks") => void] {
  const [params, setParams] = useSearchParams();
  const { pathname } = useLocation();
  const { asking } = useAsking();
  const go = useCallback(
    (change: Change, asks?: "asks") => {
      // Somebody is on the way to another stop, whose page is not drawn yet: going on here would lead back.
      if (window.location.pathname !== pathname) {
        leave(pathname, changed(left.get(pathname) ?? "", change));
        return;
      }
      // The address itself and not the parameters of this rendering: two changes may come in one go.
      const state: Own | null = asks ? null : { asked: asking };
      setParams(changed(window.location.search, change), { replace: true, state });
    },
    [setParams, pathname, asking],
  );
  return [(name) => params.get(name), go];
}

/** Keeps a choice in the address a moment after it was made, so that walking through a list stays light. */
export function useKeptPlace(name: string, value: string | null) {
  const [place, go] = usePlace();
  const kept = place(name);
  const { pathname, search } = useLocation();
  const stop = useRef(pathname);
  const latest = useRef({ value, kept });
  // In an effect: a drawing that is given up, because somebody goes on to another stop, has kept nothing.
  useEffect(() => {
    latest.current = { value, kept };
  });
  useEffect(
    () => () => {
      // Left before the moment was over: the rail still leads back to it.
      const { value, kept } = latest.current;
      if ((value ?? null) !== kept) leave(stop.current, changed(left.get(stop.current) ?? "", { [name]: value }));
    },
    [name],
  );
  useEffect(() => {
    if ((value ?? null) === kept) return;
    const later = setTimeout(() => {
      // Another address is on its way and may ask for something else; when it is drawn, this is asked again.
      if (window.location.pathname === pathname && window.location.search !== search) return;
      go({ [name]: value });
    }, 250);
    return () => clearTimeout(later);
  }, [name, value, kept, go, pathname, search]);
}

/**
 * The row in hand of a stop's list, kept in the address under `name`: the one that was left, else the one that a link
 * means, else the first. A link that comes while the page stands leads to its own row, once that is there.
 */
export function useChosen(
  name: string,
  rows: { linked?: string | null; first: string | null },
): [string | null, (chosen: string | null) => void] {
  const [place] = usePlace();
  const { asking, own } = useAsking();
  const named = place(name);
  const [chosen, setChosen] = useState<string | null>(named ?? rows.linked ?? rows.first);
  useKeptPlace(name, chosen);
  const meant = (own ? null : named) ?? rows.linked ?? null;
  const followed = useRef(asking);
  useEffect(() => {
    if (followed.current === asking || !meant) return;
    followed.current = asking;
    setChosen(meant);
  }, [asking, meant]);
  return [chosen, setChosen];
}

/** Brings the row in hand into view, wherever the choice came from. */
export function useInView(list: RefObject<HTMLElement | null>, chosen: string | null) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: another choice is what moves the view
  useEffect(() => {
    list.current?.querySelector("[aria-selected=true], [aria-current=true]")?.scrollIntoView({ block: "nearest" });
  }, [list, chosen]);
}

export function useLeftPlaces(manual: string): (stop: string) => string {
  const { pathname, search } = useLocation();
  useSyncExternalStore(listen, () => leavings);
  useEffect(() => leave(pathname, search), [pathname, search]);
  return (to) => left.get(`/manuals/${manual}/${to}`) ?? "";
}

/** The way from anywhere in a manual to what a finding is about, its field open where one is meant. */
export function wayTo(finding: Finding): string {
  const at = (kind: string) => (finding.about.find((s) => kind in s) as Record<string, string> | undefined)?.[kind];
  const to = (params: Record<string, string>) => `../${finding.stop}?${new URLSearchParams(params)}`;
  const [step, part, group] = [at("step"), at("part"), at("group")];
  switch (finding.stop) {
    case "listen":
      return to({ tab: "settle", finding: finding.key });
    case "steps":
      if (step) return to({ step, open: "1" });
      if (part) return to({ tab: "parts", part });
      if (at("note")) return to({ tab: "notes" });
      return at("tool") || at("tool_named") ? to({ tab: "tools" }) : to({});
    case "publish":
      // To review a step is to read it: the step itself is where the key is pressed, and no field of it.
      return step ? `../steps?${new URLSearchParams({ step })}` : to({});
    case "screws":
      return group ? to({ group, ...(finding.rule === "uncounted" && { field: "count" }) }) : to({});
    case "cautions":
      return to({ ...(step && { step }), finding: finding.key });
    default:
      return step ? to({ step }) : to({});
  }
}
