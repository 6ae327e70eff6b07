import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { isNearlyFull, useRoom } from '../api/device'
import { flush, useOutbox, type Entry } from '../api/outbox'
import { useTaken } from '../api/photos'
import { useOldest } from '../api/seen'
import { useSession } from '../api/session'
import { agoInWords, clock, daysBetween, shortDate } from '../domain/dates'
import { inMegabytes } from '../domain/bytes'
import { isOf } from '../domain/keptFor'
import { SignInForm } from '../tasks/sign-in/SignInForm'
import { Plain } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { takeUp, useNewer } from './worker'

/** A copy younger than this is as good as an answer. */
const YOUNG_MS = 15_000
const TICK_MS = 10_000

/** When what shows was given, in words, once it is worth saying. */
function useAsItStood(): string {
  const at = useOldest()
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (at === null) return
    const timer = setInterval(() => setNow(Date.now()), TICK_MS)
    return () => clearInterval(timer)
  }, [at])
  if (at === null || now - at < YOUNG_MS) return ''
  const then = new Date(at)
  const day = daysBetween(then, new Date(now)) ? `${shortDate(then)} ` : ''
  return `at ${day}${clock(then)}, ${agoInWords((now - at) / 60_000)}`
}

/** Says when entries wait on this device, and why; asks to sign in again without leaving the bench. */
export function LinkState({ entries }: { entries: readonly Entry[] }) {
  const { link } = useOutbox()
  const session = useSession()
  const waiting = entries.filter((entry) => entry.state === 'waiting')
  const photos = useTaken().filter((photo) => photo.state === 'waiting')
  const looseOnes =
    photos.filter((photo) => photo.loose).length + waiting.filter((entry) => entry.loose).length
  const room = useRoom()
  const stood = useAsItStood()
  const newer = useNewer()
  const others = waiting.filter((entry) => !isOf(session.data?.kept_for ?? '', entry.user))
  const unsent = link === 'no-network' && waiting.length > 0
  const count = waiting.length === 1 ? '1 entry is' : `${waiting.length} entries are`
  return (
    <>
      {stood || unsent ? (
        <Line role="status">
          {stood ? `No answer from the server. What you see is as it stood ${stood}.` : 'No network.'}{' '}
          {unsent ? `${count} kept on this device and will be sent by themselves.` : null}
        </Line>
      ) : null}
      {link === 'no-network' && photos.length > 0 ? (
        <Line role="status">
          {photos.length === 1 ? '1 photo waits' : `${photos.length} photos wait`} on this device and will be
          sent too.
        </Line>
      ) : null}
      {looseOnes > 0 ? (
        <Line role="alert">
          {room.full ? 'This device is full.' : 'This device’s store does not answer.'} Leave this page open
          until{' '}
          {looseOnes === 1 ? 'what you entered last is' : `the ${looseOnes} things you entered last are`} sent
          {room.full ? ', or make room on it.' : '.'}
        </Line>
      ) : isNearlyFull(room) ? (
        <Line role="status">
          This device is nearly full: room for {inMegabytes(room.left ?? 0)} more. Make room on it before you
          work without network; photos take most.
        </Line>
      ) : null}
      {link === 'fine' && others.length > 0 ? (
        <Line role="status">
          {others.length} {others.length === 1 ? 'entry' : 'entries'} of{' '}
          {others[0]?.user.split('@').join(' in ')} wait here for them to be in again.
        </Line>
      ) : null}
      {newer ? (
        <Line role="status">
          A newer Red Tally is here. What waits on this device stays.
          <Plain onPress={takeUp}>Take it up</Plain>
        </Line>
      ) : null}
      <Dialog title="Sign in to go on" open={link === 'signed-out'} onClose={null}>
        <p>
          Your session ended.{' '}
          {waiting.length > 0
            ? `${count} kept on this device and will be sent when you are back.`
            : 'Nothing is lost.'}
        </p>
        <SignInForm onDone={() => void flush()} />
      </Dialog>
    </>
  )
}

const Line = styled.p`
  padding: 8px 28px;
  background: var(--faint);
  border-bottom: 1px solid var(--rule);
  font-size: 14.5px;
  font-weight: 550;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  @media (max-width: 700px) {
    padding: 8px 16px;
  }
`
