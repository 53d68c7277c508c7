/** Kinds of screws against each other: which one does harm in which wrong hole; and the bits of the job. */
import styled from "styled-components";
import type { ScrewsView } from "../../api/client";
import { labels } from "../../api/tables";
import { BitProfile } from "../../parts/BitProfile";
import { Heading, More, Muted } from "../../parts/controls";
import { plural } from "../../parts/format";
import { Tag } from "../../parts/Tag";
import { space } from "../../theme";

const Matrix = styled.table`
  border-collapse: collapse;
  font-size: 0.92rem;
  th, td { border: 1px solid var(--line); padding: 3px 8px; text-align: center; font-weight: 400; }
  th { font-weight: 600; text-align: left; }
  td[data-harm] { background: var(--hazard-wash); color: var(--ink); font-weight: 650; }
`;

/** Kinds that look like no other need no row. */
export function Risks({ screws, chosen }: { screws: ScrewsView; chosen: string | null }) {
  const { mix_ups, only_length } = screws.risks;
  const at = screws.kinds.findIndex((k) => chosen !== null && k.groups.includes(chosen));
  const involved = screws.kinds.map((_, i) => i).filter((i) => mix_ups.some((m) => m.screw === i || m.hole === i));
  const name = (i: number) => screws.kinds[i]?.letters.join(", ") ?? "";
  const own = mix_ups.filter((m) => m.hole === at || m.screw === at);
  return (
    <section aria-label="Mixing up">
      <Heading as="h3">Mixing up</Heading>
      {involved.length === 0 && <Muted>No two kinds of screws here look alike enough to be mixed up.</Muted>}
      {own.map((m) => (
        <p key={`${m.screw} ${m.hole}`}>
          {m.screw === at
            ? `This screw in a hole of ${name(m.hole)}: ${m.says}.`
            : `A screw of ${name(m.screw)} in a hole of this group: ${m.says}.`}
        </p>
      ))}
      {only_length
        .filter((o) => at < 0 || o.kinds.includes(at))
        .map((o) => (
          <p key={o.kinds.join()}>
            {o.kinds.map((k) => name(k ?? 0)).join(" and ")}: {o.says}
          </p>
        ))}
      {involved.length > 1 && (
        <More title="All kinds against each other">
          <Matrix>
            <thead>
              <tr>
                <th scope="col">Screw ↓ in hole of →</th>
                {involved.map((i) => (
                  <th scope="col" key={i}>
                    {name(i)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {involved.map((row) => (
                <tr key={row}>
                  <th scope="row">
                    {name(row)} <small>{screws.kinds[row]?.words}</small>
                  </th>
                  {involved.map((column) => {
                    const harm = mix_ups.find((m) => m.screw === row && m.hole === column)?.harm;
                    return (
                      <td key={column} data-harm={harm}>
                        {row === column ? "fits" : harm ? labels.Harm[harm] : "–"}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </Matrix>
        </More>
      )}
    </section>
  );
}

const List = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small} ${space.normal};
  li { display: inline-flex; align-items: center; gap: 6px; }
`;

export function Bits({ screws }: { screws: ScrewsView }) {
  const { bits, changes, steps, unknown } = screws.bits;
  const many = steps.filter((s) => s.bits.length > 1);
  return (
    <section aria-label="Bits">
      <Heading as="h3">Bits</Heading>
      <List>
        {bits.map((b) => (
          <li key={b.name}>
            <BitProfile drive={b.drive} /> {b.name} <Muted as="span">{plural(b.screws, "screw")}</Muted>
            {b.security && <Muted as="span">not in every box</Muted>}
          </li>
        ))}
      </List>
      <Muted>
        {plural(changes, "change")} of bit, the fewest possible
        {many.length > 0 && `: ${many.map((s) => `in step ${s.number} first ${s.bits.join(", then ")}`).join("; ")}`}.
        {unknown > 0 && ` The drive of ${plural(unknown, "group")} is not known.`}
      </Muted>
    </section>
  );
}

export function Kinds({ screws }: { screws: ScrewsView }) {
  return (
    <section aria-label="Kinds">
      <Heading as="h3">Kinds</Heading>
      <List>
        {screws.kinds.map((k) => (
          <li key={k.groups.join()}>
            <Tag tag={{ shape: k.shape, letter: k.letters[0] ?? "" }} size={24} /> {k.words}{" "}
            <Muted as="span">{k.letters.join(", ")}</Muted>
          </li>
        ))}
      </List>
    </section>
  );
}
