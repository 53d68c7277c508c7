/** The parts as a tree and an inventory: what sits inside what, where, how it is fixed, and what to order for it. */
import { ChevronDown, ChevronRight, Trash2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Cell, Column, Row as Line, TableBody, TableHeader } from "react-aria-components";
import styled from "styled-components";
import {
  type Edit,
  type Finding,
  newId,
  type Part,
  type PartRow,
  type RatingLabel,
  type Replacement,
  type StepsView,
} from "../../api/client";
import { useManual } from "../../api/manual";
import type { Result } from "../../api/outbox";
import { AddLine } from "../../parts/AddLine";
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
} from "../../parts/controls";
import { Findings, idOf, isOfKind } from "../../parts/Findings";
import { Row } from "../../parts/layout";
import { usePlace } from "../../parts/place";
import { Grid } from "../../parts/table";
import { space } from "../../theme";
import { OnlyFor } from "./Notes";

const Box = styled.div`
  display: grid;
  gap: ${space.wide};
`;
/** The line a part hangs on, one inset a level. */
const Name = styled.span<{ $level: number }>`
  display: inline-flex;
  align-items: center;
  gap: ${space.hair};
  margin-left: ${(p) => p.$level * 20}px;
  ${(p) => p.$level > 0 && "border-left: 2px solid var(--strong-line); padding-left: 6px;"}
`;
/** The part that is open, below the table: forms have no place in a grid whose arrow keys walk cells. */
const Open = styled.section`
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.normal};
  > div { display: grid; gap: ${space.normal}; }
`;
const Sides = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
  gap: ${space.wide};
`;

type Field = Extract<Extract<Edit, { part: unknown }>["part"], { set: unknown }>["set"]["field"];

export function Parts({
  steps,
  found,
  onShow,
}: {
  steps: StepsView;
  found: Finding[];
  onShow: (step: string) => void;
}) {
  const { view, edit } = useManual();
  const [place, go] = usePlace();
  const open = place("part");
  const setOpen = (part: string | null) => go({ part });
  const form = useRef<HTMLElement>(null);
  // Opened here or by a link: in view, and the next key is for it.
  useEffect(() => {
    if (!open) return;
    form.current?.scrollIntoView({ block: "nearest" });
    form.current?.focus({ preventScroll: true });
  }, [open]);
  const numbers = new Map(view.order.map((id, i) => [id, i + 1]));
  const partName = (id: string) => view.manual.parts[id]?.name ?? "part";
  const openPart = open ? view.manual.parts[open] : undefined;
  const openRow = steps.parts.find((row) => row.part === open);
  const add = async (name: string) => {
    const id = newId();
    const result = await edit({ part: { add: { id, name } } });
    if (result.ok) setOpen(id);
    return result;
  };
  return (
    <Box>
      <Findings
        name="To look at"
        findings={found.filter((f) => isOfKind(f, "part"))}
        also={(f) => <Button onPress={() => setOpen(idOf(f, "part") ?? null)}>Show it</Button>}
      />
      <Grid aria-label="Parts">
        <TableHeader>
          <Column isRowHeader>Part</Column>
          <Column>Where it sits</Column>
          <Column>What it is</Column>
          <Column>Fixed by</Column>
          <Column>Behind</Column>
          <Column>Leaves in</Column>
        </TableHeader>
        <TableBody
          renderEmptyState={() => <Muted>No parts yet. Sentences of the recording bring them, or add one here.</Muted>}
        >
          {steps.parts.map((row) => {
            const part = view.manual.parts[row.part];
            if (!part) return null;
            const shown = open === row.part;
            return (
              <Line key={row.part} id={row.part} textValue={part.name}>
                <Cell>
                  <Name $level={row.level}>
                    <IconButton
                      aria-label={`More of the ${part.name}`}
                      aria-expanded={shown}
                      onPress={() => setOpen(shown ? null : row.part)}
                    >
                      {shown ? <ChevronDown size={15} /> : <ChevronRight size={15} />}
                    </IconButton>
                    {part.name}
                  </Name>
                </Cell>
                <Cell>{part.place}</Cell>
                <Cell>{part.about}</Cell>
                <Cell>{row.fixed_by.join("; ")}</Cell>
                <Cell>{row.behind.map((any) => any.map(partName).join(" or ")).join(", ")}</Cell>
                <Cell>
                  {row.leaves_in ? (
                    <Button
                      onPress={() => onShow(row.leaves_in ?? "")}
                      aria-label={`Step ${numbers.get(row.leaves_in)}, where the ${part.name} leaves`}
                    >
                      {numbers.get(row.leaves_in)}
                    </Button>
                  ) : (
                    <Muted as="span">stays</Muted>
                  )}
                </Cell>
              </Line>
            );
          })}
        </TableBody>
      </Grid>
      {openPart && openRow && (
        <Open
          ref={form}
          tabIndex={-1}
          aria-label={`The ${openPart.name}`}
          onKeyDown={(event) => event.key === "Escape" && setOpen(null)}
        >
          <Heading as="h3">The {openPart.name}</Heading>
          <Details key={openPart.id} part={openPart} row={openRow} onShow={onShow} onOpen={setOpen} />
        </Open>
      )}
      <AddLine name="Name of a new part" button="Add a part" width="16em" onAdd={add} />
    </Box>
  );
}

type DetailsProps = {
  part: Part;
  row: PartRow;
  onShow: (step: string) => void;
  onOpen: (part: string | null) => void;
};

function Details({ part, row, onShow, onOpen }: DetailsProps) {
  const { view, edit } = useManual();
  const [wrong, setWrong] = useState<string | null>(null);
  const { id } = part;
  const set = (field: Field) => edit({ part: { set: { id, field } } });
  const written = (text: string) => text.trim() || null;
  const others = Object.values(view.manual.parts)
    .filter((p) => p.id !== id)
    .sort((a, b) => a.name.localeCompare(b.name));
  const order: Replacement = part.replacement ?? { label: {}, assembly: false };
  return (
    <div>
      <Row>
        <CommitField
          label="Name, changed everywhere"
          width="14em"
          value={part.name}
          onCommit={(name) => edit({ part: { rename: { id, name } } })}
        />
        <Select
          label="Inside"
          value={part.inside ?? ""}
          options={[["", "the device itself"], ...others.map((p): [string, string] => [p.id, `the ${p.name}`])]}
          onChange={(inside) =>
            void set({ inside: inside === "" ? null : inside }).then((r) => setWrong(r.ok ? null : r.problem.detail))
          }
        />
        <CommitField
          label="Where it sits"
          width="16em"
          value={part.place ?? ""}
          onCommit={(t) => set({ place: written(t) })}
        />
        <CommitField
          label="What it is"
          width="14em"
          value={part.about ?? ""}
          onCommit={(t) => set({ about: written(t) })}
        />
        <CommitField
          label="What carries its heat away"
          width="14em"
          value={part.cooled_by ?? ""}
          onCommit={(t) => set({ cooled_by: written(t) })}
        />
        <Check checked={part.power_source} onChange={(power_source) => void set({ power_source })}>
          source of power
        </Check>
        <Check checked={part.single_use ?? false} onChange={(single_use) => void set({ single_use })}>
          destroyed when it comes off
        </Check>
      </Row>
      <OnlyFor of={part.name} chosen={part.variants ?? []} onChange={(variants) => void set({ variants })} />
      <Sides>
        <section aria-label="The fitted one">
          <Heading as="h4">The fitted one</Heading>
          <Row>
            <CommitField
              label="Maker's number"
              width="11em"
              value={part.number ?? ""}
              onCommit={(t) => set({ number: written(t) })}
            />
            <LabelFields label={part.fitted ?? {}} onChange={(fitted) => set({ fitted })} wh={row.computed_wh[0]} />
          </Row>
        </section>
        <section aria-label="What to order">
          <Heading as="h4">What to order</Heading>
          <Row>
            <CommitField
              label="Order number"
              width="11em"
              value={order.number ?? ""}
              onCommit={(t) => set({ replacement: { ...order, number: written(t) } })}
            />
            <LabelFields
              label={order.label ?? {}}
              onChange={(label) => set({ replacement: { ...order, label } })}
              wh={row.computed_wh[1]}
            />
            <CommitField
              label="Comes with"
              width="12em"
              value={order.comes_with ?? ""}
              onCommit={(t) => set({ replacement: { ...order, comes_with: written(t) } })}
            />
            <FigureField
              label="Price"
              width="6em"
              value={order.price}
              onCommit={(price) => set({ replacement: { ...order, price } })}
            />
            <CommitField
              label="Currency"
              width="5em"
              value={order.currency ?? ""}
              onCommit={(t) => set({ replacement: { ...order, currency: written(t) } })}
            />
            <Check
              checked={order.assembly ?? false}
              onChange={(assembly) => void set({ replacement: { ...order, assembly } })}
            >
              only as an assembly
            </Check>
          </Row>
        </section>
      </Sides>
      <section aria-label={`Where the ${part.name} is used`}>
        <Heading as="h4">Used in</Heading>
        <Row style={{ alignItems: "center" }}>
          {row.used_in.length === 0 && <Muted as="span">no step</Muted>}
          {row.used_in.map((step) => (
            <Button key={step} onPress={() => onShow(step)}>
              {view.order.indexOf(step) + 1}. {view.manual.steps[step]?.title}
            </Button>
          ))}
        </Row>
      </section>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      <Row>
        {others.length > 0 && (
          <Select
            label="The same thing as"
            value=""
            options={[["", "no other part"], ...others.map((p): [string, string] => [p.id, `the ${p.name}`])]}
            onChange={(into) =>
              into !== "" &&
              void edit({ part: { merge: { id, into } } }).then((r) =>
                r.ok ? onOpen(into) : setWrong(r.problem.detail),
              )
            }
          />
        )}
        <Button
          onPress={() =>
            void edit({ part: { remove: { id } } }).then((r) => (r.ok ? onOpen(null) : setWrong(r.problem.detail)))
          }
        >
          <Trash2 size={15} aria-hidden /> Remove the part
        </Button>
      </Row>
    </div>
  );
}

/** What a label says; volts times ampere hours stands beside it, worked out by the server. */
function LabelFields(props: {
  label: RatingLabel;
  onChange: (next: RatingLabel) => Promise<Result>;
  wh: number | null | undefined;
}) {
  const { label, onChange } = props;
  const figure = (name: string, key: "voltage_v" | "charge_v" | "capacity_mah" | "energy_wh") => (
    <FigureField
      label={name}
      width="6.5em"
      value={label[key]}
      onCommit={(figure) => onChange({ ...label, [key]: figure })}
    />
  );
  return (
    <>
      {figure("Voltage, V", "voltage_v")}
      {figure("Charged to, V", "charge_v")}
      {figure("Capacity, mAh", "capacity_mah")}
      {figure("Energy, Wh", "energy_wh")}
      <CommitField
        label="Connector"
        width="9em"
        value={label.connector ?? ""}
        onCommit={(t) => onChange({ ...label, connector: t.trim() || null })}
      />
      <CommitField
        label="Size"
        width="11em"
        value={label.size ?? ""}
        onCommit={(t) => onChange({ ...label, size: t.trim() || null })}
      />
      {props.wh != null && <Muted as="span">V × Ah = {Math.round(props.wh * 100) / 100} Wh</Muted>}
    </>
  );
}
