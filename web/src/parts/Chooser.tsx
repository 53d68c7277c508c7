/** A list to choose one thing from by pointer or arrows; what is chosen opens beside it. */
import { type ReactNode, useRef } from "react";
import { ListBox, ListBoxItem } from "react-aria-components";
import styled from "styled-components";
import { focusRing, space } from "../theme";
import { useInView } from "./place";

const List = styled(ListBox)`
  outline: none;
  display: grid;
  gap: 2px;
`;
const Item = styled(ListBoxItem)`
  padding: 6px ${space.small};
  border-left: 4px solid transparent;
  cursor: default;
  small { display: block; color: var(--soft); }
  &[data-hovered] { background: var(--sunk); }
  &[data-selected] { background: var(--accent-wash); border-left-color: var(--accent); }
  &[data-focus-visible] { ${focusRing} outline-offset: -3px; }
`;

/** One row: what it is called, and how it looks. */
export type Choice = { id: string; name: string; shown: ReactNode };

type Props = { label: string; rows: Choice[]; chosen: string | null; onChoose: (id: string) => void };

export function Chooser({ label, rows, chosen, onChoose }: Props) {
  const list = useRef<HTMLDivElement>(null);
  useInView(list, chosen);
  return (
    <List
      ref={list}
      aria-label={label}
      selectionMode="single"
      selectionBehavior="replace"
      disallowEmptySelection
      selectedKeys={chosen ? [chosen] : []}
      onSelectionChange={(keys) => {
        const [key] = keys === "all" ? [] : keys;
        if (key) onChoose(String(key));
      }}
    >
      {rows.map((row) => (
        <Item key={row.id} id={row.id} textValue={row.name}>
          {row.shown}
        </Item>
      ))}
    </List>
  );
}
