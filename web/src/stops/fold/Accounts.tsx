/** What came out and what became of it, kind by kind: one line each, and nothing left over. */
import styled from "styled-components";
import type { FoldView } from "../../api/client";
import { labels } from "../../api/tables";
import { Table } from "../../parts/table";
import { space } from "../../theme";

const Sums = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small} ${space.wide};
  justify-content: center;
  li { display: flex; gap: 7px; align-items: baseline; }
  b { font-size: 1.15rem; }
  li[data-open] b { color: var(--danger); }
  i { font-style: normal; font-weight: 700; color: var(--accent); }
  li[data-open] i { color: var(--danger); }
`;
type Account = FoldView["accounts"][number];

export function Accounts({ accounts }: { accounts: Account[] }) {
  return (
    <Sums aria-label="What came out and what became of it">
      {accounts.map((account) => (
        <li key={account.kind} data-open={account.proven ? undefined : ""}>
          <i aria-hidden>{account.proven ? "=" : "≠"}</i>
          <span>
            <b>{account.uncounted ? "?" : account.out}</b> {labels.Counted[account.kind]}: {account.says}
          </span>
        </li>
      ))}
    </Sums>
  );
}

/** The screws group by group, for who has to find one. */
export function ScrewAccounts({ balance }: { balance: FoldView["balance"] }) {
  return (
    <section aria-label="Screw balance">
      <Table>
        <thead>
          <tr>
            <th scope="col">Screws</th>
            <th scope="col">out</th>
            <th scope="col">back</th>
            <th scope="col">new</th>
            <th scope="col">left over</th>
          </tr>
        </thead>
        <tbody>
          {balance.rows.map((row) => (
            <tr key={row.group} style={row.open ? { color: "var(--danger)" } : undefined}>
              <th scope="row">{row.label}</th>
              <td>{row.out ?? "?"}</td>
              <td>{row.back ?? "?"}</td>
              <td>{row.renewed}</td>
              <td>{row.left_over ?? "?"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
