import { createGlobalStyle } from 'styled-components'

/** Two themes, paper and ink. Red is only ever what is owed. */
export const GlobalStyle = createGlobalStyle`
  :root {
    --slab: 'Besley Variable', Georgia, serif;
    --text: 'Instrument Sans Variable', 'Helvetica Neue', sans-serif;
    --mono: 'Martian Mono Variable', monospace;
    --ground: #f4efe2; --lifted: #fffaee; --ink: #1f231e; --soft: #625f53; --rule: #cfc7b3; --faint: #e6dfcd;
    --red: #ad1d17; --on-ink: #f4efe2;
    color-scheme: light;
  }
  [data-theme='stage'] {
    --ground: #100f0d; --lifted: #1b1916; --ink: #dacdb3; --soft: #9a8e75; --rule: #3a352b; --faint: #262219;
    --red: #ff6a55; --on-ink: #13110e;
    color-scheme: dark;
  }
  *, *::before, *::after { box-sizing: border-box; }
  html { background: var(--ground); color: var(--ink); font: 400 16px/1.45 var(--text); -webkit-text-size-adjust: 100%; }
  body, h1, h2, h3, p, ol, ul, dl, dd, figure { margin: 0; padding: 0; }
  ol, ul { list-style: none; }
  body { min-height: 100dvh; }
  :root { --above-rail: 0px; }
  @media (max-width: 700px) { :root { --above-rail: 57px; } } /* a foot stands on the rail, not under it */
  #view h1[tabindex='-1']:focus { outline: none; } /* it is read out there; nothing can be pressed */
  h1, h2, h3 { font-family: var(--slab); font-weight: 650; line-height: 1.15; letter-spacing: -0.01em; }
  button, input, select, textarea { font: inherit; color: inherit; }
  a { color: inherit; text-decoration: none; }
  :focus-visible, [data-focus-visible] { outline: 3px solid var(--ink); outline-offset: 2px; border-radius: 1px; }
  ::selection { background: var(--ink); color: var(--on-ink); }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; scroll-behavior: auto !important; }
  }
`
