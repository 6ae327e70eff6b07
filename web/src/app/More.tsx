import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { MenuSheet } from '../ui/MenuSheet'

interface Props {
  places: readonly (readonly [string, string])[]
  at: string
}

/** On a phone four places stand in the rail, each wide enough for a thumb; the others are behind this. */
export function More({ places, at }: Props) {
  const navigate = useNavigate()
  const here = places.find(([to]) => at.startsWith(to))
  return (
    <MenuTrigger>
      <Others data-here={here ? '' : undefined}>{here?.[1] ?? 'More'}</Others>
      <MenuSheet placement="top">
        <Menu aria-label="More places">
          {places.map(([to, name]) => (
            <MenuItem key={to} onAction={() => void navigate(to)}>
              {name}
            </MenuItem>
          ))}
        </Menu>
      </MenuSheet>
    </MenuTrigger>
  )
}

const Others = styled(AriaButton)`
  display: none;
  @media (max-width: 700px) {
    display: block;
    flex: 1 0 44px;
    min-height: 56px;
    border: 0;
    background: none;
    font-size: 14px;
    color: var(--soft);
    &[data-here] {
      color: var(--ink);
      font-weight: 650;
    }
  }
`
