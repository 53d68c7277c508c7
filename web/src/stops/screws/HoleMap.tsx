/** The hole map: where the screws of a layer sit, placed by pointer or by millimetres, numbered in their order. */
import { FlipHorizontal2, FlipVertical2, Plus, Trash2 } from "lucide-react";
import { Fragment, useRef, useState } from "react";
import styled from "styled-components";
import { type FastenerGroup, type HolePlace, type LayerMap, newId, type ScrewsView } from "../../api/client";
import { useManual } from "../../api/manual";
import type { Result } from "../../api/outbox";
import {
  Button,
  Check,
  CommitField,
  ErrorNote,
  FigureField,
  Heading,
  IconButton,
  Muted,
  Select,
  Typed,
} from "../../parts/controls";
import { plural } from "../../parts/format";
import { LayerForm, point } from "../../parts/LayerForm";
import { Row } from "../../parts/layout";
import { TagShape } from "../../parts/Tag";
import { focusRing, space } from "../../theme";

const Frame = styled.div`
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sunk);
  padding: ${space.small};
  svg { display: block; width: 100%; max-height: 330px; }
`;
const Mark = styled.g`
  outline: none;
  &:focus-visible circle.ring { stroke: var(--accent); }
  circle.ring { fill: none; stroke: transparent; }
`;
const Places = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small} ${space.normal};
  li { display: flex; align-items: end; gap: ${space.hair}; }
  b { min-width: 2.2em; padding-bottom: 6px; }
`;
const Stack = styled.section`
  display: grid;
  gap: ${space.small};
  dl { display: grid; grid-template-columns: max-content 1fr; gap: 2px ${space.normal}; }
  dt { color: var(--soft); }
  dd { margin: 0; font-variant-numeric: tabular-nums; font-weight: 600; }
`;
const Sheet = styled.svg`
  &:focus-visible { ${focusRing} }
`;

/** White around the outline, in millimetres. */
const RIM = 7;
/** Half a millimetre is as fine as a pointer places. */
const snap = (v: number) => Math.round(v * 2) / 2;

type Props = { group: FastenerGroup; screws: ScrewsView; onChoose: (group: string) => void };

export function HoleMap({ group, screws, onChoose }: Props) {
  const { view, edit } = useManual();
  const [wrong, setWrong] = useState<string | null>(null);
  const layers = Object.values(view.manual.layers ?? {});
  const [picked, setPicked] = useState<string | null>(null);
  const layer = view.manual.layers?.[group.layer ?? picked ?? layers[0]?.id ?? ""];
  const holes = group.layer === layer?.id ? (group.holes ?? []) : [];
  const map = screws.layers.find((l) => l.layer === layer?.id);
  const told = async (sent: Promise<Result>) => {
    const result = await sent;
    setWrong(result.ok ? null : result.problem.detail);
    return result;
  };
  const place = (next: HolePlace[]) => {
    const full = layer && next.length > 0;
    return told(
      edit({ hole: full ? { place: { id: group.id, layer: layer.id, holes: next } } : { clear: { id: group.id } } }),
    );
  };
  return (
    <Stack aria-label="Hole map">
      <Row>
        <Heading as="h3">Holes</Heading>
        {layers.length > 0 && (
          <Select
            label="Layer"
            value={layer?.id ?? ""}
            options={layers.map((l): [string, string] => [l.id, l.name])}
            onChange={(id) => {
              setPicked(id);
              if (holes.length > 0)
                setWrong("The holes of this group are on another layer. Take them away there first.");
            }}
          />
        )}
        {layer && (
          <LayerForm
            key={layer.id}
            button="Change it"
            save="Keep the changes"
            layer={layer}
            onSave={async (name, outline) => {
              const renamed = await edit({ layer: { rename: { id: layer.id, name } } });
              return renamed.ok ? edit({ layer: { redraw: { id: layer.id, outline } } }) : renamed;
            }}
            onRemove={() => void told(edit({ layer: { remove: { id: layer.id } } }))}
          />
        )}
        <LayerForm
          button="New layer"
          save="Draw it"
          onSave={(name, outline) => {
            const id = newId();
            setPicked(id);
            return edit({ layer: { add: { id, name, outline } } });
          }}
        />
      </Row>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      {layer ? (
        <>
          {map && <Drawing {...{ map, group, screws, holes, onChoose }} onPlace={place} />}
          <Row>
            <Button onPress={() => void told(edit({ hole: { mirror: { id: group.id, across: "upright" } } }))}>
              <FlipHorizontal2 size={15} aria-hidden /> Mirror left to right
            </Button>
            <Button onPress={() => void told(edit({ hole: { mirror: { id: group.id, across: "level" } } }))}>
              <FlipVertical2 size={15} aria-hidden /> Mirror top to bottom
            </Button>
            {holes.length > 0 && <Button onPress={() => void place([])}>Take all away</Button>}
          </Row>
          <Places aria-label="Holes of this group">
            {holes.map((hole, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a hole is told by its number alone
              <li key={i}>
                <b>{i + 1}</b>
                {(["x_mm", "y_mm"] as const).map((axis) => (
                  <FigureField
                    key={axis}
                    label={`${axis === "x_mm" ? "Across" : "Down"}, hole ${i + 1}, mm`}
                    hideLabel
                    width="5.5em"
                    needed
                    value={hole[axis]}
                    onCommit={(mm) => place(holes.map((h, n) => (n === i ? { ...h, [axis]: mm ?? h[axis] } : h)))}
                  />
                ))}
                <IconButton
                  aria-label={`Take hole ${i + 1} away`}
                  onPress={() => void place(holes.filter((_, n) => n !== i))}
                >
                  <Trash2 size={15} />
                </IconButton>
              </li>
            ))}
          </Places>
          <Spread
            onPlace={(at) => place([...holes, at])}
            onSpread={(from, to, count) =>
              told(edit({ hole: { spread: { id: group.id, layer: layer.id, from, to, count } } }))
            }
            onRing={(centre, radius_mm, count) =>
              told(edit({ hole: { ring: { id: group.id, layer: layer.id, centre, radius_mm, count } } }))
            }
          />
          <Order group={group} screws={screws} />
        </>
      ) : (
        <Muted>Draw the outline of a layer first: its name, how wide and how high it is. Holes are placed on it.</Muted>
      )}
    </Stack>
  );
}

/** The layer with the holes of all groups; a press places one of the group in hand. */
function Drawing(props: {
  map: LayerMap;
  group: FastenerGroup;
  screws: ScrewsView;
  holes: HolePlace[];
  onPlace: (next: HolePlace[]) => Promise<Result>;
  onChoose: (group: string) => void;
}) {
  const { map, group, screws, holes, onPlace, onChoose } = props;
  const svg = useRef<SVGSVGElement>(null);
  const { width_mm: width, height_mm: height } = map;
  const size = Math.min(24, Math.max(2.5, Math.max(width, height) / 13));
  const onMap = (event: React.PointerEvent) => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix || event.target !== svg.current?.querySelector("[data-outline]")) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    void onPlace([...holes, { x_mm: snap(at.x), y_mm: snap(at.y) }]);
  };
  const onKey = (event: React.KeyboardEvent, i: number) => {
    const far = event.shiftKey ? 5 : 0.5;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-far, 0],
      ArrowRight: [far, 0],
      ArrowUp: [0, -far],
      ArrowDown: [0, far],
    };
    const move = by[event.key];
    if (move) void onPlace(holes.map((h, n) => (n === i ? { x_mm: h.x_mm + move[0], y_mm: h.y_mm + move[1] } : h)));
    else if (event.key === "Delete") void onPlace(holes.filter((_, n) => n !== i));
    else return;
    event.preventDefault();
  };
  return (
    <Frame>
      <Sheet
        ref={svg}
        role="group"
        aria-label={`${map.name}, ${width} by ${height} mm, ${plural(holes.length, "hole")} of this group`}
        viewBox={`${-RIM} ${-RIM} ${width + 2 * RIM} ${height + 2 * RIM}`}
        onPointerDown={onMap}
      >
        <path d={map.outline} fill="var(--sheet)" stroke="var(--strong-line)" strokeWidth={0.6} data-outline="" />
        {map.holes.map((hole) => {
          const { x_mm: x, y_mm: y, tag, place, number } = hole;
          const mine = hole.group === group.id;
          return (
            <Fragment key={`${hole.group}${number}`}>
              <Mark
                role="button"
                tabIndex={0}
                aria-label={`Hole ${tag.letter}${number} at ${x}, ${y} mm${place != null ? `, ${place} in the order of tightening` : ""}`}
                opacity={mine ? 1 : 0.55}
                onPointerDown={(event) => {
                  event.stopPropagation();
                  onChoose(hole.group);
                }}
                onKeyDown={(event) => (mine ? onKey(event, number - 1) : event.key === "Enter" && onChoose(hole.group))}
              >
                <circle className="ring" cx={x} cy={y} r={size * 0.85} strokeWidth={size * 0.16} />
                <g
                  fill={mine ? "var(--accent-wash)" : "var(--sheet)"}
                  stroke={mine ? "var(--accent)" : "var(--ink)"}
                  strokeWidth={1.4}
                >
                  <TagShape shape={tag.shape} x={x} y={y} r={size * 0.42} />
                </g>
                <Words x={x} y={y + size * 0.15} size={size * 0.42} bold>
                  {tag.letter}
                </Words>
              </Mark>
              {tag.length_mm != null && (
                <Words x={x} y={y + size * 0.95} size={size * 0.36}>
                  {`${tag.length_mm} mm`}
                </Words>
              )}
              {place != null && (
                <Words x={x + size * 0.72} y={y - size * 0.4} size={size * 0.6} bold>
                  {`${place}`}
                </Words>
              )}
            </Fragment>
          );
        })}
      </Sheet>
      <Muted>
        Press on the layer to place a hole of {screws.ledger.rows.find((r) => r.group === group.id)?.tag.letter}. In
        focus, a hole moves by the arrow keys, with Shift in steps of 5 mm, and goes with Delete. Figures are the order
        of tightening.
      </Muted>
    </Frame>
  );
}

/** Letters and figures at a hole. */
function Words(props: { x: number; y: number; size: number; bold?: boolean; children: string }) {
  const { x, y, size, bold, children } = props;
  return (
    <text x={x} y={y} fontSize={size} fontWeight={bold ? 700 : 400} textAnchor="middle" fill="var(--ink)">
      {children}
    </text>
  );
}

/** The orders in force, and the one that was told. */
function Order({ group, screws }: { group: FastenerGroup; screws: ScrewsView }) {
  const { edit } = useManual();
  const joint = screws.joints.find((j) => j.groups.includes(group.id));
  if (!joint) return null;
  const letter = (id: string) => screws.ledger.rows.find((r) => r.group === id)?.tag.letter ?? "";
  const words = (holes: { group: string; number: number }[]) =>
    holes.map((h) => `${letter(h.group)}${h.number}`).join(", ");
  const numbers = (typed: string) =>
    typed
      .split(/[^0-9]+/)
      .filter(Boolean)
      .map(Number);
  const set = (field: { tighten_told: number[] } | { loosen_told: number[] } | { two_passes: boolean }) =>
    edit({ fastener: { set: { id: group.id, field } } });
  return (
    <Stack aria-label="Orders">
      <p>{joint.says}</p>
      <dl>
        <dt>Tighten{joint.tighten.stated && " (as told)"}</dt>
        <dd>{words(joint.tighten.holes)}</dd>
        {joint.tighten.computed && (
          <>
            <dt>Worked out instead</dt>
            <dd>{words(joint.tighten.computed)}</dd>
          </>
        )}
        {joint.tighten.ties.length > 0 && (
          <>
            <dt>Equally good</dt>
            <dd>another hole would do as well at {joint.tighten.ties.map((t) => `place ${t}`).join(", ")}</dd>
          </>
        )}
        <dt>Loosen{joint.loosen.stated && " (as told)"}</dt>
        <dd>{words(joint.loosen.holes)}</dd>
      </dl>
      {joint.groups.length === 1 && (
        <Row>
          <CommitField
            label="Tightened as told or embossed"
            width="13em"
            value={(group.tighten_told ?? []).join(" ")}
            onCommit={(typed) => set({ tighten_told: numbers(typed) })}
          />
          <CommitField
            label="Loosened as told"
            width="13em"
            value={(group.loosen_told ?? []).join(" ")}
            onCommit={(typed) => set({ loosen_told: numbers(typed) })}
          />
        </Row>
      )}
      <Check checked={group.two_passes ?? false} onChange={(two_passes) => void set({ two_passes })}>
        in two passes: half, then full
      </Check>
    </Stack>
  );
}

/** Several holes by one action. */
function Spread(props: {
  onPlace: (at: HolePlace) => Promise<Result>;
  onSpread: (from: HolePlace, to: HolePlace, count: number) => Promise<Result>;
  onRing: (centre: HolePlace, radius: number, count: number) => Promise<Result>;
}) {
  const [how, setHow] = useState<"one" | "row" | "ring">("one");
  const [first, setFirst] = useState("");
  const [second, setSecond] = useState("");
  const [count, setCount] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const send = async () => {
    const places = how === "row" ? [point(first), point(second)] : [point(first)];
    const numbers = [
      ...places.flatMap((p) => [p.x_mm, p.y_mm]),
      ...(how === "one" ? [] : [Number(count)]),
      ...(how === "ring" ? [Number(second)] : []),
    ];
    // Not a number cannot be sent; the sentence stands where it was typed.
    if (
      numbers.some((n) => !Number.isFinite(n)) ||
      (how !== "one" && (!Number.isInteger(Number(count)) || Number(count) < 0))
    )
      return setWrong("Write two figures for a place, such as 12, 40, and whole numbers of holes.");
    setWrong(null);
    const [from, to] = places;
    if (!from) return;
    if (how === "one") await props.onPlace(from);
    else if (how === "row" && to) await props.onSpread(from, to, Number(count));
    else await props.onRing(from, Number(second), Number(count));
  };
  const field = (label: string, value: string, set: (typed: string) => void) => (
    <Typed label={label} width="8em" value={value} onChange={set} />
  );
  return (
    <form
      aria-label="Place holes by millimetres"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <Row>
        <Select
          label="By millimetres"
          value={how}
          options={[
            ["one", "one hole"],
            ["row", "evenly in a row"],
            ["ring", "evenly on a ring"],
          ]}
          onChange={(v) => v !== "" && setHow(v)}
        />
        {field(how === "one" ? "At, mm" : how === "row" ? "From, mm" : "Centre, mm", first, setFirst)}
        {how === "row" && field("To, mm", second, setSecond)}
        {how === "ring" && field("Radius, mm", second, setSecond)}
        {how !== "one" && field("How many", count, setCount)}
        <Button type="submit">
          <Plus size={15} aria-hidden /> Place
        </Button>
      </Row>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </form>
  );
}
