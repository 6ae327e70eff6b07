import styled from 'styled-components'

export const PitchFrame = styled.figure`
  figcaption {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: baseline;
    gap: 0 16px;
    font-size: 14px;
  }
  h2 {
    font-size: 18px;
  }
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  text {
    font: 400 11.5px var(--mono);
    fill: var(--soft);
    letter-spacing: -0.03em;
  }
  .scale {
    text-anchor: end;
    dominant-baseline: central;
  }
  .date {
    text-anchor: middle;
  }
  .head {
    font: 500 12.5px var(--text);
    letter-spacing: 0;
    fill: var(--ink);
  }
  .wanted {
    stroke: var(--soft);
    stroke-dasharray: 1.5 5;
  }
  .fitted {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .pitch {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
    stroke-linejoin: round;
  }
  .spread {
    stroke: var(--ink);
    stroke-width: 6;
    opacity: 0.82;
  }
`
