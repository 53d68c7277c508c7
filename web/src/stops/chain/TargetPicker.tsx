/** Which parts should come out. */
import { X } from "lucide-react";
import { ComboBox, Input, Label, ListBox, ListBoxItem, Popover } from "react-aria-components";
import styled from "styled-components";
import type { Part } from "../../api/client";
import { useManual } from "../../api/manual";
import { Button } from "../../parts/controls";
import { focusRing, space } from "../../theme";

const Box = styled(ComboBox<Part>)`
  display: grid;
  gap: ${space.hair};
  label { font-weight: 650; }
  input { border: 1px solid var(--strong-line); border-radius: 5px; background: var(--sheet); padding: 6px 9px; width: 100%; }
`;
const Options = styled(ListBox<Part>)`
  max-height: 300px;
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--strong-line);
  border-radius: 6px;
  box-shadow: 0 6px 18px var(--shade);
  min-width: 300px;
  padding: 4px;
`;
const Option = styled(ListBoxItem)`
  padding: 5px 9px;
  border-radius: 4px;
  cursor: default;
  &[data-focused] { background: var(--accent-wash); }
  &[data-focus-visible] { ${focusRing} outline-offset: -3px; }
`;
const Chosen = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.hair};
`;

export function TargetPicker({ targets, onChange }: { targets: string[]; onChange: (targets: string[]) => void }) {
  const { view } = useManual();
  const parts = Object.values(view.manual.parts)
    .filter((p) => !targets.includes(p.id))
    .sort((a, b) => a.name.localeCompare(b.name));
  return (
    <div>
      <Box
        // A new choice begins with an empty field.
        key={targets.join()}
        menuTrigger="focus"
        defaultItems={parts}
        onSelectionChange={(key) => key !== null && onChange([...targets, String(key)])}
      >
        <Label>{targets.length === 0 ? "Which part should come out?" : "And which other part?"}</Label>
        <Input placeholder="a part" />
        <Popover>
          <Options items={parts}>{(part) => <Option id={part.id}>{part.name}</Option>}</Options>
        </Popover>
      </Box>
      {targets.length > 0 && (
        <Chosen aria-label="Parts that should come out">
          {targets.map((t) => (
            <li key={t}>
              <Button
                onPress={() => onChange(targets.filter((x) => x !== t))}
                aria-label={`Not the ${view.manual.parts[t]?.name}`}
              >
                {view.manual.parts[t]?.name} <X size={14} aria-hidden />
              </Button>
            </li>
          ))}
        </Chosen>
      )}
    </div>
  );
}
