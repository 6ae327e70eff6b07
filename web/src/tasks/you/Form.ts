import styled from 'styled-components'

export const Form = styled.form`
  display: grid;
  gap: 12px;
  padding: 12px 0 18px;
  max-width: 460px;
  > button {
    justify-self: start;
  }
`
