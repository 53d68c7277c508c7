/** The manual as a typeset sequence, put right in place. */
import { Plus } from "lucide-react";
import { Fragment, useEffect, useRef, useState } from "react";
import { FocusScope } from "react-aria";
import styled from "styled-components";
import { type Edit, type Finding, type MarginRow, newId, type Spot } from "../../api/client";
import { useManual, useSpots } from "../../api/manual";
import { Button, ErrorNote, Heading, Key, Muted } from "../../parts/controls";
import { isAbout } from "../../parts/Findings";
import { plural } from "../../parts/format";
import { Top } from "../../parts/layout";
import { useAsking, useKeptPlace, usePlace } from "../../parts/place";
import { useEvidence } from "../../parts/tape-context";
import { font, space } from "../../theme";
import { WRITE_ON } from "./Sentences";
import { StepArticle } from "./StepArticle";

const Told = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small};
  align-items: center;
  margin-bottom: ${space.small};
  & > p { flex: 1; }
`;
/** A stage of the work: a chapter, no step. */
const Stage = styled.li`
  font: 650 1.02rem ${font.plain};
  letter-spacing: 0.02em;
  padding: ${space.wide} 0 ${space.hair} 74px;
`;
const Section = styled.section`
  margin-bottom: ${space.page};
`;

/** Behind which step the moved one comes to stand. */
function spotAt(ids: string[], moved: string, onto: string, before: boolean): string | null {
  const others = ids.filter((x) => x !== moved);
  return before ? (others[others.indexOf(onto) - 1] ?? null) : onto;
}

type Props = { margins: MarginRow[] | undefined; found: Finding[] };

export function Sequence({ margins, found }: Props) {
  const { view, edit } = useManual();
  const { manual, order } = view;
  const [place, goTo] = usePlace();
  const wanted = place("step");
  const [chosen, setChosen] = useState<string | null>(wanted);
  const [editing, setEditing] = useState<string | null>(place("open") ? wanted : null);
  /** The sentence that the form begins with, where one was meant. */
  const [meant, setMeant] = useState<string | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const askSpots = useSpots();
  /** How the spots are judged for the step that is being dragged. */
  const [spots, setSpots] = useState<{ step: string; all: Spot[] } | null>(null);
  /** A move that was refused or is doubtful, until the next one. */
  const [told, setTold] = useState<{ spot: Spot; step: string } | null>(null);

  const inHand = chosen && manual.steps[chosen] ? chosen : null;
  useEvidence(inHand ? manual.steps[inHand]?.evidence : undefined);

  const phases = [
    { phase: "teardown" as const, name: "Taking apart" },
    { phase: "rebuild" as const, name: "Putting together, as told" },
  ].map((p) => ({ ...p, ids: order.filter((id) => manual.steps[id]?.phase === p.phase) }));
  const reviewed = order.filter((id) => manual.steps[id]?.reviewed).length;

  const focusStep = (id: string | undefined) => {
    if (!id) return;
    setChosen(id);
    requestAnimationFrame(() => list.current?.querySelector<HTMLElement>(`[data-step="${id}"]`)?.focus());
  };
  const add = (phase: "teardown" | "rebuild", after: string | null) => {
    const id = newId();
    void edit({ step: { add: { id, phase, after, title: "New step" } } }).then((r) => {
      if (r.ok) {
        setMeant(null);
        setEditing(id);
        focusStep(id);
      }
    });
  };

  /** Moves a step where the order allows it; else says why not. */
  const move = async (step: string, after: string | null) => {
    // Without an answer (no server, a step of the rebuild) nothing is judged, and the move itself says what is wrong.
    const known = spots?.step === step ? spots.all : await askSpots(step).catch(() => []);
    const spot = known.find((s) => (s.after ?? null) === after);
    setTold(spot && spot.judged !== "fine" ? { spot, step } : null);
    if (spot?.judged !== "refused") await edit({ step: { move: { id: step, after } } });
  };
  const dropReasons = async (refused: { spot: Spot; step: string }) => {
    for (const e of refused.spot.drops) await edit(e);
    await edit({ step: { move: { id: refused.step, after: refused.spot.after ?? null } } });
    setTold(null);
  };
  const beginDrag = (step: string) => {
    setSpots(null);
    void askSpots(step).then(
      (all) => setSpots({ step, all }),
      () => {},
    );
  };

  /** Single keys, only while a step itself has the focus. */
  const onKey = (event: React.KeyboardEvent, id: string, ids: string[]) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey) return;
    const at = ids.indexOf(id);
    const send = (e: Edit) => void edit(e);
    const step = manual.steps[id];
    const done = (next: string | undefined) => (r: { ok: boolean }) => r.ok && focusStep(next);
    switch (`${event.altKey ? "Alt+" : ""}${event.key}`) {
      case "Alt+ArrowDown":
        if (at + 1 < ids.length) void move(id, ids[at + 1] ?? null);
        break;
      case "Alt+ArrowUp":
        if (at > 0) void move(id, ids[at - 2] ?? null);
        break;
      case "Enter":
      case "e":
        setMeant(null);
        setEditing(id);
        break;
      case "s":
        setMeant(WRITE_ON);
        setEditing(id);
        break;
      case "r":
        send({ step: { set: { id, field: { reviewed: !step?.reviewed } } } });
        break;
      case "n":
        add(step?.phase ?? "teardown", id);
        break;
      case "m":
        if (ids[at - 1]) void edit({ step: { merge: { id, into: ids[at - 1] ?? "" } } }).then(done(ids[at - 1]));
        break;
      case "Delete":
        void edit({ step: { remove: { id } } }).then(done(ids[at + 1] ?? ids[at - 1]));
        break;
      default:
        return;
    }
    event.preventDefault();
  };

  useKeptPlace("step", inHand);
  const { asking } = useAsking();
  // What a link or another panel asks for is chosen, in view and in focus; its form opens where the link says so.
  const seen = useRef(wanted ? null : asking);
  useEffect(() => {
    if (!wanted || seen.current === asking) return;
    seen.current = asking;
    setChosen(wanted);
    const at = list.current?.querySelector<HTMLElement>(`[data-step="${wanted}"]`);
    at?.scrollIntoView({ block: "center" });
    if (place("open")) {
      // The form takes the focus itself.
      setMeant(null);
      setEditing(wanted);
      goTo({ open: null });
    } else at?.focus({ preventScroll: true });
  }, [wanted, place, goTo, asking]);
  useEffect(() => {
    // A step that was just edited keeps the focus, so that the keys go on working.
    if (editing === null && chosen)
      list.current?.querySelector<HTMLElement>(`[data-step="${chosen}"]`)?.focus({ preventScroll: true });
  }, [editing, chosen]);

  return (
    <div ref={list}>
      <Top>
        <Muted>
          {plural(order.length, "step")}, {reviewed} reviewed
        </Muted>
        <Muted as="span">
          <Key>↑</Key> <Key>↓</Key> go, <Key>Alt ↑ ↓</Key> move, <Key>Enter</Key> edit, <Key>S</Key> one more sentence,{" "}
          <Key>R</Key> reviewed, <Key>N</Key> new, <Key>M</Key> merge up, <Key>Del</Key> remove
        </Muted>
      </Top>
      {told && (
        <Told>
          {told.spot.judged === "refused" ? (
            <>
              <ErrorNote>Not moved: {told.spot.says}</ErrorNote>
              <Button onPress={() => void dropReasons(told)}>That does not hold: move it</Button>
            </>
          ) : (
            <Muted role="status">Moved, but look at this: {told.spot.says}</Muted>
          )}
          <Button onPress={() => setTold(null)}>Close</Button>
        </Told>
      )}
      <FocusScope>
        {phases.map(({ phase, name, ids }) => (
          <Section key={phase} aria-label={name} hidden={phase === "rebuild" && ids.length === 0}>
            <Top>
              <Heading as="h3">{name}</Heading>
              <Button onPress={() => add(phase, ids.at(-1) ?? null)}>
                <Plus size={16} aria-hidden /> Add a step
              </Button>
            </Top>
            {ids.length === 0 && phase === "teardown" && (
              <Muted>No steps yet. Write the first one, or bring a recording from the shelf.</Muted>
            )}
            <ol>
              {ids.map((id, i) => {
                const step = manual.steps[id];
                return step ? (
                  <Fragment key={id}>
                    {step.stage && <Stage>{step.stage}</Stage>}
                    <StepArticle
                      step={step}
                      margin={margins?.find((m) => m.step === id)}
                      found={found.filter(
                        (f) => f.set_aside == null && f.rule !== "not-reviewed" && isAbout(f, "step", id),
                      )}
                      number={order.indexOf(id) + 1}
                      chosen={inHand === id}
                      editing={editing === id}
                      tabStop={inHand === id || (!inHand && i === 0)}
                      previous={ids[i - 1]}
                      onChoose={() => setChosen(id)}
                      at={meant}
                      onEdit={(open, at) => {
                        setMeant(at ?? null);
                        setEditing(open ? id : null);
                      }}
                      onKeyDown={(event) => onKey(event, id, ids)}
                      onDropped={(moved, before) => {
                        if (moved !== id) void move(moved, spotAt(ids, moved, id, before));
                      }}
                      onDragged={() => beginDrag(id)}
                      judge={(before) =>
                        spots && spots.step !== id
                          ? spots.all.find((s) => (s.after ?? null) === spotAt(ids, spots.step, id, before))
                          : undefined
                      }
                    />
                  </Fragment>
                ) : null;
              })}
            </ol>
          </Section>
        ))}
      </FocusScope>
    </div>
  );
}
