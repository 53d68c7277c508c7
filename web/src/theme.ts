/**
 * The look, in one file: palette, type, spacing, focus, light and dark.
 *
 * Warm paper and dark ink, one accent (pine). Hazard colours are for hazards alone. Shapes and letters carry meaning;
 * colour only helps.
 */
import { createGlobalStyle, css } from "styled-components";

const light = css`
  --paper: #f8f4ec;
  --sheet: #fffdf8;
  --sunk: #efe8da;
  --ink: #28231b;
  --soft: #5d5547;
  --line: #d6ccb8;
  --strong-line: #8f846d;
  --accent: #1f5a54;
  --on-accent: #fffdf8;
  --accent-wash: #dcebe6;
  --hazard: #8a3a00;
  --hazard-wash: #fbe6cf;
  --danger: #a1241c;
  --danger-wash: #fae1dc;
  --shade: rgb(60 48 20 / 18%);
`;

const dark = css`
  --paper: #1c1915;
  --sheet: #25211b;
  --sunk: #15130f;
  --ink: #f0e9db;
  --soft: #b9af9b;
  --line: #413a2e;
  --strong-line: #80765f;
  --accent: #8fcabf;
  --on-accent: #10201d;
  --accent-wash: #24403b;
  --hazard: #f3b272;
  --hazard-wash: #46300f;
  --danger: #f29b90;
  --danger-wash: #4a211c;
  --shade: rgb(0 0 0 / 50%);
`;

/** Spacing steps in pixels: hair, small, normal, wide, page. */
export const space = { hair: "4px", small: "8px", normal: "14px", wide: "24px", page: "36px" } as const;

export const font = {
  /** The interface and everything read at arm's length. */
  plain: '"Atkinson Hyperlegible Next Variable", sans-serif',
  /** Running text of a guide. */
  text: '"Literata Variable", serif',
} as const;

/** Narrow screens: side columns go below. */
export const narrow = "@media (max-width: 880px)";

export const focusRing = css`
  outline: 3px solid var(--accent);
  outline-offset: 2px;
`;

export const GlobalStyle = createGlobalStyle`
  :root { ${light} color-scheme: light; }
  @media (prefers-color-scheme: dark) { :root { ${dark} color-scheme: dark; } }
  :root[data-look="light"] { ${light} color-scheme: light; }
  :root[data-look="dark"] { ${dark} color-scheme: dark; }

  *, *::before, *::after { box-sizing: border-box; }
  html { background: var(--paper); color: var(--ink); font: 16px/1.45 ${font.plain}; font-variant-numeric: tabular-nums; }
  body { margin: 0; }
  button, input, textarea, select { font: inherit; color: inherit; }
  h1, h2, h3, p, ul, ol, dl, dd, figure { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  a { color: var(--accent); text-underline-offset: 3px; }
  :focus-visible, [data-focus-visible] { ${focusRing} }
  ::selection { background: var(--accent-wash); }
  @media (prefers-reduced-motion: no-preference) { html { scroll-behavior: smooth; } }
  @media print { html { background: #fff; color: #000; font-size: 11pt; } }
`;
