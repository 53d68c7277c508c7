/** Why a step stands where it stands: what it waits for, what waits for it, and the author's word on both. */
import { Check, Plus, X } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { type ChainRow, type ChainView, type ConditionRow, type Evidence, newId } from "../../api/client";
import { useManual } from "../../api/manual";
import { keys, labels } from "../../api/tables";
import { Button, ErrorNote, Heading, Muted, Select } from "../../parts/controls";
import { clock } from "../../parts/format";
import { Row } from "../../parts/layout";
import { focusRing, space } from "../../theme";

const List = styled.ul`
  display: grid;
  gap: ${space.small};
  margin-bottom: ${space.small};
`;
const Item = styled.li`
  display: grid;
  gap: ${space.hair};
  padding: ${space.small};
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
  p { font-size: 0.96rem; }
`;
const Said = styled.button`
  all: unset;
  cursor: pointer;
  color: var(--accent);
  text-decoration: underline;
  text-underline-offset: 3px;
  &:focus-visible { ${focusRing} }
`;
const Letter = styled.span`
  display: inline-grid;
  place-items: center;
  width: 22px;
  height: 22px;
  border: 1px solid var(--strong-line);
  border-radius: 50%;
  font-weight: 700;
  font-size: 0.84rem;
  margin-right: 6px;
`;

type Props = {
  step: ChainRow;
  chain: ChainView;
  onShow: (evidence: Evidence[]) => void;
  onChoose: (step: string) => void;
};

export function Why({ step, chain, onShow, onChoose }: Props) {
  const { edit } = useManual();
  const title = (id: string) => chain.steps.find((s) => s.step === id)?.title ?? "a step that is gone";
  const own = chain.conditions.filter((c) => c.step === step.step);
  const dropped = chain.dropped.filter((c) => c.step === step.step);
  const waiting = chain.conditions.filter((c) => c.drawn && c.ways.flat().includes(step.step));
  return (
    <section aria-label={`Why “${step.title}” stands here`}>
      <Heading as="h3">
        {step.number}. {step.title}
      </Heading>
      <Muted>
        {own.length === 0
          ? "It waits for nothing: it can be done first."
          : `It waits for ${own.length === 1 ? "this" : "these"}:`}
      </Muted>
      <List>
        {own.map((c) => (
          <One key={JSON.stringify(c.ways)} condition={c} title={title} onShow={onShow} />
        ))}
      </List>
      {dropped.length > 0 && (
        <List aria-label="Said not to hold">
          {dropped.map((c) => (
            <Item key={JSON.stringify(c.ways)}>
              <p>
                <s>{c.ways[0]?.map(title).join(" and ")}</s> – does not hold, as an author said.
              </p>
              <Row>
                <Button onPress={() => c.take_back && void edit(c.take_back)}>Take that back</Button>
              </Row>
            </Item>
          ))}
        </List>
      )}
      <AddCondition step={step} chain={chain} />
      {waiting.length > 0 && (
        <>
          <Muted>These wait for it:</Muted>
          <Row>
            {waiting.map((c) => (
              <Button key={c.step} onPress={() => onChoose(c.step)}>
                {title(c.step)}
              </Button>
            ))}
          </Row>
        </>
      )}
    </section>
  );
}

function One(props: { condition: ConditionRow; title: (id: string) => string; onShow: (e: Evidence[]) => void }) {
  const { condition: c, title } = props;
  const { edit } = useManual();
  const ways = c.ways.map((w) => w.map((s) => `“${title(s)}”`).join(" and "));
  const names = ways.join(" or ");
  const untrue = c.ways.length === 1 ? "Does not hold" : "Take it away";
  return (
    <Item>
      <p>
        <b>{c.ways.length > 1 ? `One of these: ${names}` : names}</b>
        {c.broken && " – but stands behind it now"}
      </p>
      {c.whys.map((w) => (
        <p key={w.because}>
          <Letter title={labels.Reason[w.reason]}>{keys.Reason[w.reason]}</Letter>
          {w.because}
          {!c.confirmed && `, ${w.percent} % sure`} <Seconds evidence={w.evidence} onShow={props.onShow} />
        </p>
      ))}
      <Row>
        {c.confirmed && (
          <Muted as="span">
            <Check size={14} aria-hidden /> confirmed
          </Muted>
        )}
        {c.confirm && (
          <Button onPress={() => c.confirm && void edit(c.confirm)} aria-label={`It holds: ${names}`}>
            <Check size={14} aria-hidden /> It holds
          </Button>
        )}
        {c.drop && (
          <Button onPress={() => c.drop && void edit(c.drop)} aria-label={`${untrue}: ${names}`}>
            <X size={14} aria-hidden /> {untrue}
          </Button>
        )}
      </Row>
    </Item>
  );
}

/** When it was said; pressing it lights the words up on the tape. */
function Seconds({ evidence, onShow }: { evidence: Evidence[]; onShow: (e: Evidence[]) => void }) {
  const first = evidence.find((e) => e.source === "recording" && e.from_ms != null);
  if (first?.source !== "recording" || first.from_ms == null) return null;
  return (
    <Said type="button" onClick={() => onShow(evidence)} aria-label={`Show where it was said, ${clock(first.from_ms)}`}>
      {clock(first.from_ms)}
    </Said>
  );
}

/** "It waits for …": one step, or one of several that will do. */
function AddCondition({ step, chain }: { step: ChainRow; chain: ChainView }) {
  const { edit } = useManual();
  const [ways, setWays] = useState<string[]>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const title = (id: string) => chain.steps.find((s) => s.step === id)?.title ?? "";
  const others = chain.steps.filter((s) => s.step !== step.step && !ways.includes(s.step));
  const add = async () => {
    const result = await edit({
      requirement: { add: { id: newId(), step: step.step, ways: ways.map((w) => [w]), because: "" } },
    });
    setWrong(result.ok ? null : result.problem.detail);
    if (result.ok) setWays([]);
  };
  return (
    <div data-add>
      <Row>
        <Select
          label={ways.length === 0 ? "It also waits for" : "or for"}
          value=""
          options={[["", "choose a step"], ...others.map((s): [string, string] => [s.step, `${s.number}. ${s.title}`])]}
          onChange={(id) => id !== "" && setWays([...ways, id])}
        />
        {ways.length > 0 && (
          <>
            <Button onPress={() => void add()}>
              <Plus size={14} aria-hidden /> {ways.length === 1 ? "Add this" : "One of these will do"}
            </Button>
            <Button onPress={() => setWays([])}>Cancel</Button>
          </>
        )}
      </Row>
      {ways.length > 0 && <Muted>{ways.map((w) => `“${title(w)}”`).join(" or ")}</Muted>}
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </div>
  );
}
