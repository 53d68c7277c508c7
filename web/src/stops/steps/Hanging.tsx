/** What hangs on a step, put right beside its sentences: screws, plugs, heat. */
import { Trash2 } from "lucide-react";
import type { Connector, Drive, Edit, FastenerGroup, Heat } from "../../api/client";
import { useManual, usePartChoices } from "../../api/manual";
import { labels } from "../../api/tables";
import { Check, CommitField, FigureField, IconButton, Select } from "../../parts/controls";
import { listOf, options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { useSetGroup } from "../screws/set";
import { OnlyFor } from "./Notes";

/** A plug that this step opens: what it serves, how it opens, and how its cable runs. */
export function PlugFields({ plug }: { plug: Connector }) {
  const { edit } = useManual();
  const { id } = plug;
  type Field = Extract<Extract<Edit, { connector: unknown }>["connector"], { set: unknown }>["set"]["field"];
  const set = (field: Field) => edit({ connector: { set: { id, field } } });
  return (
    <Row role="group" aria-label="Plug">
      <Select
        label="Plug of"
        value={plug.serves ?? ""}
        options={[["", "a cable"], ...usePartChoices()]}
        onChange={(part) => void set({ serves: part || null })}
      />
      <Select
        label="How it opens"
        value={plug.kind ?? ""}
        options={[["", "not known"], ...options(labels.ConnectorKind)]}
        onChange={(kind) => void set({ kind: kind || null })}
      />
      <CommitField
        label="The cable passes, parted by commas"
        width="20em"
        value={plug.route.join(", ")}
        onCommit={(text) => set({ route: listOf(text) })}
      />
      <CommitField
        label="Note"
        width="14em"
        value={plug.note ?? ""}
        onCommit={(text) => set({ note: text.trim() || null })}
      />
      <Check checked={plug.power} onChange={(power) => void set({ power })}>
        brings the power
      </Check>
      <Check checked={plug.temporary} onChange={(temporary) => void set({ temporary })}>
        only to try
      </Check>
      <IconButton aria-label="Remove this plug" onPress={() => void edit({ connector: { remove: { id } } })}>
        <Trash2 size={16} />
      </IconButton>
    </Row>
  );
}

export function ScrewFields({ group }: { group: FastenerGroup }) {
  const { edit } = useManual();
  const { id } = group;
  const set = useSetGroup(id);
  return (
    <Row role="group" aria-label="Screws">
      <FigureField label="Count" whole width="5.5em" value={group.count} onCommit={(count) => set({ count })} />
      <FigureField
        label="Put back"
        whole
        width="5.5em"
        value={group.refitted}
        onCommit={(refitted) => set({ refitted })}
      />
      <Select<Drive>
        label="Drive"
        value={group.drive ?? ""}
        options={[["", "not known"], ...options(labels.Drive)]}
        onChange={(drive) => void set({ drive: drive || null })}
      />
      <CommitField
        label="Bit"
        width="6em"
        value={group.bit ?? ""}
        onCommit={(bit) => set({ bit: bit.trim() || null })}
      />
      <FigureField
        label="Length, mm"
        width="7em"
        value={group.length_mm}
        onCommit={(length_mm) => set({ length_mm })}
      />
      <Select
        label="Holds"
        value={group.holds[0] ?? ""}
        options={[["", "–"], ...usePartChoices()]}
        // The second part that these screws may hold stays.
        onChange={(part) => void set({ holds: part ? [part, ...group.holds.slice(1).filter((p) => p !== part)] : [] })}
      />
      <Check checked={group.captive} onChange={(captive) => void set({ captive })}>
        captive
      </Check>
      <OnlyFor of="These screws" chosen={group.variants ?? []} onChange={(variants) => void set({ variants })} />
      <IconButton aria-label="Remove these screws" onPress={() => void edit({ fastener: { remove: { id } } })}>
        <Trash2 size={16} />
      </IconButton>
    </Row>
  );
}

/** How something is warmed: with what, how hot, how long. */
export function HeatFields({ heat }: { heat: Heat }) {
  const { edit } = useManual();
  const { id } = heat;
  type Field = Extract<Extract<Edit, { heat: unknown }>["heat"], { set: unknown }>["set"]["field"];
  const set = (field: Field) => edit({ heat: { set: { id, field } } });
  const ends = (name: string, key: "temp_c" | "dwell_s") => {
    const now = heat[key] ?? [];
    // One end alone is both.
    const put = (figure: number | null, at: 0 | 1) => {
      const other = now[1 - at] ?? figure;
      const pair =
        figure === null || other === null
          ? null
          : at === 0
            ? [figure, Math.max(figure, other)]
            : [Math.min(other, figure), figure];
      return set({ [key]: pair } as Field);
    };
    return (
      <>
        <FigureField label={name} width="6.5em" value={now[0]} onCommit={(figure) => put(figure, 0)} />
        <FigureField
          label={`up to${name.slice(name.indexOf(","))}`}
          width="6.5em"
          value={now[1]}
          onCommit={(figure) => put(figure, 1)}
        />
      </>
    );
  };
  return (
    <Row role="group" aria-label="Heat">
      <Select
        label="Heated with"
        value={heat.source ?? ""}
        options={[["", "not known"], ...options(labels.HeatSource)]}
        onChange={(source) => void set({ source: source || null })}
      />
      <Select
        label="What is heated"
        value={heat.target ?? ""}
        options={[["", "not said"], ...usePartChoices()]}
        onChange={(part) => void set({ target: part || null })}
      />
      {ends("Heat, °C", "temp_c")}
      {ends("Time, s", "dwell_s")}
      <Select
        label="Figures from"
        value={heat.from ?? ""}
        options={[["", "not said"], ...options(labels.HeatFrom)]}
        onChange={(from) => void set({ from: from || null })}
      />
      <IconButton aria-label="Remove this heat" onPress={() => void edit({ heat: { remove: { id } } })}>
        <Trash2 size={16} />
      </IconButton>
    </Row>
  );
}
