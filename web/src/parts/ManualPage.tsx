/** The page of an open manual: its head, the rail, a stop, and the tape. */
import { useQueryClient } from "@tanstack/react-query";
import { Redo2, Undo2 } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { Link, Outlet, useParams } from "react-router";
import styled from "styled-components";
import { type Evidence, isProblem, type ManualView, sentence } from "../api/client";
import type { Aside } from "../api/kept";
import { ManualProvider, type OpenManual, useManualQuery, useOutbox, useOutboxState } from "../api/manual";
import type { OutboxState } from "../api/outbox";
import { laidOver } from "../api/overlay";
import { placeInWords, stepOf, wanted } from "../api/words";
import { font, space } from "../theme";
import { ClashDialog } from "./ClashDialog";
import { Button, ErrorNote, IconButton, Key, Waiting } from "./controls";
import { Rail } from "./Rail";
import { SettleDock, useSettle } from "./Settle";
import { Tape } from "./Tape";
import { type Player, type PlayMode, TapeContext } from "./tape-context";

const Page = styled.div`
  height: 100dvh;
  display: flex;
  flex-direction: column;
  /* The stop scrolls, the tape stands: nothing in focus is ever hidden under it. What is only for screen readers is
     placed in the stop, or it would lengthen the page. */
  & > main { flex: 1; overflow: auto; min-height: 0; position: relative; }
  @media print { height: auto; & > main { overflow: visible; } }
`;
const Head = styled.header`
  display: flex;
  align-items: center;
  gap: ${space.normal};
  padding: ${space.small} ${space.wide} 2px;
  @media print { display: none; }
`;
const Home = styled(Link)`
  font: 800 1.15rem ${font.plain};
  letter-spacing: 0.02em;
  text-decoration: none;
`;
const Title = styled.h1`
  font: 600 1.02rem ${font.plain};
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
const Saved = styled.p<{ $bad: boolean }>`
  font-size: 0.88rem;
  color: ${(p) => (p.$bad ? "var(--danger)" : "var(--soft)")};
  white-space: nowrap;
`;
const Bar = styled.div`
  display: flex;
  gap: ${space.small};
  align-items: center;
  padding: ${space.hair} ${space.wide};
  & > p { flex: 1; }
`;

export function ManualPage() {
  const { id = "" } = useParams();
  const { data: view, error } = useManualQuery(id);
  const outbox = useOutbox(id);
  const state = useOutboxState(outbox);
  const queries = useQueryClient();
  const [focus, setFocus] = useState<Evidence[]>([]);
  const [player, setPlayer] = useState<Player | null>(null);
  const tape = useMemo(
    () => ({
      focus,
      setFocus,
      ready: player !== null,
      looping: player?.looping ?? false,
      play: (mode: PlayMode) => player?.play(mode),
      setPlayer,
    }),
    [focus, player],
  );
  const loaded = view !== undefined;
  const settle = useSettle(id, loaded);

  useEffect(() => {
    if (loaded) outbox.wake();
  }, [loaded, outbox]);
  useEffect(() => {
    document.title = view ? `${view.manual.head.title} – Paso` : "Paso";
  }, [view]);
  useUndoKeys(outbox.step.bind(outbox));
  useShowStepped(state.stepped, view);

  if (error && !view) {
    return (
      <Page>
        <Head>
          <Home to="/">Paso</Home>
          <Title>The manual cannot be opened</Title>
        </Head>
        <main>
          <Bar>
            <ErrorNote>{sentence(error)}</ErrorNote>
            <Button onPress={() => queries.invalidateQueries({ queryKey: ["manual", id] })}>Try again</Button>
          </Bar>
          <Bar>
            <Link to="/">{isProblem(error) ? "Back to the shelf" : "To the shelf"}</Link>
          </Bar>
        </main>
      </Page>
    );
  }
  if (!view) {
    return (
      <Page>
        <Head>
          <Home to="/">Paso</Home>
          <Title>
            <Waiting>Opening the manual …</Waiting>
          </Title>
        </Head>
      </Page>
    );
  }
  const open: OpenManual = { id, view: laidOver(view, state.pending), outbox, edit: (edit) => outbox.send(edit) };
  return (
    <ManualProvider value={open}>
      <TapeContext value={tape}>
        <Page>
          <Head>
            <Home to="/" aria-label="Paso, to the shelf">
              Paso
            </Home>
            <Title title={view.manual.head.title}>{view.manual.head.title}</Title>
            <SavedState state={state} view={view} />
            {settle.left > 0 && (
              <Button onPress={() => settle.step(1)}>
                {settle.left} to settle <Key>F8</Key>
              </Button>
            )}
            <IconButton aria-label="Undo Ctrl Z" isDisabled={!view.can_undo} onPress={() => outbox.step("undo")}>
              <Undo2 size={19} /> <Key>Ctrl Z</Key>
            </IconButton>
            <IconButton aria-label="Redo Ctrl ⇧ Z" isDisabled={!view.can_redo} onPress={() => outbox.step("redo")}>
              <Redo2 size={19} /> <Key>Ctrl ⇧ Z</Key>
            </IconButton>
          </Head>
          <Rail blocking={view.blocking} />
          {state.aside.map((item) => (
            <Refused key={item.id} item={item} onClose={() => outbox.dismiss(item.id)} />
          ))}
          <main>
            <Outlet />
          </main>
          <SettleDock settle={settle} />
          <Tape />
          <ClashDialog problem={state.clash} onChoose={(choice) => outbox.settle(choice)} />
        </Page>
      </TapeContext>
    </ManualProvider>
  );
}

/** What the server does not take, with the words that were in it, until somebody has seen it. */
function Refused({ item, onClose }: { item: Aside; onClose: () => void }) {
  const words = item.edit && wanted(item.edit);
  return (
    <Bar role="alert">
      <ErrorNote>
        {item.problem.detail}
        {words && ` Not taken: “${words.length > 200 ? `${words.slice(0, 200)} …` : words}”`}
      </ErrorNote>
      {words && <Button onPress={() => void navigator.clipboard?.writeText(words)}>Copy the words</Button>}
      <Button onPress={onClose}>Close</Button>
    </Bar>
  );
}

function SavedState({ state, view }: { state: OutboxState; view: ManualView }) {
  const waiting = state.pending.length;
  const kept = waiting === 1 ? "1 edit is kept here" : `${waiting} edits are kept here`;
  const text = state.clash
    ? "Two versions: choose one"
    : state.offline
      ? `${state.because ?? "No answer from the server"}; ${kept}, trying again …`
      : waiting > 0
        ? "Saving …"
        : state.stepped
          ? `${steppedInWords(state.stepped, view)} All saved`
          : "All saved";
  return (
    <Saved role="status" $bad={state.offline || state.clash !== null}>
      {text}
    </Saved>
  );
}

/** "Undone: title of step 3." */
function steppedInWords({ way, images }: NonNullable<OutboxState["stepped"]>, view: ManualView): string {
  // That a step needs another look follows from whatever else changed.
  const own = images.filter((i) => i.place.field !== "reviewed" || images.length === 1);
  const places = [...new Set(own.map((i) => placeInWords(view, i.place)))];
  const more = places.length > 2 ? ` and ${places.length - 1} more` : "";
  const told = places.length > 2 ? places.slice(0, 1) : places;
  return `${way === "undo" ? "Undone" : "Done again"}: ${told.join(", ")}${more}.`;
}

/** Brings into view what was undone or done again. */
function useShowStepped(stepped: OutboxState["stepped"], view: ManualView | undefined) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new step back or forward moves the page
  useEffect(() => {
    const at = view && stepped?.images.map((i) => stepOf(view, i.place)).find((id) => id !== null);
    if (at) document.querySelector(`[data-step="${at}"]`)?.scrollIntoView({ block: "center" });
  }, [stepped]);
}

/** Undo and redo from anywhere but a field, which has its own. */
function useUndoKeys(step: (way: "undo" | "redo") => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest("input, textarea, select");
      if (inField || !(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      const way = key === "y" || (key === "z" && event.shiftKey) ? "redo" : key === "z" ? "undo" : null;
      if (way) {
        event.preventDefault();
        step(way);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [step]);
}
