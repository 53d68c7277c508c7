/** The outline of a layer as it is typed: by two sides, or by its corners. */
import { Plus } from "lucide-react";
import { useState } from "react";
import type { HolePlace, Layer, Outline } from "../api/client";
import type { Result } from "../api/outbox";
import { Button, ErrorNote, Typed } from "./controls";
import { Row } from "./layout";

/** Two figures parted by a comma or a space: "12, 40". */
export function point(typed: string): HolePlace {
  const [x, y] = typed
    .split(/[;,\s]+/)
    .filter(Boolean)
    .map(Number);
  return { x_mm: x ?? Number.NaN, y_mm: y ?? Number.NaN };
}

/** The outline as it is typed: two sides, or corners. */
const typedOutline = (outline: Outline | undefined) => {
  if (!outline) return { size: "", radius: "" };
  if ("corners" in outline) return { size: outline.corners.map((c) => `${c.x_mm},${c.y_mm}`).join(" "), radius: "" };
  const { width_mm, height_mm, radius_mm } = outline.rectangle;
  return { size: `${width_mm} × ${height_mm}`, radius: `${radius_mm}` };
};

/** A layer by two dimensions, or by its corners; new, or one that is there. */
export function LayerForm(props: {
  button: string;
  save: string;
  layer?: Layer;
  onSave: (name: string, outline: Outline) => Promise<Result>;
  onRemove?: () => void;
}) {
  const before = typedOutline(props.layer?.outline);
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(props.layer?.name ?? "");
  const [size, setSize] = useState(before.size);
  const [radius, setRadius] = useState(before.radius);
  const [wrong, setWrong] = useState<string | null>(null);
  if (!open)
    return (
      <Button onPress={() => setOpen(true)}>
        {!props.layer && <Plus size={15} aria-hidden />} {props.button}
      </Button>
    );
  const send = async () => {
    const sides = size.split(/[×x*]/);
    const outline: Outline =
      sides.length === 1
        ? { corners: size.split(/\s+/).filter(Boolean).map(point) }
        : { rectangle: { width_mm: Number(sides[0]), height_mm: Number(sides[1]), radius_mm: Number(radius || 0) } };
    const numbers =
      "corners" in outline ? outline.corners.flatMap((c) => [c.x_mm, c.y_mm]) : Object.values(outline.rectangle);
    if (numbers.some((n) => !Number.isFinite(n)))
      return setWrong("Write a width and a height such as 120 × 80, or corners such as 0,0 120,0 120,60 0,80.");
    const result = await props.onSave(name, outline);
    setWrong(result.ok ? null : result.problem.detail);
    if (!result.ok) return;
    setOpen(false);
    if (!props.layer) {
      setName("");
      setSize("");
    }
  };
  return (
    <form
      aria-label={props.button}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <Row>
        <Typed label="Name of the layer" width="11em" value={name} onChange={setName} />
        <Typed label="Width × height, mm, or corners" width="14em" value={size} onChange={setSize} />
        <Typed label="Round corners, mm" width="8em" value={radius} onChange={setRadius} />
        <Button type="submit">{props.save}</Button>
        {props.onRemove && <Button onPress={props.onRemove}>Remove the layer and its holes</Button>}
        <Button onPress={() => setOpen(false)}>Not now</Button>
      </Row>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </form>
  );
}
