/** What came out and what became of it, kind by kind: one line each, and nothing left over. */
import styled from "styled-components";
import type { FoldView } from "../../api/client";
import { labels } from "../../api/tables";
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
const Table = styled.table`
  margin: ${space.small} auto 0;
  border-collapse: collapse;
  font-size: 0.92rem;
  th, td { padding: 2px 10px; text-align: right; font-weight: 400; }
  th:first-child, td:first-child { text-align: left; }
  thead th { color: var(--soft); }
  tr[data-bad] td { color: var(--danger); font-weight: 700; }
`;

type Account = FoldView["accounts"][number];

/** "15 = 13 back + 2 new" */
function ways(account: Account): string {
  const all: [number, string][] = [
    [account.back, "back"],
    [account.renewed, "new"],
    [account.moved_over, "moved over"],
    [account.kept_out, "left out"],
  ];
  const told = all.filter(([n]) => n > 0).map(([n, word]) => `${n} ${word}`);
  const left = account.open.reduce((sum, o) => sum + o.count, 0);
  if (left > 0) told.push(`${left} left over`);
  return told.join(" + ") || "0 back";
}

/** What does not come out even, in words. */
function wrong(account: Account): string | null {
  if (account.uncounted) return "not all counted";
  const over = account.open.reduce((sum, o) => sum - Math.min(0, o.count), 0);
  return over > 0 ? `${over} too many` : null;
}

export function Accounts({ accounts }: { accounts: Account[] }) {
  return (
    <Sums aria-label="What came out and what became of it">
      {accounts.map((account) => (
        <li key={account.kind} data-open={account.proven ? undefined : ""}>
          <i aria-hidden>{account.proven ? "=" : "≠"}</i>
          <span>
            <b>{account.uncounted ? "?" : account.out}</b> {labels.Counted[account.kind]}: {ways(account)}
            {wrong(account) && `, ${wrong(account)}`}
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
            <tr key={row.group} data-bad={row.open ? "" : undefined}>
              <td>{row.label}</td>
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
