/** A line of explanation beside what the pointer or the focus is on. */
import { Tooltip } from "react-aria-components";
import styled from "styled-components";

export const Hint = styled(Tooltip)`
  max-width: 300px;
  padding: 6px 10px;
  border-radius: 6px;
  background: var(--ink);
  color: var(--paper);
  font-size: 0.9rem;
  box-shadow: 0 3px 12px var(--shade);
`;
