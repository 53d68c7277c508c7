/** A connector from the side, with the way it is undone; the words beside it say the same. */
import styled from "styled-components";

const Box = styled.svg`
  display: block;
  width: 60px;
  height: 36px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.8;
  stroke-linejoin: round;
`;

export const ConnectorDrawing = ({ path }: { path: string }) => (
  <Box viewBox="0 -1 48 29" aria-hidden>
    <path d={path} />
  </Box>
);
