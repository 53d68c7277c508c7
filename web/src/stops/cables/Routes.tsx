/** How a cable runs: its places on the layers of the device, put there by pointer, keys or millimetres. */
import { Plus, Trash2 } from "lucide-react";
import { useRef, useState } from "react";
import styled from "styled-components";
import { type CablesView, type Connector, type Edit, type LayerSpot, newId, type RouteLayer } from "../../api/client";
import { useManual } from "../../api/manual";
import type { Result } from "../../api/outbox";
import { Button, CommitField, ErrorNote, Heading, IconButton, Muted, refusal, Select } from "../../parts/controls";
import { LayerForm, point } from "../../parts/LayerForm";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Stack = styled.section`
  display: grid;
  gap: ${space.small};
`;
const Frame = styled.div`
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sunk);
  padding: ${space.small};
`;
const Canvas = styled.svg`
  display: block;
  width: 100%;
  max-height: 340px;
  touch-action: none;
`;
const Place = styled.g<{ $own: boolean }>`
  outline: none;
  cursor: ${(p) => (p.$own ? "grab" : "default")};
  circle.ring { fill: none; stroke: transparent; }
  &:focus-visible circle.ring { stroke: var(--accent); }
`;
const Places = styled.ol`
  display: grid;
  gap: ${space.small};
  li { display: flex; flex-wrap: wrap; align-items: end; gap: ${space.small}; }
  b { min-width: 1.4em; padding-bottom: 6px; }
`;

type Field = Extract<Extract<Edit, { connector: unknown }>["connector"], { set: unknown }>["set"]["field"];
type Props = { plug: Connector; cables: CablesView };

/** Half a millimetre is as fine as a pointer places. */
const snap = (v: number) => Math.round(v * 2) / 2;
/** A step of the arrow keys in millimetres; with Shift a larger one. */
const STEP = [0.5, 5] as const;
const WAY: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** Keys that follow each other more quickly than this go on from each other. */
const SETTLED_MS = 2_000;

export function Routes({ plug, cables }: Props) {
  const { edit } = useManual();
  const own = cables.layers.find((l) => l.cables.some((c) => c.connector === plug.id));
  const [picked, setPicked] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const layer = cables.layers.find((l) => l.layer === (picked ?? own?.layer)) ?? cables.layers[0];
  const told = async (sent: Promise<Result>) => {
    const result = await sent;
    setWrong(result.ok ? null : result.problem.detail);
    return result;
  };
  const set = (...fields: Field[]) =>
    told(edit({ connector: { several: { edits: fields.map((field) => ({ set: { id: plug.id, field } })) } } }));
  const words = plug.route.map((w) => w.what);
  /** The next place that nobody has placed, else one more. */
  const add = (x_mm: number, y_mm: number) => {
    if (!layer) return;
    const at = { layer: layer.layer, x_mm, y_mm };
    const open = plug.route.findIndex((w) => !w.at);
    const number = open < 0 ? words.length : open;
    const more: Field[] = open < 0 ? [{ route: [...words, `place ${number + 1}`] }] : [];
    void set(...more, { passes: { number, at } });
  };
  return (
    <Stack aria-label="How the cable runs">
      <Row>
        <Heading as="h3">How the cable runs</Heading>
        {layer && (
          <Select
            label="Layer"
            value={layer.layer}
            options={cables.layers.map((l): [string, string] => [l.layer, l.name])}
            onChange={setPicked}
          />
        )}
        {cables.layers.length < 2 && (
          <LayerForm
            key={cables.layers.length}
            button={layer ? "New layer" : "Draw a layer to place it on"}
            save="Draw it"
            onSave={(name, outline) => edit({ layer: { add: { id: newId(), name, outline } } })}
          />
        )}
      </Row>
      {layer && (
        <Drawing layer={layer} plug={plug} onAdd={add} onMove={(number, at) => void set({ passes: { number, at } })} />
      )}
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      {plug.route.length > 0 && (
        <Places aria-label="Places that it passes">
          {plug.route.map((place, number) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a place is told by its number alone
            <li key={number}>
              <b>{number + 1}</b>
              <CommitField
                label={`Place ${number + 1}`}
                hideLabel
                width="13em"
                value={place.what}
                onCommit={(what) => set({ route: words.map((w, n) => (n === number ? what : w)) })}
              />
              <CommitField
                label={`Across, down of place ${number + 1}, mm`}
                hideLabel
                width="6.5em"
                value={place.at ? `${place.at.x_mm}, ${place.at.y_mm}` : ""}
                onCommit={async (typed) => {
                  const on = place.at?.layer ?? layer?.layer;
                  if (!typed.trim()) return set({ passes: { number, at: null } });
                  const { x_mm, y_mm } = point(typed);
                  if (!on || !Number.isFinite(x_mm) || !Number.isFinite(y_mm))
                    return { ok: false, problem: refusal("Write across and down in millimetres, such as 40, 12.") };
                  return set({ passes: { number, at: { layer: on, x_mm, y_mm } } });
                }}
              />
              {cables.layers.length > 1 && (
                <Select
                  label={`From place ${number + 1} on`}
                  hideLabel
                  value={place.through ?? ""}
                  options={[
                    ["", "on this side"],
                    ...cables.layers
                      .filter((l) => l.layer !== place.at?.layer)
                      .map((l): [string, string] => [l.layer, `through to ${l.name}`]),
                  ]}
                  onChange={(to) => void set({ through: { number, to: to || null } })}
                />
              )}
              <IconButton
                aria-label={`Remove place ${number + 1}`}
                onPress={() => void set({ route: words.filter((_, n) => n !== number) })}
              >
                <Trash2 size={15} aria-hidden />
              </IconButton>
            </li>
          ))}
        </Places>
      )}
      <Row>
        <Button onPress={() => void set({ route: [...words, `place ${words.length + 1}`] })}>
          <Plus size={15} aria-hidden /> Add a place
        </Button>
      </Row>
    </Stack>
  );
}

type DrawingProps = {
  layer: RouteLayer;
  plug: Connector;
  onAdd: (x_mm: number, y_mm: number) => void;
  onMove: (number: number, at: LayerSpot | null) => void;
};

function Drawing({ layer, plug, onAdd, onMove }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  /** The place in the hand, from 0; `null` while the press is beside all of them. */
  const held = useRef<number | null>(null);
  /** Where keys have brought a place; the server may still be on the way there. */
  const moving = useRef<{ number: number; at: LayerSpot; when: number } | null>(null);
  const { width_mm: width, height_mm: height, size_mm: size } = layer;
  const rim = 2 * size;
  const under = (event: React.PointerEvent) => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return null;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return { x: snap(x), y: snap(y) };
  };
  const onUp = (event: React.PointerEvent) => {
    const at = under(event);
    const number = held.current;
    held.current = null;
    if (!at) return;
    if (number === null) onAdd(at.x, at.y);
    else {
      const before = plug.route[number]?.at;
      // A press that does not move it only takes it in hand.
      if (before && Math.hypot(before.x_mm - at.x, before.y_mm - at.y) > size)
        onMove(number, { layer: layer.layer, x_mm: at.x, y_mm: at.y });
    }
  };
  const onKey = (event: React.KeyboardEvent, number: number) => {
    const way = WAY[event.key];
    const placed = plug.route[number]?.at;
    if (way && placed) {
      const now = moving.current;
      const from = now?.number === number && event.timeStamp - now.when < SETTLED_MS ? now.at : placed;
      const by = STEP[event.shiftKey ? 1 : 0];
      const within = (v: number, most: number) => Math.min(Math.max(v, 0), most);
      const at = {
        layer: placed.layer,
        x_mm: within(from.x_mm + way[0] * by, width),
        y_mm: within(from.y_mm + way[1] * by, height),
      };
      moving.current = { number, at, when: event.timeStamp };
      onMove(number, at);
    } else if (event.key === "Delete") onMove(number, null);
    else return;
    event.preventDefault();
  };
  return (
    <Frame>
      <Canvas
        ref={svg}
        role="group"
        aria-label={`${layer.name}, ${width} by ${height} mm, ${layer.cables.length} cables`}
        viewBox={`${-rim} ${-rim} ${width + 2 * rim} ${height + 2 * rim}`}
        onPointerDown={() => {
          held.current = null;
        }}
        onPointerUp={onUp}
      >
        <path
          d={layer.outline}
          fill="var(--sheet)"
          stroke="var(--strong-line)"
          strokeWidth={size * 0.14}
          data-outline=""
        />
        {layer.cables.map((cable) => {
          const own = cable.connector === plug.id;
          const colour = own ? "var(--accent)" : "var(--soft)";
          return (
            <g key={cable.connector}>
              <path
                d={cable.line}
                fill="none"
                stroke={colour}
                strokeWidth={size * (own ? 0.34 : 0.2)}
                strokeLinejoin="round"
                strokeDasharray={cable.dashes
                  .split(" ")
                  .filter(Boolean)
                  .map((d) => Number(d) * size * 0.6)
                  .join(" ")}
              />
              <text
                x={cable.name.x_mm}
                y={cable.name.y_mm}
                fontSize={size}
                textAnchor={cable.name.anchor as "start"}
                fill="var(--ink)"
              >
                {cable.name.text}
              </text>
              {cable.places.map((place) => {
                const moves = own && !place.mirrored;
                return (
                  <Place
                    key={place.number}
                    $own={moves}
                    data-mirrored={place.mirrored ? "" : undefined}
                    {...(moves
                      ? {
                          role: "button",
                          tabIndex: 0,
                          "aria-label": `Place ${place.number} ${place.what}`,
                          onKeyDown: (event: React.KeyboardEvent) => onKey(event, place.number - 1),
                        }
                      : {})}
                    onPointerDown={(event) => {
                      if (!moves) return;
                      event.stopPropagation();
                      held.current = place.number - 1;
                    }}
                  >
                    <circle className="ring" cx={place.x_mm} cy={place.y_mm} r={size * 1.1} strokeWidth={size * 0.2} />
                    <circle
                      cx={place.x_mm}
                      cy={place.y_mm}
                      r={size * 0.66}
                      fill={place.through ? colour : "var(--sheet)"}
                      stroke={colour}
                      strokeWidth={size * 0.14}
                    />
                    <text
                      x={place.x_mm}
                      y={place.y_mm + size * 0.3}
                      fontSize={size * 0.85}
                      fontWeight={700}
                      textAnchor="middle"
                      fill={place.through ? "var(--sheet)" : "var(--ink)"}
                    >
                      {place.number}
                    </text>
                  </Place>
                );
              })}
            </g>
          );
        })}
      </Canvas>
      <Muted>
        A press puts the next place here; drag one to move it. In focus, a place moves by the arrow keys, further with
        Shift, and is taken off with Delete. A filled one goes through to the other side.
      </Muted>
    </Frame>
  );
}
