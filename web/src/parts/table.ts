/** Plain tables, ruled like a ledger. */
import styled from "styled-components";

export const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  font-size: 0.95rem;
  th, td { text-align: left; vertical-align: top; padding: 4px 8px; border-bottom: 1px solid var(--line); font-weight: 400; }
  thead th { color: var(--soft); font-size: 0.86rem; }
  tbody th { font-weight: 600; }
`;
