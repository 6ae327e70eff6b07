import styled from 'styled-components'

/** Small pictures side by side; each opens large. */
export const Thumb = styled.button`
  position: relative;
  width: 72px;
  height: 54px;
  padding: 0;
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  background: var(--faint);
  overflow: hidden;
  cursor: pointer;
  img {
    width: 100%;
    height: 100%;
    object-fit: cover;
    display: block;
  }
  span {
    position: absolute;
    inset: auto 0 0 0;
    background: var(--ground);
    font-size: 11px;
    line-height: 1.4;
    text-align: center;
  }
`
export const Large = styled.img`
  max-width: 100%;
  max-height: 62dvh;
  object-fit: contain;
  background: var(--faint);
`
