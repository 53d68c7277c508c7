/** Boxes that many stops share. */
import styled from "styled-components";
import { space } from "../theme";

/** Things beside each other that go below where there is no room. */
export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small};
  align-items: end;
`;

/** A stop with a width of its own. */
export const Page = styled.div<{ $width: number }>`
  max-width: ${(p) => p.$width}px;
  margin: 0 auto;
  padding: ${space.normal} ${space.wide} ${space.page};
`;

/** Over a stop or a part of it: its name, what it comes to, its keys. */
export const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.small} ${space.normal};
  align-items: center;
  margin-bottom: ${space.small};
  h2, h3 { margin: 0; }
  & > p { flex: 1; min-width: 15em; }
`;
