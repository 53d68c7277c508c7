/** What a statement says, typed: shown in a line each, and put right in place with the units that belong there. */
import { Plus, Trash2 } from "lucide-react";
import { useId, useState } from "react";
import styled from "styled-components";
import type { Facts, StatementRow } from "../../api/client";
import { labels } from "../../api/tables";
import {
  Button,
  Check,
  ErrorNote,
  IconButton,
  Key,
  Muted,
  noFigure,
  PrimaryButton,
  Select,
} from "../../parts/controls";
import { options } from "../../parts/format";
import { Row as Buttons } from "../../parts/layout";
import { space } from "../../theme";

const Rows = styled.div`
  display: grid;
  gap: ${space.small};
`;
const Fact = styled.fieldset`
  border: 1px solid var(--line);
  border-radius: 6px;
  margin: 0;
  padding: ${space.hair} ${space.small} ${space.small};
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: ${space.hair} ${space.small};
  align-items: end;
  legend { font-size: 0.86rem; font-weight: 600; padding: 0 ${space.hair}; }
  label { display: grid; font-size: 0.82rem; color: var(--soft); min-width: 0; }
  input { width: 100%; border: 1px solid var(--strong-line); border-radius: 5px; background: var(--sheet); padding: 3px 6px; }
  & > button[aria-label] { justify-self: end; grid-column: 2; }
`;

/** One field of a fact: what it is called and how it is written. */
type Field =
  | { name: string; label: string; as: "text" | "number" | "yes" }
  | { name: string; label: string; as: "choice"; options: [string, string][]; optional?: boolean }
  /** Two figures, low and high. */
  | { name: string; label: string; as: "span" }
  /** Words parted by commas. */
  | { name: string; label: string; as: "list" };

type Shape = { key: keyof Facts; name: string; fields: Field[]; empty: unknown };
const what = (label: string): Field => ({ name: "what", label, as: "text" });
const SHAPES: Shape[] = [
  {
    key: "fasteners",
    name: "Screws",
    fields: [
      { name: "count", label: "Count", as: "number" },
      { name: "drive", label: "Drive", as: "choice", options: options(labels.Drive), optional: true },
      { name: "bit", label: "Bit", as: "text" },
      { name: "length_mm", label: "Length in mm", as: "number" },
      what("Holds"),
      {
        name: "op",
        label: "Act",
        as: "choice",
        options: options(labels.FastenerOp),
      },
      { name: "captive", label: "Captive", as: "yes" },
    ],
    empty: { op: "remove", count: 1, drive: null, bit: null, length_mm: null, captive: false, what: null },
  },
  {
    key: "parts",
    name: "Part",
    fields: [what("Part"), { name: "op", label: "Act", as: "choice", options: options(labels.PartOp) }],
    empty: { op: "remove", what: "" },
  },
  {
    key: "connectors",
    name: "Connector",
    fields: [what("Serves"), { name: "op", label: "Act", as: "choice", options: options(labels.ConnectorOp) }],
    empty: { op: "disconnect", what: "" },
  },
  {
    key: "heat",
    name: "Heat",
    fields: [
      { name: "source", label: "Source", as: "choice", options: options(labels.HeatSource), optional: true },
      { name: "target", label: "On", as: "text" },
      { name: "temp_c", label: "°C, low to high", as: "span" },
      { name: "dwell_s", label: "Seconds, low to high", as: "span" },
    ],
    empty: { source: null, target: null, temp_c: null, dwell_s: null },
  },
  {
    key: "measures",
    name: "Figure",
    fields: [
      { name: "value", label: "Value", as: "number" },
      { name: "to", label: "Up to", as: "number" },
    ],
    empty: null,
  },
  {
    key: "cautions",
    name: "Caution",
    fields: [{ name: "", label: "About", as: "choice", options: options(labels.CautionSubject) }],
    empty: "other",
  },
  {
    key: "needs",
    name: "Comes after",
    fields: [
      { name: "target", label: "Part", as: "text" },
      { name: "after", label: "After, parted by commas", as: "list" },
    ],
    empty: { target: "", after: [] },
  },
  { key: "tools", name: "Tool", fields: [{ name: "", label: "Tool", as: "text" }], empty: "" },
  {
    key: "consumables",
    name: "Material",
    fields: [{ name: "", label: "Material", as: "choice", options: options(labels.Consumable) }],
    empty: "adhesive",
  },
];

type Row = Record<string, unknown>;
type Loose = Record<string, unknown[]>;

export function FactsEditor(props: {
  heard: StatementRow;
  open: boolean;
  onOpen: (open: boolean) => void;
  onSave: (facts: Facts | null) => Promise<{ ok: boolean; problem?: { detail: string } }>;
}) {
  const { heard, open, onOpen } = props;
  if (!open) {
    return (
      <>
        <Lines facts={heard.statement.facts} />
        <Buttons>
          <Button onPress={() => onOpen(true)}>
            Put facts right <Key>F</Key>
          </Button>
          {heard.facts_corrected && <Button onPress={() => void props.onSave(null)}>As read</Button>}
        </Buttons>
      </>
    );
  }
  return <Form {...props} />;
}

function Form({ heard, onOpen, onSave }: Parameters<typeof FactsEditor>[0]) {
  const [facts, setFacts] = useState<Loose>(() => structuredClone(heard.statement.facts) as unknown as Loose);
  const [wrong, setWrong] = useState<string | null>(null);
  const put = (key: string, rows: unknown[]) => setFacts({ ...facts, [key]: rows });
  const save = async () => {
    const { figures, wrong } = withFigures(facts);
    if (wrong) return setWrong(wrong);
    const result = await onSave(figures as unknown as Facts);
    if (result.ok) onOpen(false);
    else setWrong(result.problem?.detail ?? "The facts were not taken.");
  };
  return (
    <Rows
      role="group"
      aria-label="Facts"
      onKeyDown={(event) => {
        if (event.key === "Escape") onOpen(false);
        event.stopPropagation();
      }}
    >
      {SHAPES.flatMap((shape) =>
        (facts[shape.key] ?? []).map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: facts have no identity but their place
          <Fact key={`${shape.key}${i}`}>
            <legend>{shape.name}</legend>
            {shape.fields.map((field) => (
              <FieldOf
                key={field.label}
                field={field}
                row={row}
                onChange={(next) =>
                  put(
                    shape.key,
                    (facts[shape.key] ?? []).map((r, n) => (n === i ? next : r)),
                  )
                }
              />
            ))}
            <IconButton
              aria-label={`Take this out: ${shape.name}`}
              onPress={() =>
                put(
                  shape.key,
                  (facts[shape.key] ?? []).filter((_, n) => n !== i),
                )
              }
            >
              <Trash2 size={15} />
            </IconButton>
          </Fact>
        )),
      )}
      <Buttons>
        {SHAPES.filter((s) => s.empty !== null).map((s) => (
          <Button key={s.key} onPress={() => put(s.key, [...(facts[s.key] ?? []), structuredClone(s.empty)])}>
            <Plus size={13} aria-hidden /> {s.name}
          </Button>
        ))}
      </Buttons>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      <Buttons>
        <PrimaryButton onPress={() => void save()}>Save facts</PrimaryButton>
        <Button onPress={() => onOpen(false)}>Leave as it was</Button>
      </Buttons>
    </Rows>
  );
}

/** The facts with what was typed as figures made figures, or the first that is none. */
function withFigures(facts: Loose): { figures: Loose; wrong: string | null } {
  const figures = structuredClone(facts);
  for (const shape of SHAPES)
    for (const row of (figures[shape.key] ?? []) as Row[])
      for (const { name, label, as } of shape.fields) {
        const typed = as === "number" ? row[name] : null;
        if (typeof typed !== "string") continue;
        const figure = Number(typed.trim().replace(",", "."));
        const wrong = noFigure(typed, figure, name === "count");
        if (wrong) return { figures, wrong: `${label}: ${wrong}` };
        row[name] = figure;
      }
  return { figures, wrong: null };
}

function FieldOf({ field, row, onChange }: { field: Field; row: unknown; onChange: (row: unknown) => void }) {
  const value = field.name === "" ? row : (row as Row)[field.name];
  const set = (next: unknown) => onChange(field.name === "" ? next : { ...(row as Row), [field.name]: next });
  const id = useId();
  if (field.as === "choice")
    return (
      <Select
        label={field.label}
        value={(value as string | null) ?? ""}
        options={field.optional ? [["", "not said"], ...field.options] : field.options}
        onChange={(chosen) => set(chosen || null)}
      />
    );
  if (field.as === "yes")
    return (
      <Check checked={value === true} onChange={set}>
        {field.label}
      </Check>
    );
  return (
    <label htmlFor={id}>
      {field.label}
      {field.as === "number" ? (
        <input
          id={id}
          inputMode="decimal"
          value={(value as number | string | null) ?? ""}
          // As it was typed, until it is saved: "1.0" is on its way to "1.05".
          onChange={(e) => set(e.target.value === "" ? null : e.target.value)}
        />
      ) : field.as === "span" ? (
        <SpanField id={id} value={value as number[] | null} onChange={set} />
      ) : field.as === "list" ? (
        <input
          id={id}
          value={(value as string[]).join(", ")}
          onChange={(e) => set(e.target.value === "" ? [] : e.target.value.split(",").map((t) => t.trimStart()))}
        />
      ) : (
        <input
          id={id}
          value={(value as string | null) ?? ""}
          onChange={(e) => set(field.name === "" || e.target.value !== "" ? e.target.value : null)}
        />
      )}
    </label>
  );
}

/** "70" or "70–80". */
function SpanField(props: { id: string; value: number[] | null; onChange: (next: number[] | null) => void }) {
  const { value, onChange } = props;
  const shown = value === null ? "" : value[0] === value[1] ? `${value[0]}` : `${value[0]}–${value[1]}`;
  const [typed, setTyped] = useState(shown);
  const read = (text: string) => {
    setTyped(text);
    const figures = text.split(/–|-|to/).map((t) => Number.parseFloat(t));
    const [low = Number.NaN, high = low] = figures;
    if (text.trim() === "") onChange(null);
    else if (!Number.isNaN(low)) onChange([low, Number.isNaN(high) ? low : high]);
  };
  return <input id={props.id} value={typed} inputMode="decimal" onChange={(e) => read(e.target.value)} />;
}

/** The facts as short lines. */
function Lines({ facts: f }: { facts: Facts }) {
  const lines = [
    ...f.parts.map((p) => `${labels.PartOp[p.op] === labels.PartOp.remove ? "leaves" : "goes back"}: ${p.what}`),
    ...f.fasteners.map(
      (s) =>
        `screws ${s.op}: ${[s.count ?? "?", s.bit ?? s.drive, s.length_mm != null ? `${s.length_mm} mm` : null, s.captive ? "captive" : null, s.what].filter(Boolean).join(", ")}`,
    ),
    ...f.connectors.map((c) => `${c.op}: ${c.what ?? "a cable"}`),
    ...f.heat.map(
      (h) =>
        `heat: ${[h.source, h.target, h.temp_c && `${[...new Set(h.temp_c)].join("–")} °C`, h.dwell_s && `${[...new Set(h.dwell_s)].join("–")} s`].filter(Boolean).join(", ")}`,
    ),
    ...f.cautions.map((c) => `caution about: ${labels.CautionSubject[c]}`),
    ...f.needs.map((n) => `${n.target} comes after: ${n.after.join(", ") || "nothing"}`),
    ...(f.tools.length > 0 ? [`tools: ${f.tools.join(", ")}`] : []),
    ...(f.consumables.length > 0 ? [`materials: ${f.consumables.join(", ")}`] : []),
    ...f.measures.map((m) => `${m.quantity}: ${m.value}${m.to != null ? `–${m.to}` : ""} ${m.unit}`),
  ];
  if (lines.length === 0) return <Muted>No facts are read from this.</Muted>;
  return (
    <ul aria-label="Facts">
      {lines.map((line) => (
        <li key={line}>
          <Muted>{line}</Muted>
        </li>
      ))}
    </ul>
  );
}
