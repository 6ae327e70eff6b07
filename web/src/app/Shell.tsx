import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../api/client'
import { keys } from '../api/keys'
import { begin, useOutbox } from '../api/outbox'
import { beginPhotos } from '../api/photos'
import { useSession, type Session } from '../api/session'
import { SignInPage } from '../tasks/sign-in/SignInPage'
import { Mark } from '../ui/Mark'
import { useKeys } from '../ui/useKeys'
import { KeyMapSheet } from './KeyMapSheet'
import { LinkState } from './LinkState'
import { More } from './More'
import { Person } from './Person'
import { setTheme, useTheme } from '../ui/theme'
import { Rail } from './Rail'
import { RestAlarm } from './RestAlarm'
import { useHeading } from './useHeading'
import { usePulse } from './usePulse'

const VIEWS = [
  ['/', 'Today'],
  ['/drums', 'Drums'],
  ['/bench', 'Bench'],
  ['/inspect', 'Inspect'],
  ['/kits', 'Kits'],
  ['/callouts', 'Calls'],
  ['/shelf', 'Shelf'],
] as const

const NOTHING: never[] = []
const placeOf = (path: string): string =>
  VIEWS.find(([to]) => (to === '/' ? path === to : path.startsWith(to)))?.[1] ?? ''

/** The rail of views, who is signed in, and the state of the link; signed out, the sign-in page instead. */
export function Shell() {
  const session = useSession()
  const silent = !session.data && session.errorUpdateCount > 0
  if (session.isPending && !silent) return null
  if (!session.data?.username) return <SignInPage session={session.data} unreachable={silent} />
  return <SignedIn key={session.data.kept_for} session={session.data} />
}

function SignedIn({ session }: { session: Session }) {
  const keptFor = session.kept_for
  const [help, setHelp] = useState(false)
  const theme = useTheme()
  const navigate = useNavigate()
  const { entries } = useOutbox()
  useEffect(() => {
    void begin(keptFor)
    void beginPhotos(keptFor)
  }, [keptFor])
  const today = useQuery({
    queryKey: keys.today,
    queryFn: () => unwrap(api.GET('/api/today')),
    refetchInterval: 30_000,
  })
  const map = useMemo(
    () => ({
      '?': () => setHelp(true),
      t: () => void navigate('/'),
      d: () => void navigate('/drums'),
      b: () => void navigate('/bench'),
      i: () => void navigate('/inspect'),
      y: () => void navigate('/kits'), // a letter no view has for itself: one that is off there would lead away from it
      '!': () => void navigate('/callouts'), // every letter is some view’s own by now
      k: () => void navigate('/shelf'),
      '.': () => setTheme(theme === 'stage' ? 'bench' : 'stage'),
    }),
    [navigate, theme],
  )
  useKeys(map)
  usePulse()
  const { pathname } = useLocation()
  useHeading(pathname, placeOf(pathname))
  const owed = today.data?.owed_count ?? 0
  return (
    <Frame>
      <Skip href="#view">Skip to the view</Skip>
      <Rail aria-label="Views">
        <NavLink to="/" aria-label="Today">
          <Mark owed={owed > 0} />
        </NavLink>
        {VIEWS.map(([to, name], n) => (
          <NavLink key={to} to={to} end={to === '/'} data-more={n > 3 || undefined}>
            {name}
            {to === '/' && owed > 0 ? <b>{owed}</b> : null}
          </NavLink>
        ))}
        <More places={VIEWS.slice(4)} at={pathname} />
        <Person session={session} theme={theme} onHelp={() => setHelp(true)} />
      </Rail>
      <View id="view">
        <LinkState entries={entries} />
        <RestAlarm items={today.data?.items ?? NOTHING} />
        <Outlet />
      </View>
      <KeyMapSheet open={help} onClose={() => setHelp(false)} />
    </Frame>
  )
}

const Frame = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  min-height: 100dvh;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr) auto;
  }
`
const Skip = styled.a`
  position: absolute;
  left: -999px;
  &:focus {
    left: 8px;
    top: 8px;
    z-index: 5;
    background: var(--lifted);
    padding: 8px 14px;
  }
`
const View = styled.div`
  min-width: 0;
  display: flex;
  flex-direction: column;
  > main {
    flex: 1;
    min-height: 0;
  }
`
