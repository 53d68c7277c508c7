/** Buttons, fields and small marks that every stop uses. */
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import styled, { css } from "styled-components";
import { sentence } from "../api/client";
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

export const Quiet = styled.p`
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

export const Wrong = styled.p.attrs({ role: "alert" })`
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
  type?: "text" | "number";
  hideLabel?: boolean;
  onDone?: () => void;
  width?: string;
};

/** A field that commits when it is left or Enter is pressed; Escape puts the old text back. */
export function CommitField({
  label,
  value,
  onCommit,
  multiline,
  autoFocus,
  type = "text",
  hideLabel,
  onDone,
  width,
}: FieldProps) {
  const [typed, setTyped] = useState(value);
  const [wrong, setWrong] = useState<string | null>(null);
  const id = useId();
  const input = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const committed = useRef(value);

  useEffect(() => {
    // A change from elsewhere shows unless something else is being typed.
    setTyped((now) => (now === committed.current ? value : now));
    committed.current = value;
  }, [value]);
  useEffect(() => {
    if (autoFocus) input.current?.select();
  }, [autoFocus]);

  const commit = async () => {
    if (typed === committed.current) {
      setWrong(null);
      return true;
    }
    const result = await onCommit(typed);
    setWrong(result && !result.ok ? result.problem.detail : null);
    return result?.ok ?? true;
  };
  const shared = {
    id,
    ref: input,
    value: typed,
    "aria-invalid": wrong !== null,
    "aria-describedby": wrong ? `${id}-wrong` : undefined,
    onChange: (event: { target: { value: string } }) => setTyped(event.target.value),
    onBlur: () => void commit(),
    onKeyDown: (event: React.KeyboardEvent) => {
      event.stopPropagation();
      if (event.key === "Escape") {
        setTyped(committed.current);
        setWrong(null);
        onDone?.();
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
        <Input {...shared} type={type} step="any" aria-label={hideLabel ? label : undefined} />
      )}
      {wrong && <Wrong id={`${id}-wrong`}>{wrong}</Wrong>}
    </FieldBox>
  );
}

const Choice = styled.select`
  border: 1px solid var(--strong-line);
  border-radius: 5px;
  background: var(--sheet);
  padding: 5px 6px;
  max-width: 100%;
`;

/** A plain choice of few. */
export function Select<T extends string>(props: {
  label: string;
  value: T | "";
  options: [T | "", string][];
  onChange: (value: T | "") => void;
  hideLabel?: boolean;
}) {
  const id = useId();
  return (
    <FieldBox>
      <label htmlFor={id} hidden={props.hideLabel}>
        {props.label}
      </label>
      <Choice
        id={id}
        aria-label={props.hideLabel ? props.label : undefined}
        value={props.value}
        onChange={(event) => props.onChange(event.target.value as T | "")}
        onKeyDown={(event) => event.stopPropagation()}
      >
        {props.options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </Choice>
    </FieldBox>
  );
}

/** A field of a form that is sent as a whole. */
export function Typed(props: { label: string; value: string; width: string; onChange: (typed: string) => void }) {
  const id = useId();
  return (
    <FieldBox style={{ width: props.width }}>
      <label htmlFor={id}>{props.label}</label>
      <Input id={id} value={props.value} onChange={(event) => props.onChange(event.target.value)} />
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
  return error ? <Wrong>{sentence(error)}</Wrong> : <Waiting>{children}</Waiting>;
}

export function Waiting({ children }: { children: ReactNode }) {
  return (
    <Quiet as="span" role="status">
      {children}
    </Quiet>
  );
}
