/** A step opened for putting right, in its place on the page. */
import { Plus, Trash2 } from "lucide-react";
import styled from "styled-components";
import { type Consumable, type Edit, newId, type Step, type ToolChoice } from "../../api/client";
import { useManual } from "../../api/manual";
import type { Result } from "../../api/outbox";
import { labels } from "../../api/tables";
import {
  Button,
  Check,
  Checks,
  CommitField,
  FigureField,
  IconButton,
  PrimaryButton,
  Select,
} from "../../parts/controls";
import { listOf, options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { space } from "../../theme";
import { HeatFields, PlugFields, ScrewFields } from "./Hanging";
import { OnlyFor } from "./Notes";
import { Sentences } from "./Sentences";

const Form = styled.div`
  grid-column: 3 / -1;
  display: grid;
  gap: ${space.small};
`;
const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: ${space.small};
  align-items: start;
`;

export function StepEditor({
  step,
  previous,
  at,
  onClose,
}: {
  step: Step;
  previous: string | undefined;
  /** The sentence that was meant, or a new one (`WRITE_ON`); `null`: the step, from its title on. */
  at: string | null;
  onClose: () => void;
}) {
  const { view, edit } = useManual();
  const { manual } = view;
  const { id } = step;
  const set = (field: Extract<Extract<Edit, { step: unknown }>["step"], { set: unknown }>["set"]["field"]) =>
    edit({ step: { set: { id, field } } });
  const groups = Object.values(manual.fasteners).filter((g) => g.step === id);
  const heats = Object.values(manual.heats).filter((h) => h.step === id);
  const plugs = Object.values(manual.connectors).filter((c) => c.step === id);
  const cautions = Object.values(manual.cautions).filter((c) => c.step === id);
  const closeAfter = (sent: Promise<{ ok: boolean }>) => void sent.then((r) => r.ok && onClose());

  return (
    <Form
      role="group"
      aria-label={`Edit ${step.title}`}
      onKeyDown={(event) => {
        if (event.key !== "Escape" || event.defaultPrevented) return;
        event.stopPropagation();
        onClose();
      }}
    >
      <CommitField
        label="Title"
        value={step.title}
        onCommit={(title) => set({ title })}
        autoFocus={at === null}
        onDone={onClose}
      />
      <CommitField
        label="A stage begins here; empty: the one before goes on"
        width="26em"
        value={step.stage ?? ""}
        onCommit={(stage) => set({ stage: stage.trim() || null })}
      />
      <Sentences step={step} at={at} onDone={onClose} />
      <Row>
        <Button onPress={() => void edit({ fastener: { add: { id: newId(), step: id } } })}>
          <Plus size={15} aria-hidden /> Add screws
        </Button>
        <Button onPress={() => void edit({ heat: { add: { id: newId(), step: id } } })}>
          <Plus size={15} aria-hidden /> Add heat
        </Button>
        <Button onPress={() => void edit({ connector: { add: { id: newId(), step: id } } })}>
          <Plus size={15} aria-hidden /> Add a plug
        </Button>
        <Button
          onPress={() =>
            void edit({ caution: { add: { id: newId(), step: id, about: "other", text: "New caution." } } })
          }
        >
          <Plus size={15} aria-hidden /> Add a caution
        </Button>
      </Row>
      {cautions.map((c) => (
        <Line key={c.id}>
          <CommitField
            label="Caution"
            value={c.text}
            multiline
            onCommit={(text) => edit({ caution: { set: { id: c.id, field: { text } } } })}
          />
          <Select
            label="About"
            value={c.about}
            options={options(labels.CautionSubject)}
            onChange={(about) => about !== "" && void edit({ caution: { set: { id: c.id, field: { about } } } })}
          />
          <Select
            label="Hazard"
            value={c.hazard ?? ""}
            options={[["", "as it is told"], ...options(labels.Hazard)]}
            onChange={(hazard) => void edit({ caution: { set: { id: c.id, field: { hazard: hazard || null } } } })}
          />
          <Select
            label="Signal word"
            value={c.level ?? ""}
            options={[["", "by who is hurt"], ...options(labels.Level)]}
            onChange={(level) => void edit({ caution: { set: { id: c.id, field: { level: level || null } } } })}
          />
          <IconButton aria-label="Remove this caution" onPress={() => void edit({ caution: { remove: { id: c.id } } })}>
            <Trash2 size={16} />
          </IconButton>
        </Line>
      ))}
      {groups.map((g) => (
        <ScrewFields key={g.id} group={g} />
      ))}
      {plugs.map((c) => (
        <PlugFields key={c.id} plug={c} />
      ))}
      {heats.map((h) => (
        <HeatFields key={h.id} heat={h} />
      ))}
      <CommitField
        label="Tools, parted by commas"
        value={step.tools.join(", ")}
        onCommit={(text) => set({ tools: listOf(text) })}
      />
      <Checks
        label="Materials used in this step"
        words="materials"
        options={options(labels.Consumable)}
        chosen={step.consumables}
        onChange={(consumables) => void set({ consumables: consumables as Consumable[] })}
      />
      {[...(step.choices ?? []), null].map((choice, i) => (
        <ChoiceFields
          // biome-ignore lint/suspicious/noArrayIndexKey: a choice is told by its place alone
          key={i}
          choice={choice}
          onChange={(next) => {
            const rest = step.choices ?? [];
            const others = choice
              ? rest.flatMap((c, n) => (n === i ? (next ?? []) : c))
              : next
                ? [...rest, next]
                : rest;
            return set({ choices: others });
          }}
        />
      ))}
      <OnlyFor of={step.title} chosen={step.variants} onChange={(variants) => void set({ variants })} />
      <Row>
        <FigureField
          label="Seconds, practised; empty for the estimate"
          width="20em"
          value={step.time_s}
          onCommit={(time_s) => set({ time_s })}
        />
        <Select
          label="How the device lies"
          value={step.posture ?? ""}
          options={[["", "as before"], ...options(labels.Posture)]}
          onChange={(posture) => void set({ posture: posture === "" ? null : posture })}
        />
        <Check checked={step.trial ?? false} onChange={(trial) => void set({ trial })}>
          only a trial
        </Check>
        <Button
          onPress={() =>
            void set({
              branches: [...step.branches, { condition: "If it resists", advice: "Stop.", tools: [], resume: null }],
            })
          }
        >
          <Plus size={15} aria-hidden /> Add an “if”
        </Button>
      </Row>
      {step.branches.map((branch, i) => (
        <BranchFields
          // biome-ignore lint/suspicious/noArrayIndexKey: a branch is told by its place alone
          key={i}
          branch={branch}
          steps={view.order.flatMap((s, n) => (s === id ? [] : [[s, `${n + 1}. ${manual.steps[s]?.title}`]]))}
          onChange={(next) => set({ branches: step.branches.flatMap((b, n) => (n === i ? (next ?? []) : b)) })}
        />
      ))}
      <CommitField label="Note" value={step.note ?? ""} multiline onCommit={(note) => set({ note: note || null })} />
      <Parts step={step} />
      <Row>
        <PrimaryButton onPress={onClose}>Done</PrimaryButton>
        <Button onPress={() => void set({ reviewed: !step.reviewed })}>
          {step.reviewed ? "Not reviewed" : "Reviewed"}
        </Button>
        <Button
          isDisabled={!previous}
          onPress={() => previous && closeAfter(edit({ step: { merge: { id, into: previous } } }))}
        >
          Merge into the step above
        </Button>
        <Button onPress={() => void edit(twin(step))}>Duplicate the step</Button>
        <Button onPress={() => closeAfter(edit({ step: { remove: { id } } }))}>Remove the step</Button>
      </Row>
    </Form>
  );
}

/** A second step of the same sentences right behind; its screws and plugs stay with the first. */
const twin = (step: Step): Edit => ({
  step: {
    add: {
      id: newId(),
      phase: step.phase,
      after: step.id,
      title: `${step.title}, again`,
      actions: step.actions.map((a) => ({ ...a, id: newId() })),
    },
  },
});

/** Where any of several tools does; the last, empty one makes a new choice. */
function ChoiceFields(props: { choice: ToolChoice | null; onChange: (next: ToolChoice | null) => Promise<Result> }) {
  const { choice, onChange } = props;
  return (
    <Row role="group" aria-label={choice ? choice.any_of.join(" or ") : "Another choice of tools"}>
      <CommitField
        label="Any of these tools, parted by commas"
        width="20em"
        value={choice?.any_of.join(", ") ?? ""}
        onCommit={(text) => {
          const any_of = listOf(text);
          return onChange(any_of.length > 0 ? { why: null, ...choice, any_of, preferred: null } : null);
        }}
      />
      {choice && (
        <>
          <Select
            label="The best"
            value={choice.preferred ?? ""}
            options={[["", "none"], ...choice.any_of.map((t): [string, string] => [t, t])]}
            onChange={(best) => void onChange({ ...choice, preferred: best === "" ? null : best })}
          />
          <CommitField
            label="Why"
            width="16em"
            value={choice.why ?? ""}
            onCommit={(why) => onChange({ ...choice, why: why.trim() || null })}
          />
        </>
      )}
    </Row>
  );
}

/** What to do if something goes another way, with tools of its own and where it goes on. */
function BranchFields(props: {
  branch: Step["branches"][number];
  /** Where it may go on, by the numbers of the page. */
  steps: [string, string][];
  onChange: (next: Step["branches"][number] | null) => Promise<Result>;
}) {
  const { branch, steps, onChange } = props;
  return (
    <Row role="group" aria-label={branch.condition}>
      <CommitField
        label="If"
        value={branch.condition}
        onCommit={(condition) => onChange({ ...branch, condition })}
        width="16em"
      />
      <CommitField
        label="do this"
        value={branch.advice}
        onCommit={(advice) => onChange({ ...branch, advice })}
        width="20em"
      />
      <CommitField
        label="Tools for that"
        value={branch.tools.join(", ")}
        onCommit={(text) => onChange({ ...branch, tools: listOf(text) })}
        width="12em"
      />
      <Select
        label="then"
        value={branch.resume ?? ""}
        options={[["", "stop"], ...steps.map(([s, name]): [string, string] => [s, `go on at ${name}`])]}
        onChange={(resume) => void onChange({ ...branch, resume: resume === "" ? null : resume })}
      />
      <IconButton aria-label={`Remove: if ${branch.condition}`} onPress={() => void onChange(null)}>
        <Trash2 size={16} />
      </IconButton>
    </Row>
  );
}

/** The parts this step speaks of; a new name reaches every sentence of the manual. */
function Parts({ step }: { step: Step }) {
  const { view, edit } = useManual();
  const ids = [...new Set(step.actions.flatMap((a) => a.parts))];
  if (ids.length === 0) return null;
  return (
    <Row>
      {ids.map((id) => (
        <Row key={id}>
          <CommitField
            label="Part, renamed everywhere"
            width="14em"
            value={view.manual.parts[id]?.name ?? ""}
            onCommit={(name) => edit({ part: { rename: { id, name } } })}
          />
          <Select
            label={`Where the ${view.manual.parts[id]?.name ?? "part"} sits`}
            value={view.manual.parts[id]?.inside ?? ""}
            options={[
              ["", "in the device itself"],
              ...Object.values(view.manual.parts)
                .filter((p) => p.id !== id)
                .map((p): [string, string] => [p.id, `in the ${p.name}`]),
            ]}
            onChange={(inside) =>
              void edit({ part: { set: { id, field: { inside: inside === "" ? null : inside } } } })
            }
          />
        </Row>
      ))}
    </Row>
  );
}
