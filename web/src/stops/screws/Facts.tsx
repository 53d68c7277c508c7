/** What is known of a group besides its torque: counts and who claims them, head, store, fate, what it holds. */
import { Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { type Drive, type FastenerGroup, type GroupRow, newId, type ScrewsView } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import {
  Button,
  Check,
  CommitField,
  ErrorNote,
  FigureField,
  Heading,
  More,
  Muted,
  Select,
  Typed,
} from "../../parts/controls";
import { options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { usePlace } from "../../parts/place";
import { space } from "../../theme";
import { useSetGroup, written } from "./set";

const Box = styled.section`
  display: grid;
  gap: ${space.small};
`;

/** Whether a link has led here for the count of this group; said once, so that whoever walks on keeps the focus. */
function useAsksCount(group: string): boolean {
  const [place, go] = usePlace();
  const asks = place("field") === "count" && place("group") === group;
  useEffect(() => {
    if (asks) go({ field: null });
  }, [asks, go]);
  return asks;
}

type Props = { group: FastenerGroup; about: GroupRow; screws: ScrewsView; onChoose: (group: string | null) => void };

export function Facts({ group, about, screws, onChoose }: Props) {
  const { view, edit } = useManual();
  const set = useSetGroup(group.id);
  const asksCount = useAsksCount(group.id);
  const parts = Object.values(view.manual.parts).sort((a, b) => a.name.localeCompare(b.name));
  const partOptions = parts.map((p): [string, string] => [p.id, p.name]);
  return (
    <Box aria-label="The screws of this group">
      <Heading as="h3">The screws</Heading>
      <Row>
        <CommitField
          label="Name of the group"
          width="13em"
          value={group.name ?? ""}
          onCommit={(t) => set({ name: written(t) })}
        />
        <FigureField
          label="Count"
          whole
          width="5em"
          value={group.count}
          autoFocus={asksCount}
          onCommit={(count) => set({ count })}
        />
        <FigureField
          label="Put back"
          whole
          width="5em"
          value={group.refitted}
          onCommit={(refitted) => set({ refitted })}
        />
        <FigureField
          label="Holes empty on arrival"
          whole
          width="9em"
          value={group.empty_on_arrival ?? 0}
          onCommit={(holes) => set({ empty_on_arrival: holes ?? 0 })}
        />
      </Row>
      {about.claims && <Muted>Counted: {about.claims}.</Muted>}
      <Row>
        <Select<Drive>
          label="Drive"
          value={group.drive ?? ""}
          options={[["", "not known"], ...options(labels.Drive)]}
          onChange={(drive) => void set({ drive: drive || null })}
        />
        <CommitField label="Bit" width="5em" value={group.bit ?? ""} onCommit={(t) => set({ bit: written(t) })} />
        <FigureField
          label="Length, mm"
          width="6em"
          value={group.length_mm}
          onCommit={(length_mm) => set({ length_mm })}
        />
        <Select
          label="Head"
          value={group.head ?? ""}
          options={[["", "not known"], ...options(labels.HeadForm)]}
          onChange={(head) => void set({ head: head || null })}
        />
        <FigureField label="Head ⌀, mm" width="6em" value={group.head_mm} onCommit={(head_mm) => set({ head_mm })} />
        <Check checked={group.captive} onChange={(captive) => void set({ captive })}>
          captive
        </Check>
      </Row>
      <BitWords about={about} />
      <Row>
        <Select
          label="Holds"
          value={group.holds[0] ?? ""}
          options={[["", "–"], ...partOptions]}
          onChange={(part) =>
            void set({ holds: part ? [part, ...group.holds.slice(1).filter((p) => p !== part)] : [] })
          }
        />
        {group.holds[0] && (
          <Select
            label="and also"
            value={group.holds[1] ?? ""}
            options={[["", "nothing else"], ...partOptions.filter(([id]) => id !== group.holds[0])]}
            onChange={(part) => void set({ holds: part ? [group.holds[0] ?? "", part] : group.holds.slice(0, 1) })}
          />
        )}
        <Select
          label="Driven only when back"
          value={group.waits_for ?? ""}
          options={[["", "no other part"], ...partOptions.map(([id, name]): [string, string] => [id, `the ${name}`])]}
          onChange={(part) => void set({ waits_for: part || null })}
        />
        <Select
          label="Kept"
          value={group.stored ?? ""}
          options={[["", "not told"], ...options(labels.Stored)]}
          onChange={(stored) => void set({ stored: stored || null })}
        />
        <Select
          label="At the rebuild"
          value={group.fate}
          options={options(labels.FastenerFate)}
          onChange={(fate) => fate !== "" && void set({ fate })}
        />
        <Select
          label="Kept from turning by"
          value={group.locking ?? ""}
          options={[["", "nothing"], ...options(labels.Locking)]}
          onChange={(locking) => void set({ locking: locking || null })}
        />
      </Row>
      <Moving key={group.id} group={group} screws={screws} onChoose={onChoose} />
      <Row>
        <Button
          onPress={() =>
            void edit({ fastener: { remove: { id: group.id } } }).then((r) => {
              if (r.ok) onChoose(null);
            })
          }
        >
          <Trash2 size={15} aria-hidden /> Remove this group
        </Button>
      </Row>
    </Box>
  );
}

/** Which bit fits, and which only seems to. */
function BitWords({ about }: { about: GroupRow }) {
  const { usual, unusual, security, wrong } = about.bit;
  return (
    <div>
      {usual.length > 0 && (
        <Muted>
          Usual for this thread: {usual.join(" or ")}.{unusual && " The bit above is none of them."}
        </Muted>
      )}
      {security && <Muted>This drive is not in every box of bits: name it in the list of tools.</Muted>}
      {wrong.length > 0 && (
        <More title="Bits that seem to fit, and do not">
          <ul>
            {wrong.map((w) => (
              <li key={w.bit}>
                {w.bit}: {w.does}.
              </li>
            ))}
          </ul>
        </More>
      )}
    </div>
  );
}

/** Parting a group, and moving screws into another one. */
function Moving({ group, screws, onChoose }: Omit<Props, "about">) {
  const { edit } = useManual();
  const [count, setCount] = useState("");
  const [holes, setHoles] = useState("");
  const [to, setTo] = useState("");
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const others = screws.ledger.rows.filter((r) => r.group !== group.id);
  const go = async () => {
    const n = Number(count);
    if (!Number.isInteger(n) || n < 0 || count.trim() === "")
      return setWrong("Write how many screws go, as a whole number.");
    const numbers = holes
      .split(/[^0-9]+/)
      .filter(Boolean)
      .map(Number);
    const new_id = newId();
    const result = await edit(
      to === ""
        ? { fastener: { split: { id: group.id, new_id, count: n, holes: numbers, name } } }
        : { fastener: { shift: { from: group.id, to, count: n, holes: numbers } } },
    );
    setWrong(result.ok ? null : result.problem.detail);
    if (result.ok) onChoose(to === "" ? new_id : to);
  };
  const field = (label: string, value: string, set: (typed: string) => void, width: string) => (
    <Typed label={label} width={width} value={value} onChange={set} />
  );
  return (
    <More title="Part this group, or move screws to another">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
      >
        <Row>
          {field("How many", count, setCount, "5em")}
          {field("Their holes, by number", holes, setHoles, "9em")}
          <Select
            label="Go to"
            value={to}
            options={[
              ["", "a new group"],
              ...others.map((r): [string, string] => [r.group, `${r.tag.letter}: ${r.label}`]),
            ]}
            onChange={setTo}
          />
          {to === "" && field("Its name", name, setName, "11em")}
          <Button type="submit">Move them</Button>
        </Row>
        {wrong && <ErrorNote>{wrong}</ErrorNote>}
      </form>
    </More>
  );
}
