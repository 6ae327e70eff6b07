import styled from 'styled-components'

/** Ink on paper: what the step is about is thick, what is there anyway is thin, what moves has an arrow. */
export const Drawing = styled.svg`
  display: block;
  width: min(100%, 600px);
  height: auto;
  margin: 0 auto;
  path,
  line,
  circle,
  rect,
  polygon {
    fill: none;
    stroke: var(--soft);
    stroke-width: 1.6;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .thin {
    stroke: var(--rule);
  }
  .now {
    stroke: var(--ink);
    stroke-width: 4;
  }
  .firm {
    stroke: var(--ink);
    stroke-width: 2.2;
  }
  .full {
    fill: var(--ink);
    stroke: var(--ink);
  }
  .paper {
    fill: var(--ground);
  }
  .dots {
    stroke-dasharray: 2 6;
  }
  text {
    font: 500 11px var(--text);
    fill: var(--soft);
    text-anchor: middle;
  }
  .rod {
    font: 600 12px var(--slab);
    dominant-baseline: central;
  }
  .strong {
    fill: var(--ink);
    font-weight: 650;
  }
`
