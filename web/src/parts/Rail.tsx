/** The rail: the author's day in the order of the work. */
import { TooltipTrigger } from "react-aria-components";
import { NavLink, useParams } from "react-router";
import styled from "styled-components";
import type { Stop } from "../api/client";
import { stations } from "../stops/registry";
import { focusRing, space } from "../theme";
import { Button } from "./controls";
import { Hint } from "./Hint";
import { useLeftPlaces } from "./place";

const Line = styled.nav`
  border-bottom: 1px solid var(--line);
  overflow-x: auto;
  @media print { display: none; }
  ol {
    display: flex;
    padding: 0 ${space.wide};
    min-width: max-content;
  }
  li { position: relative; }
`;
const look = `
  display: block;
  padding: 9px 13px 8px;
  border: 0;
  border-bottom: 3px solid transparent;
  border-radius: 0;
  background: none;
  text-decoration: none;
  font-weight: 550;
`;
const Way = styled(NavLink)`
  ${look}
  color: var(--ink);
  &:hover { background: var(--sunk); }
  &:focus-visible { ${focusRing} outline-offset: -3px; }
  &[aria-current="page"] { border-bottom-color: var(--accent); color: var(--accent); font-weight: 700; }
`;
const Later = styled(Button)`
  ${look}
  color: var(--soft);
  font-weight: 400;
  cursor: default;
  &[data-hovered], &[data-pressed] { background: none; }
`;
const Count = styled.span`
  margin-left: 6px;
  padding: 0 6px;
  border-radius: 9px;
  font-size: 0.8rem;
  font-weight: 700;
  background: var(--danger-wash);
  color: var(--danger);
`;

export function Rail({ blocking }: { blocking: Partial<Record<Stop, number>> }) {
  const left = useLeftPlaces(useParams().id ?? "");
  return (
    <Line aria-label="Stops">
      <ol>
        {stations.map(({ stop, name, to, later }) => (
          <li key={stop}>
            {to ? (
              <Way to={`${to}${left(to)}`}>
                {name}
                {(blocking[stop] ?? 0) > 0 && (
                  <Count>
                    {blocking[stop]}
                    <span hidden> block publishing</span>
                  </Count>
                )}
              </Way>
            ) : (
              <TooltipTrigger delay={200} closeDelay={0}>
                <Later aria-disabled="true">{name}</Later>
                <Hint>To come. {later}</Hint>
              </TooltipTrigger>
            )}
          </li>
        ))}
      </ol>
    </Line>
  );
}
