/** A caution as its reader sees it: what hurts people is framed by how badly, what harms the device alone stands aside. */
import { Info, OctagonAlert, TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import styled, { css } from "styled-components";
import type { CautionHead } from "../api/client";
import { labels } from "../api/tables";
import { font } from "../theme";
import { SafetySign } from "./SafetySign";

const loud = css`
  border: 2px solid var(--hazard);
  border-radius: 5px;
  svg { color: var(--hazard); }
`;
const LOOK = {
  danger: css`
    border: 4px double var(--danger);
    border-radius: 5px;
    background: var(--danger-wash);
    svg { color: var(--danger); }
  `,
  warning: css`${loud} background: var(--hazard-wash);`,
  caution: loud,
  notice: css`
    border-left: 3px solid var(--strong-line);
    svg { color: var(--soft); }
  `,
} as const;

const Box = styled.p<{ $level: CautionHead["level"] }>`
  ${(p) => LOOK[p.$level]}
  padding: 4px 10px;
  margin: 5px 0;
  font: 500 0.98rem ${font.plain};
  display: flex;
  gap: 9px;
  svg { flex: none; margin-top: 2px; }
`;

/** The octagon stops, the triangle warns, the ring informs: shapes tell them apart in black on white too. */
const SIGN = { danger: OctagonAlert, warning: TriangleAlert, caution: TriangleAlert, notice: Info } as const;

export function Warning({ head, children }: { head: CautionHead | null | undefined; children: ReactNode }) {
  const level = head?.level ?? "caution";
  const Sign = SIGN[level];
  return (
    <Box $level={level}>
      {head?.sign && level !== "danger" ? <SafetySign sign={head.sign} size={22} /> : <Sign size={18} aria-hidden />}
      <span>
        <b>
          {labels.Level[level]}
          {head?.hazard && `, ${head.hazard}`}.
        </b>{" "}
        {head?.consequence} {children} {head?.avoidance}
      </span>
    </Box>
  );
}
