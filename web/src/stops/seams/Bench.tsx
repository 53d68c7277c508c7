/** The heat bench of one joint: the stack, the source, and what becomes of both, live while a slider moves. */
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { Label, Slider, SliderOutput, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";
import { type HeatAnswer, type Heating, isProblem, newId, type SeamRow, type SeamsView } from "../../api/client";
import { useHeat, useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import {
  Button,
  CommitField,
  ErrorNote,
  FigureField,
  Heading,
  IconButton,
  More,
  Muted,
  PrimaryButton,
  refusal,
  Select,
} from "../../parts/controls";
import { duration, options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { focusRing, space } from "../../theme";
import { Curves, CurveTable } from "./Curves";
import { Window } from "./Window";

const Halves = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(310px, 1fr));
  gap: ${space.wide};
  & > div { display: grid; gap: ${space.small}; align-content: start; }
`;
const Layers = styled.ol`
  display: grid;
  gap: 3px;
`;
const Layer = styled.li<{ $bond: boolean }>`
  display: grid;
  grid-template-columns: 178px 6.5em auto;
  gap: ${space.hair} ${space.small};
  align-items: end;
  justify-content: start;
  border-left: 5px solid ${(p) => (p.$bond ? "var(--accent)" : "var(--line)")};
  padding-left: ${space.small};
`;
const Figures = styled(Row)`
  grid-column: 1 / -1;
`;
const Answer = styled.p<{ $bad: boolean }>`
  font-weight: 600;
  border-left: 5px solid ${(p) => (p.$bad ? "var(--danger)" : "var(--accent)")};
  padding-left: ${space.small};
`;
const Slide = styled(Slider)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px ${space.small};
  label { font-size: 0.86rem; color: var(--soft); }
  output { font-weight: 650; }
`;
const Slides_ = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: ${space.small} ${space.wide};
`;
const Track = styled(SliderTrack)`
  grid-column: 1 / -1;
  height: 26px;
  &::before { content: ""; position: absolute; left: 0; right: 0; top: 11px; height: 4px; border-radius: 2px; background: var(--strong-line); }
`;
const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 20px;
  height: 20px;
  border-radius: 50%;
  background: var(--accent);
  &[data-focus-visible] { ${focusRing} }
`;

type Heat = NonNullable<SeamRow["heat"]>;

/** Shortest and longest heating that the slider offers, s. */
const SECONDS = [5, 600] as const;

type Keep = (heating: Heating) => ReturnType<ReturnType<typeof useManual>["edit"]>;

type Props = { row: SeamRow; heat: Heat; sources: SeamsView["sources"]; usual: SeamsView["usual"] };

export function Bench({ row, heat, sources, usual }: Props) {
  const { edit } = useManual();
  /** What is being tried out, until it is let go. */
  const [tried, setTried] = useState<Heating | null>(null);
  const heating = tried ?? heat.heating;
  const { data, error } = useHeat(heating);
  const keep = (heating: Heating) => {
    setTried(heating);
    return edit({ seam: { set: { id: row.seam, field: { heating } } } }).then((r) => {
      setTried(null);
      return r;
    });
  };
  const source = sources.find((s) => s.by === heating.by);
  return (
    <>
      <Halves>
        <div>
          <Stack heating={heating} bond={data?.plan.bond ?? null} guessed={heat.guessed} usual={usual} onKeep={keep} />
        </div>
        <div>
          <Row>
            <Select
              label="Warmed with"
              value={heating.by}
              options={options(labels.WarmedBy)}
              onChange={(by) => {
                const range = sources.find((s) => s.by === by);
                if (by === "" || !range) return;
                const setting_c = Math.min(range.high_c, Math.max(range.low_c, heating.setting_c));
                void keep({ ...heating, by, setting_c });
              }}
            />
          </Row>
          <Slides heating={heating} source={source} onTry={setTried} onKeep={keep} />
          {error ? <ErrorNote>{isProblem(error) ? error.detail : "The server does not answer."}</ErrorNote> : null}
          {data && <Answers row={row} heating={heating} worked={data} told={heat.told} onKeep={keep} />}
        </div>
      </Halves>
      {heat.told.length > 0 && (
        <section aria-label="The heat that was told">
          <Heading as="h4">The heat that step {row.step_number} tells</Heading>
          {heat.told.map((t) => (
            <div key={t.heat}>
              <p>{t.words}</p>
              <Answer $bad={t.judged.verdict !== "does"}>{t.judged.says}</Answer>
            </div>
          ))}
        </section>
      )}
      <Muted>
        An estimate, straight through the layers: a thermometer at the edge beats it. The face burns skin; hold it with
        gloves, and let it cool before you touch it. Stop at once where a cell swells or smells.
      </Muted>
    </>
  );
}

/** What the heating in hand comes to. */
function Answers({ row, heating, worked, told, onKeep }: AdviceProps & { told: Heat["told"] }) {
  return (
    <>
      <Answer $bad={worked.judged.verdict !== "does"} role="status">
        {worked.judged.says}
      </Answer>
      <Curves heating={heating} plan={worked.plan} />
      <Window
        heating={heating}
        points={worked.window}
        recommended={worked.plan.recommended ?? null}
        told={told.flatMap(({ setting_c, seconds }) => (seconds == null ? [] : [{ setting_c, seconds }]))}
      />
      <Advice row={row} heating={heating} worked={worked} onKeep={onKeep} />
      <CurveTable heating={heating} plan={worked.plan} />
      {worked.ways.map((way) => (
        <OtherWay key={way.name} row={row} way={way} />
      ))}
    </>
  );
}

/** The layers from the heated face inward. */
function Stack(props: {
  heating: Heating;
  bond: number | null;
  guessed: boolean;
  usual: SeamsView["usual"];
  onKeep: Keep;
}) {
  const { heating, onKeep } = props;
  const { layers } = heating;
  const put = (next: Heating["layers"]) => onKeep({ ...heating, layers: next });
  return (
    <>
      <Heading as="h4">Layers, from the heated face inward</Heading>
      {props.guessed && (
        <Muted>Nobody has said what lies here; this is what such a cover usually has. Put it right.</Muted>
      )}
      <Select
        label="Begin with a usual stack"
        value=""
        options={[["", "choose one"], ...options(labels.Preset)]}
        onChange={(name) => name !== "" && void put(props.usual.find((u) => u.preset === name)?.layers ?? layers)}
      />
      <Layers>
        {layers.map((layer, n) => (
          <Layer
            // biome-ignore lint/suspicious/noArrayIndexKey: a layer is told by its place alone
            key={n}
            $bond={n === props.bond}
          >
            <Select
              label={`Layer ${n + 1}`}
              hideLabel
              value={layer.medium}
              options={options(labels.Medium)}
              onChange={(medium) => {
                const own = medium === "own" ? (layer.own ?? NEW_MATERIAL) : null;
                if (medium !== "") void put(layers.map((l, i) => (i === n ? { ...l, medium, own } : l)));
              }}
            />
            <FigureField
              label={n === props.bond ? "mm, the bond" : "mm"}
              needed
              width="5.5em"
              value={layer.thickness_mm}
              onCommit={(mm) => put(layers.map((l, i) => (i === n ? { ...l, thickness_mm: mm ?? 0 } : l)))}
            />
            <IconButton aria-label={`Remove layer ${n + 1}`} onPress={() => void put(layers.filter((_, i) => i !== n))}>
              <Trash2 size={16} />
            </IconButton>
            {layer.own && (
              <OwnFigures
                own={layer.own}
                onChange={(own) => put(layers.map((l, i) => (i === n ? { ...l, own } : l)))}
              />
            )}
          </Layer>
        ))}
      </Layers>
      <Row>
        <Button onPress={() => void put([...layers, { medium: "abs", thickness_mm: 1, own: null }])}>
          <Plus size={15} aria-hidden /> Add a layer
        </Button>
        <FigureField
          label="Room, °C"
          needed
          width="6em"
          value={heating.room_c}
          onCommit={(room_c) => onKeep({ ...heating, room_c: room_c ?? 23 })}
        />
      </Row>
    </>
  );
}

type Own = NonNullable<Heating["layers"][number]["own"]>;

/** Figures of a common plastic to begin with. */
const NEW_MATERIAL: Own = {
  name: "own material",
  conductivity: 0.2,
  density: 1100,
  heat_capacity: 1400,
  softens_c: null,
  harm_c: null,
};

/** What a material of one's own is called, how it carries heat, and what becomes of it. */
function OwnFigures({ own, onChange }: { own: Own; onChange: (own: Own) => ReturnType<Keep> }) {
  const figure = (label: string, key: "conductivity" | "density" | "heat_capacity" | "harm_c", needed = true) => (
    <FigureField
      label={label}
      width="6.5em"
      needed={needed}
      value={own[key]}
      onCommit={(value) => onChange({ ...own, [key]: value })}
    />
  );
  return (
    <Figures role="group" aria-label={`Figures of ${own.name}`}>
      <CommitField label="Called" width="9em" value={own.name} onCommit={(name) => onChange({ ...own, name })} />
      {figure("W/(m·K)", "conductivity")}
      {figure("kg/m³", "density")}
      {figure("J/(kg·K)", "heat_capacity")}
      <CommitField
        label="Opens from – to, °C"
        width="9em"
        value={own.softens_c?.join(" – ") ?? ""}
        onCommit={(typed) => {
          const [low, high] = typed
            .split(/[–\s]+|-/)
            .filter(Boolean)
            .map(Number);
          if (low === undefined) return onChange({ ...own, softens_c: null });
          const ends = [low, high ?? low];
          return ends.every(Number.isFinite)
            ? onChange({ ...own, softens_c: ends })
            : Promise.resolve({ ok: false as const, problem: refusal("Write two temperatures, such as 60 – 80.") });
        }}
      />
      {figure("Harmed from, °C", "harm_c", false)}
    </Figures>
  );
}

function Slides(props: {
  heating: Heating;
  source: SeamsView["sources"][number] | undefined;
  onTry: (heating: Heating) => void;
  onKeep: (heating: Heating) => Promise<unknown>;
}) {
  const { heating, source } = props;
  const one = (value: number | number[]) => (Array.isArray(value) ? (value[0] ?? 0) : value);
  return (
    <Slides_>
      <Slide
        minValue={source?.low_c ?? 50}
        maxValue={source?.high_c ?? 150}
        step={1}
        value={heating.setting_c}
        onChange={(v) => props.onTry({ ...heating, setting_c: one(v) })}
        onChangeEnd={(v) => void props.onKeep({ ...heating, setting_c: one(v) })}
      >
        <Label>{source?.blows ? "Air at the nozzle" : "Set to"}</Label>
        <SliderOutput>{`${heating.setting_c} °C · ${Math.round(heating.setting_c * 1.8 + 32)} °F`}</SliderOutput>
        <Track>
          <Thumb />
        </Track>
      </Slide>
      <Slide
        minValue={SECONDS[0]}
        maxValue={Math.max(SECONDS[1], heating.seconds)}
        step={5}
        value={heating.seconds}
        onChange={(v) => props.onTry({ ...heating, seconds: one(v) })}
        onChangeEnd={(v) => void props.onKeep({ ...heating, seconds: one(v) })}
      >
        <Label>For</Label>
        <SliderOutput>{duration(heating.seconds)}</SliderOutput>
        <Track>
          <Thumb />
        </Track>
      </Slide>
    </Slides_>
  );
}

/** What would do, and the press that makes it the step's setting. */
type AdviceProps = { row: SeamRow; heating: Heating; worked: HeatAnswer; onKeep: Keep };

function Advice(props: AdviceProps) {
  const { view, edit } = useManual();
  const { row, heating, worked } = props;
  const { recommended } = worked.plan;
  const told = Object.values(view.manual.heats).find((h) => h.step === row.step);
  const into = async () => {
    const id = told?.id ?? newId();
    if (!told && !(await edit({ heat: { add: { id, step: row.step } } })).ok) return;
    await edit({ heat: { set: { id, field: { temp_c: [heating.setting_c, heating.setting_c] } } } });
    await edit({ heat: { set: { id, field: { dwell_s: [heating.seconds, heating.seconds] } } } });
    await edit({ heat: { set: { id, field: { from: "computed" } } } });
  };
  const Write = worked.judged.verdict === "does" ? PrimaryButton : Button;
  const same = recommended && recommended.setting_c === heating.setting_c && recommended.seconds === heating.seconds;
  return (
    <Row style={{ alignItems: "center" }}>
      {recommended && !same && (
        <Button onPress={() => void props.onKeep({ ...heating, ...recommended })}>
          Mildest that surely does: {recommended.setting_c} °C, {duration(recommended.seconds)}
        </Button>
      )}
      {worked.advice.length > 0 && (
        <ul>
          {worked.advice.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
      )}
      {worked.reheating && <Muted>{worked.reheating}</Muted>}
      {worked.judged.verdict !== "useless" && worked.judged.verdict !== "harms" && (
        <Write onPress={() => void into()}>Write it into step {row.step_number}</Write>
      )}
    </Row>
  );
}

/** Another way to part the bond, with what it harms; its rescue can be put into the step. */
function OtherWay({ row, way }: { row: SeamRow; way: HeatAnswer["ways"][number] }) {
  const { view, edit } = useManual();
  const step = view.manual.steps[row.step];
  const { rescue } = way;
  const known = step?.branches.some((b) => b.condition === rescue?.condition);
  return (
    <More title={`Another way: ${way.name.toLowerCase()}`}>
      <p>{way.says}</p>
      <ul className="plain">
        {way.harms.map((harm) => (
          <li key={harm}>{harm}</li>
        ))}
      </ul>
      {rescue && (
        <p>
          <i>{rescue.condition}:</i> {rescue.advice}
        </p>
      )}
      {rescue && step && !known && (
        <Button
          onPress={() => {
            const branches = [...step.branches, { ...rescue, tools: [], resume: step.id }];
            void edit({ step: { set: { id: step.id, field: { branches } } } });
          }}
        >
          Put that into step {row.step_number}
        </Button>
      )}
      <Muted>Source: {way.source}.</Muted>
    </More>
  );
}
