import styled from 'styled-components'

/** The picture beside what is ticked and said; below each other on a phone, with the ticks where the thumb is. */
export const Board = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(320px, 440px) minmax(0, 1fr);
  grid-template-areas: 'tabs tabs' 'picture ticks' 'picture said';
  grid-template-rows: auto auto 1fr;
  gap: 0 28px;
  padding: 0 28px 14px;
  > [role='tablist'] {
    grid-area: tabs;
  }
  > [role='group'] {
    grid-area: ticks;
    align-content: start;
    padding: 14px 0;
    @media (max-width: 900px) {
      padding: 4px 0 10px;
    }
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'tabs' 'picture' 'ticks' 'said';
    &:has([data-inhand]) {
      grid-template-areas: 'tabs' 'picture' 'said' 'ticks';
    }
    grid-template-rows: auto;
    align-content: start;
    padding: 0 16px 10px;
  }
`
export const PictureBox = styled.div`
  grid-area: picture;
  padding-top: 6px;
  @media (max-width: 900px) {
    > svg {
      max-width: min(100%, 34dvh);
    }
  }
`
export const SaidBox = styled.div`
  grid-area: said;
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
`
export const Ask = styled.p`
  padding: 12px 14px;
  border-left: 4px double var(--ink);
  background: var(--lifted);
  font: 600 18px var(--slab);
  span {
    font: 400 15px var(--text);
  }
`
