/**
 * What is left to settle, of every stop, walked through in the order of the rail with one key.
 *
 * The walk leads to the place and shows what is asked there with its ways out, so that a manual is settled from its first
 * open question to its last without a look for the next one.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import type { Finding } from "../api/client";
import { useFindingsOf } from "../api/manual";
import { stations } from "../stops/registry";
import { space } from "../theme";
import { Button, Key } from "./controls";
import { One } from "./Findings";
import { Row } from "./layout";
import { wayTo } from "./place";

const Dock = styled.section`
  border-top: 3px solid var(--accent);
  background: var(--sheet);
  padding: ${space.small} ${space.wide};
  display: grid;
  gap: ${space.hair};
  max-height: 36vh;
  overflow: auto;
  @media print { display: none; }
  h2 { font-size: 0.95rem; flex: 1; margin: 0; }
  button { white-space: normal; text-align: left; }
`;

export type Settle = {
  left: number;
  /** What is in hand, with its place in the row; `null` while nobody walks. */
  now: { finding: Finding; number: number } | null;
  step: (way: 1 | -1) => void;
  close: () => void;
};

const place = (f: Finding) => stations.findIndex((s) => s.stop === f.stop);

/**
 * Where the walk goes on once its question is settled: at the next that stood behind it and is still open, or at what the
 * answer itself has brought up before that one; behind the last, at what was passed over. One answer may settle several.
 */
function behind(before: string[], settled: string | null, open: string[]): number {
  const later = before.slice(before.indexOf(settled ?? "") + 1);
  const next = later.map((key) => open.indexOf(key)).find((at) => at >= 0) ?? open.length;
  let at = next;
  while (at > 0 && !before.includes(open[at - 1] ?? "")) at -= 1;
  return at < open.length ? at : 0;
}

export function useSettle(id: string, loaded: boolean): Settle {
  const navigate = useNavigate();
  const asked = useFindingsOf(id, { when: loaded }).data;
  const found = asked?.findings ?? [];
  // Sorting is stable: what blocks publishing stays first within its stop.
  const open = found.filter((f) => f.set_aside == null).sort((a, b) => place(a) - place(b));
  const [at, setAt] = useState<string | null>(null);
  const keys = open.map((f) => f.key);
  const kept = at ? keys.indexOf(at) : -1;
  const row = useRef<string[]>([]);
  if (kept >= 0) row.current = keys;
  const index = kept >= 0 ? kept : behind(row.current, at, keys);
  const finding = at ? open[index] : undefined;
  const latest = useRef({ open, index, walking: at !== null });
  latest.current = { open, index, walking: at !== null };

  const step = useCallback((way: 1 | -1) => {
    const { open, index, walking } = latest.current;
    if (open.length === 0) return;
    const next = walking ? (index + way + open.length) % open.length : way > 0 ? 0 : open.length - 1;
    setAt(open[next]?.key ?? null);
  }, []);
  const close = useCallback(() => setAt(null), []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "F8" || event.ctrlKey || event.altKey || event.metaKey) return;
      event.preventDefault();
      step(event.shiftKey ? -1 : 1);
    };
    // Before a field or a list keeps the key to itself.
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [step]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: only another question leads elsewhere
  useEffect(() => {
    if (!finding) return;
    setAt(finding.key);
    navigate(`/manuals/${id}/${wayTo(finding).replace("../", "")}`);
  }, [finding?.key]);

  // All is settled: what comes up later waits until somebody walks again.
  const done = asked !== undefined && open.length === 0;
  useEffect(() => {
    if (done) setAt(null);
  }, [done]);

  return { left: open.length, now: finding ? { finding, number: index + 1 } : null, step, close };
}

/**
 * Puts the focus on the first way out, and back on it while the stop behind is still drawn and takes it for its own; the
 * first press of a key or a pointer ends that.
 */
function focusFirst(first: () => HTMLElement | null | undefined): () => void {
  const EVERY_MS = 150;
  const LONGEST_MS = 3000;
  const begun = Date.now();
  const timer = setInterval(() => {
    const to = first();
    if (to && document.activeElement !== to) to.focus();
    if (Date.now() - begun > LONGEST_MS) end();
  }, EVERY_MS);
  const end = () => {
    clearInterval(timer);
    window.removeEventListener("keydown", end, true);
    window.removeEventListener("pointerdown", end, true);
  };
  window.addEventListener("keydown", end, true);
  window.addEventListener("pointerdown", end, true);
  return end;
}

export function SettleDock({ settle }: { settle: Settle }) {
  const dock = useRef<HTMLElement>(null);
  const { now, left, step, close } = settle;
  const key = now?.finding.key;
  const mends = (now?.finding.fixes.length ?? 0) > 0;
  useEffect(() => {
    if (!key) return;
    const button = (css: string) => dock.current?.querySelector<HTMLElement>(`${css} button`);
    // Without a way out the place itself is where it is mended; only where that takes no focus, the walk goes on from here.
    return focusFirst(() =>
      mends ? button("[data-ways]") : document.activeElement === document.body ? button("[data-on]") : null,
    );
  }, [key, mends]);
  if (!now) return null;
  const stop = stations.find((s) => s.stop === now.finding.stop);
  return (
    <Dock
      ref={dock}
      aria-label="To settle"
      onKeyDown={(event) => {
        if (event.key === "Escape") close();
      }}
    >
      <Row style={{ alignItems: "center" }}>
        <h2 aria-live="polite">
          {now.number} of {left} to settle: {stop?.name}
        </h2>
        <Button onPress={() => step(-1)}>
          Back <Key>⇧ F8</Key>
        </Button>
        <span data-on>
          <Button onPress={() => step(1)}>
            Next <Key>F8</Key>
          </Button>
        </span>
        <Button onPress={close}>
          Close <Key>Esc</Key>
        </Button>
      </Row>
      <div data-ways key={key}>
        <One finding={now.finding} />
      </div>
    </Dock>
  );
}
