import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { isOwner, useSignOut, useSwitch, type Session } from '../api/session'
import { Plain, Quiet } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { MenuSheet } from '../ui/MenuSheet'
import { setTheme, type Theme } from '../ui/theme'

interface Props {
  session: Session
  theme: Theme
  onHelp: () => void
}

const initials = (name: string): string =>
  name
    .split(' ')
    .map((part) => part[0] ?? '')
    .join('')

/** Who is signed in, and what is theirs to set. */
export function Person({ session, theme, onHelp }: Props) {
  const navigate = useNavigate()
  const signOut = useSignOut()
  const go = useSwitch()
  const shown = session.shown_name ?? ''
  return (
    <>
      <MenuTrigger>
        <Who aria-label={`${initials(shown)}, ${shown}: theme, ways, keys, sign out`}>{initials(shown)}</Who>
        <MenuSheet placement="right bottom">
          <Title>
            {shown}
            <small>
              {session.role}, {session.workshop?.name}
            </small>
          </Title>
          <Menu aria-label="Yours">
            <MenuItem onAction={() => setTheme(theme === 'stage' ? 'bench' : 'stage')}>
              {theme === 'stage' ? 'Bench theme (light)' : 'Stage theme (dark)'}
            </MenuItem>
            <MenuItem onAction={() => void navigate('/ways')}>Workshop’s ways</MenuItem>
            <MenuItem onAction={() => void navigate('/names')}>Places, owners, kits</MenuItem>
            {isOwner(session) ? <MenuItem onAction={() => void navigate('/people')}>People</MenuItem> : null}
            <MenuItem onAction={() => void navigate('/you')}>Your sign-in</MenuItem>
            {session.workshops
              .filter((each) => each.id !== session.workshop?.id)
              .map((each) => (
                <MenuItem
                  key={each.id}
                  onAction={() => go.mutate(each.id, { onSuccess: () => void navigate('/') })}
                >
                  Go to {each.name}
                </MenuItem>
              ))}
            <MenuItem onAction={onHelp}>Keys</MenuItem>
            <MenuItem onAction={() => signOut.mutate()}>Sign out</MenuItem>
          </Menu>
        </MenuSheet>
      </MenuTrigger>
      <Dialog title="Still signed in" open={signOut.isError} onClose={() => signOut.reset()}>
        <p>
          Signing out needs the server, and it gives no answer. Until then whoever holds this device works
          under your name and sees what you saw.
        </p>
        <Buttons>
          <Plain isDisabled={signOut.isPending} onPress={() => signOut.mutate()}>
            Try again
          </Plain>
          <Quiet onPress={() => signOut.reset()}>Stay signed in</Quiet>
        </Buttons>
      </Dialog>
    </>
  )
}

const Who = styled(AriaButton)`
  margin: auto auto 0;
  width: 48px;
  height: 48px;
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  background: transparent;
  font: 600 15px var(--slab);
  cursor: pointer;
  &[data-hovered],
  &[data-pressed] {
    background: var(--lifted);
  }
  @media (max-width: 700px) {
    margin: 4px 8px;
  }
`
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
`
const Title = styled.p`
  padding: 12px 18px;
  font: 600 17px var(--slab);
  small {
    display: block;
    font: 400 13.5px var(--text);
    color: var(--soft);
  }
`
