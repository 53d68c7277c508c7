/** Buttons, fields and small marks that every stop uses. */
import { Check as CheckMark, ChevronDown, ChevronRight } from "lucide-react";
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import {
  Button as AriaButton,
  Heading as AriaHeading,
  Label as AriaLabel,
  Select as AriaSelect,
  type ButtonProps,
  Checkbox,
  Disclosure,
  DisclosurePanel,
  ListBox,
  ListBoxItem,
  Popover,
  SelectValue,
  Tab,
  TabList,
  Tabs,
} from "react-aria-components";
import styled, { css } from "styled-components";
import { type Problem, sentence } from "../api/client";
import type { Result } from "../api/outbox";
import { focusRing, font, space } from "../theme";

const pressable = css`
  border: 1px solid var(--strong-line);
  border-radius: 6px;
  background: var(--sheet);
  padding: 5px 12px;
  cursor: pointer;
  display: inline-flex;
  gap: 7px;
  align-items: center;
  white-space: nowrap;
  &[data-hovered] { background: var(--accent-wash); }
  &[data-pressed] { background: var(--sunk); }
  &[data-focus-visible] { ${focusRing} }
  &[data-disabled] { color: var(--soft); border-color: var(--line); cursor: default; }
`;

export const Button = styled(AriaButton)`${pressable}`;

export const PrimaryButton = styled(AriaButton)`
  ${pressable}
  background: var(--accent);
  border-color: var(--accent);
  color: var(--on-accent);
  font-weight: 600;
  justify-content: center;
  &[data-hovered] { background: var(--accent); filter: brightness(1.12); }
  &[data-disabled] { background: var(--sunk); color: var(--soft); border-color: var(--line); }
`;

/** A button that is only its icon; its name is for those who cannot see it. */
export const IconButton = styled(AriaButton)<ButtonProps & { "aria-label": string }>`
  ${pressable}
  padding: 5px;
  background: none;
  &, &[data-disabled] { border-color: transparent; }
  &[data-disabled] { opacity: 0.6; }
`;

export const Muted = styled.p`
  color: var(--soft);
  font-size: 0.94rem;
`;

export const Key = styled.kbd`
  font: 600 0.78rem ${font.plain};
  border: 1px solid var(--strong-line);
  border-bottom-width: 2px;
  border-radius: 4px;
  padding: 0 5px;
  background: var(--sheet);
  color: var(--soft);
`;

export const ErrorNote = styled.p.attrs({ role: "alert" })`
  color: var(--danger);
  background: var(--danger-wash);
  border-left: 4px solid var(--danger);
  padding: 6px 10px;
  font-size: 0.94rem;
`;

const written = css`
  width: 100%;
  border: 1px solid var(--strong-line);
  border-radius: 5px;
  background: var(--sheet);
  padding: 5px 8px;
`;
const Input = styled.input`${written}`;
const Area = styled.textarea`${written}`;
const FieldBox = styled.div`
  display: grid;
  gap: ${space.hair};
  & > label { font-size: 0.86rem; color: var(--soft); }
`;

type FieldProps = {
  label: string;
  value: string;
  /** Sends what was typed; a refusal is shown at the field and what was typed stays. */
  onCommit: (value: string) => Promise<Result> | undefined;
  multiline?: boolean;
  autoFocus?: boolean;
  /** Figures are typed: a narrow keyboard on a screen without keys. */
  figures?: boolean;
  hideLabel?: boolean;
  onDone?: () => void;
  width?: string;
  /** It was left with nothing new in it. */
  onLeft?: () => void;
  /** Keys of one's own, before the field's: says whether it took the key. */
  onKey?: (event: React.KeyboardEvent, field: Writing) => boolean;
};

/** A field while somebody writes in it. */
export type Writing = {
  typed: string;
  /** Where the cursor stands, in characters; -1 while something is marked. */
  at: number;
  /** Shows these words from now on and commits them. */
  commit: (typed: string) => Promise<boolean>;
};

/**
 * A field that commits when it is left or Enter is pressed; Escape puts the old text back, and goes on to what holds the
 * field where nothing was typed. Going away with it half typed
 * commits it as well: it is kept, and sent or offered again.
 */
export function CommitField({
  label,
  value,
  onCommit,
  multiline,
  autoFocus,
  figures,
  hideLabel,
  onDone,
  width,
  onLeft,
  onKey,
}: FieldProps) {
  const [typed, setTyped] = useState(value);
  const [wrong, setWrong] = useState<string | null>(null);
  const id = useId();
  const input = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const committed = useRef(value);
  /** What was sent last and may still be under way. */
  const sent = useRef(value);
  /** What was sent and is not taken yet, or was refused: the view showing it for a moment must not make it the old text. */
  const held = useRef<string | null>(null);
  const latest = useRef(() => {});

  useEffect(() => {
    // A change from elsewhere shows unless something else is being typed.
    setTyped((now) => (now === committed.current && now !== held.current ? value : now));
    committed.current = value;
  }, [value]);
  useEffect(() => {
    if (autoFocus) input.current?.select();
  }, [autoFocus]);
  useEffect(() => {
    // The sentence may stand below the edge of the page.
    if (wrong) document.getElementById(`${id}-wrong`)?.scrollIntoView({ block: "nearest" });
  }, [wrong, id]);

  const commit = async (words = typed) => {
    if (words === committed.current) {
      setWrong(null);
      return true;
    }
    sent.current = words;
    held.current = words;
    const result = await onCommit(words);
    if (!result || result.ok) held.current = null;
    if (result && !result.ok && input.current) {
      setWrong(result.problem.detail);
      result.seen?.();
    } else setWrong(null);
    return result?.ok ?? true;
  };
  latest.current = () => {
    if (typed !== committed.current && typed !== sent.current) void commit();
  };
  useEffect(() => {
    const leave = () => latest.current();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, []);
  const shared = {
    id,
    ref: input,
    value: typed,
    "aria-invalid": wrong !== null,
    "aria-describedby": wrong ? `${id}-wrong` : undefined,
    onChange: (event: { target: { value: string } }) => setTyped(event.target.value),
    onBlur: () => {
      if (typed === committed.current) onLeft?.();
      void commit();
    },
    onKeyDown: (event: React.KeyboardEvent) => {
      const written = event.key === "Escape" && typed !== committed.current;
      if (event.key !== "Escape" || written || onDone) event.stopPropagation();
      if (event.key === "Escape") {
        setTyped(committed.current);
        sent.current = typed;
        setWrong(null);
        onDone?.();
      }
      const { selectionStart: at, selectionEnd: end } = event.currentTarget as HTMLTextAreaElement;
      const writing = {
        typed,
        at: at === end ? Array.from(typed.slice(0, at ?? 0)).length : -1,
        commit: (words: string) => {
          setTyped(words);
          return commit(words);
        },
      };
      if (onKey?.(event, writing)) {
        event.preventDefault();
        return;
      }
      if (event.key === "Enter" && (!multiline || event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        void commit().then((ok) => ok && onDone?.());
      }
    },
  };
  return (
    <FieldBox style={{ width }}>
      <label htmlFor={id} hidden={hideLabel}>
        {label}
      </label>
      {multiline ? (
        <Area {...shared} rows={Math.max(2, Math.ceil(typed.length / 80))} aria-label={hideLabel ? label : undefined} />
      ) : (
        <Input {...shared} inputMode={figures ? "decimal" : undefined} aria-label={hideLabel ? label : undefined} />
      )}
      {wrong && <ErrorNote id={`${id}-wrong`}>{wrong}</ErrorNote>}
    </FieldBox>
  );
}

type FigureProps = Omit<FieldProps, "value" | "onCommit" | "figures"> & {
  value: number | null | undefined;
  /** Things that are counted: no halves. */
  whole?: boolean;
  /** It cannot be left empty. */
  needed?: boolean;
  onCommit: (value: number | null) => Promise<Result> | undefined;
};

/** A field for one figure, or none. What is no figure never leaves it: the sentence stands at the field. */
export function FigureField({ value, whole, needed, onCommit, ...field }: FigureProps) {
  const send = (typed: string) => {
    const figure = typed.trim() === "" ? null : Number(typed.trim().replace(",", "."));
    const missing = needed ? noFigure("nothing", Number.NaN, whole) : null;
    const wrong = figure === null ? missing : noFigure(typed, figure, whole);
    return wrong === null ? onCommit(figure) : Promise.resolve<Result>({ ok: false, problem: refusal(wrong) });
  };
  return <CommitField {...field} figures value={value == null ? "" : `${value}`} onCommit={send} />;
}

/** What is wrong with what was typed as a figure, if anything. */
export function noFigure(typed: string, figure: number, whole: boolean | undefined): string | null {
  if (!Number.isFinite(figure)) return `“${typed}” is no figure. Write one such as ${whole ? "4" : "6 or 4.5"}.`;
  if (whole && figure < 0) return "A count is 0 or more.";
  if (whole && !Number.isInteger(figure)) return `${typed} cannot be counted. Write a whole number such as 4.`;
  return null;
}

/** What cannot even be sent is told the way the server tells it. */
export const refusal = (detail: string): Problem => ({
  type: "urn:paso:problem:invalid",
  title: "Not accepted",
  status: 422,
  detail,
});

const Pick = styled(AriaSelect)`
  display: grid;
  gap: ${space.hair};
`;
const PickLabel = styled(AriaLabel)`
  font-size: 0.86rem;
  color: var(--soft);
`;
const Chosen = styled(AriaButton)`
  ${written}
  width: auto;
  min-width: 5.5em;
  max-width: 26em;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 7px;
  cursor: pointer;
  text-align: left;
  & > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  & > svg { flex: none; color: var(--soft); }
  &[data-hovered] { background: var(--accent-wash); }
  &[data-focus-visible] { ${focusRing} }
`;
export const Choices = styled(ListBox)`
  max-height: min(340px, 60vh);
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--strong-line);
  border-radius: 6px;
  box-shadow: 0 6px 18px var(--shade);
  padding: 4px;
  outline: none;
`;
export const ChoiceItem = styled(ListBoxItem)`
  padding: 4px 9px;
  border-radius: 4px;
  cursor: default;
  max-width: 40em;
  &[data-hovered], &[data-focused] { background: var(--accent-wash); }
  &[data-selected] { font-weight: 650; }
  &[data-focus-visible] { ${focusRing} outline-offset: -3px; }
`;

/** An option without a value needs a key all the same. */
const NONE = "(none)";

/** A choice of few. */
export function Select<T extends string>(props: {
  label: string;
  value: T | "";
  options: [T | "", string][];
  onChange: (value: T | "") => void;
  hideLabel?: boolean;
}) {
  const { label, value, options, onChange, hideLabel } = props;
  return (
    <Pick
      aria-label={hideLabel ? label : undefined}
      value={value === "" ? NONE : value}
      onChange={(key) => key !== null && onChange(key === NONE ? "" : (key as T))}
    >
      {!hideLabel && <PickLabel>{label}</PickLabel>}
      <Chosen data-field={label}>
        <SelectValue>{options.find(([key]) => key === value)?.[1] ?? ""}</SelectValue>
        <ChevronDown size={15} aria-hidden />
      </Chosen>
      <Popover>
        <Choices>
          {options.map(([key, name]) => (
            <ChoiceItem key={key || NONE} id={key || NONE} textValue={name}>
              {name}
            </ChoiceItem>
          ))}
        </Choices>
      </Popover>
    </Pick>
  );
}

const Tick = styled(Checkbox)`
  display: inline-flex;
  align-items: center;
  gap: 7px;
  cursor: pointer;
  padding: 4px 0;
  & > span {
    width: 18px;
    height: 18px;
    flex: none;
    display: grid;
    place-items: center;
    border: 1.5px solid var(--strong-line);
    border-radius: 4px;
    background: var(--sheet);
    color: var(--on-accent);
  }
  &[data-selected] > span { background: var(--accent); border-color: var(--accent); }
  &[data-focus-visible] > span { ${focusRing} }
  &[data-disabled] { color: var(--soft); cursor: default; }
`;

/** Yes or no; without words beside it, `name` says what for. */
export function Check(props: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children?: ReactNode;
  name?: string;
}) {
  return (
    <Tick isSelected={props.checked} onChange={props.onChange} aria-label={props.name}>
      {({ isSelected }) => (
        <>
          <span>{isSelected && <CheckMark size={14} strokeWidth={3.2} aria-hidden />}</span>
          {props.children}
        </>
      )}
    </Tick>
  );
}

/** Which of several hold; none ticked means what the caller says it means. */
export function Checks(props: {
  label: string;
  words: string;
  options: [string, string][];
  chosen: string[];
  onChange: (next: string[]) => void;
}) {
  return (
    <Group aria-label={props.label}>
      <Muted as="span">{props.words}</Muted>
      {props.options.map(([id, name]) => (
        <Check
          key={id}
          checked={props.chosen.includes(id)}
          onChange={(on) => props.onChange(on ? [...props.chosen, id] : props.chosen.filter((c) => c !== id))}
        >
          {name}
        </Check>
      ))}
    </Group>
  );
}
const Group = styled.div.attrs({ role: "group" })`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.hair} ${space.normal};
  align-items: center;
`;

const Fold = styled(Disclosure)`
  & > h3 { margin: 0; font: inherit; }
`;
const FoldButton = styled(AriaButton)`
  all: unset;
  cursor: pointer;
  display: inline-flex;
  gap: 6px;
  align-items: baseline;
  padding: ${space.hair} 0;
  font-weight: 650;
  & > svg { flex: none; align-self: center; color: var(--soft); transition: transform 0.12s; }
  &[aria-expanded="true"] > svg { transform: rotate(90deg); }
  &[data-focus-visible] { ${focusRing} }
`;

/** Something that most pass by: its title, and the rest behind a press. */
export function More({ title, children }: { title: ReactNode; children: ReactNode }) {
  return (
    <Fold>
      {({ isExpanded }) => (
        <>
          <AriaHeading level={4} style={{ margin: 0, font: "inherit" }}>
            <FoldButton slot="trigger">
              <ChevronRight size={15} aria-hidden />
              <span>{title}</span>
            </FoldButton>
          </AriaHeading>
          <DisclosurePanel>{isExpanded ? children : null}</DisclosurePanel>
        </>
      )}
    </Fold>
  );
}

/** Panels beside each other of which one shows. */
export const Panels = styled(Tabs)`
  &[data-focus-visible] { outline: none; }
`;
export const PanelList = styled(TabList)`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.hair};
  border-bottom: 1px solid var(--line);
`;
export const PanelName = styled(Tab)`
  padding: 5px 14px;
  cursor: pointer;
  color: var(--soft);
  border-bottom: 3px solid transparent;
  &[data-selected] { color: inherit; font-weight: 650; border-color: var(--accent); }
  &[data-focus-visible] { ${focusRing} }
`;

/** A field of a form that is sent as a whole; what was refused is told below it. */
export function Typed(props: {
  label: string;
  value: string;
  width: string;
  onChange: (typed: string) => void;
  wrong?: string | null;
  autoFocus?: boolean;
}) {
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (props.autoFocus) input.current?.focus();
  }, [props.autoFocus]);
  return (
    <FieldBox style={{ width: props.width }}>
      <label htmlFor={id}>{props.label}</label>
      <Input
        id={id}
        ref={input}
        value={props.value}
        aria-invalid={props.wrong ? true : undefined}
        aria-describedby={props.wrong ? `${id}-wrong` : undefined}
        onKeyDown={(event) => event.stopPropagation()}
        onChange={(event) => props.onChange(event.target.value)}
      />
      {props.wrong && <ErrorNote id={`${id}-wrong`}>{props.wrong}</ErrorNote>}
    </FieldBox>
  );
}

export const TextInput = Input;
export const TextArea = Area;

/** Heading of a column or a section. */
export const Heading = styled.h2`
  font: 650 1.05rem ${font.plain};
  margin-bottom: ${space.small};
`;

/** In place of what has not come yet: why not, or that it is on its way. */
export function Pending({ error, children }: { error: unknown; children: ReactNode }) {
  return error ? <ErrorNote>{sentence(error)}</ErrorNote> : <Waiting>{children}</Waiting>;
}

export function Waiting({ children }: { children: ReactNode }) {
  return (
    <Muted as="span" role="status">
      {children}
    </Muted>
  );
}
