/** A dialog over the page for something that has to be settled first. */
import type { ReactNode } from "react";
import { Dialog, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { font, space } from "../theme";

const Over = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 10;
  background: var(--shade);
  display: grid;
  place-items: center;
  padding: ${space.wide};
`;
const Paper = styled(Modal)`
  width: min(620px, 100%);
  max-height: 100%;
  overflow: auto;
  background: var(--paper);
  border: 1px solid var(--strong-line);
  border-radius: 10px;
  box-shadow: 0 8px 40px var(--shade);
`;
const Inside = styled(Dialog)`
  display: grid;
  gap: ${space.normal};
  padding: ${space.wide};
  outline: none;
  h2 { font: 650 1.2rem ${font.plain}; }
  pre { white-space: pre-wrap; overflow-wrap: anywhere; font: inherit; margin: 0; }
`;
export const Card = styled.div`
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: ${space.small} ${space.normal};
`;
export const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small};
  justify-content: flex-end;
`;

export function ModalDialog(props: { isOpen: boolean; label: string; onClose?: () => void; children: ReactNode }) {
  return (
    <Over
      isOpen={props.isOpen}
      isDismissable={props.onClose !== undefined}
      isKeyboardDismissDisabled={props.onClose === undefined}
      onOpenChange={(open) => !open && props.onClose?.()}
    >
      <Paper>
        <Inside aria-label={props.label}>{props.children}</Inside>
      </Paper>
    </Over>
  );
}
