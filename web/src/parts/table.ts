/** Tables, ruled like a ledger: a plain one to read, and a grid whose cells are walked with the arrow keys. */
import { Table as AriaTable } from "react-aria-components";
import styled, { css } from "styled-components";
import { focusRing } from "../theme";

const ruled = css`
  border-collapse: collapse;
  width: 100%;
  font-size: 0.95rem;
  th, td { text-align: left; vertical-align: top; padding: 4px 8px; border-bottom: 1px solid var(--line); font-weight: 400; }
  thead th { color: var(--soft); font-size: 0.86rem; }
  tbody th, [role="rowheader"] { font-weight: 600; }
`;

export const Table = styled.table`${ruled}`;

export const Grid = styled(AriaTable)`
  ${ruled}
  outline: none;
  tr[data-focus-visible], td[data-focus-visible], th[data-focus-visible] { ${focusRing} outline-offset: -3px; }
  tr[data-selected] { background: var(--accent-wash); box-shadow: inset 4px 0 0 var(--accent); }
  td.n, th.n { text-align: right; font-variant-numeric: tabular-nums; }
`;
