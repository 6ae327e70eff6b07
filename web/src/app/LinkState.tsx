import styled from 'styled-components'
import { flush, useOutbox, type Entry } from '../api/outbox'
import { useTaken } from '../api/photos'
import { useSession } from '../api/session'
import { isOf } from '../domain/keptFor'
import { SignInForm } from '../tasks/sign-in/SignInForm'
import { Dialog } from '../ui/Dialog'

/** Says when entries wait on this device, and why; asks to sign in again without leaving the bench. */
export function LinkState({ entries }: { entries: readonly Entry[] }) {
  const { link } = useOutbox()
  const session = useSession()
  const waiting = entries.filter((entry) => entry.state === 'waiting')
  const photos = useTaken().filter((photo) => photo.state === 'waiting').length
  const others = waiting.filter((entry) => !isOf(session.data?.kept_for ?? '', entry.user))
  const loose = waiting.filter((entry) => entry.loose)
  const count = waiting.length === 1 ? '1 entry is' : `${waiting.length} entries are`
  return (
    <>
      {link === 'no-network' && waiting.length > 0 ? (
        <Line role="status">No network. {count} kept on this device and will be sent by themselves.</Line>
      ) : null}
      {link === 'no-network' && photos > 0 ? (
        <Line role="status">
          {photos === 1 ? '1 photo waits' : `${photos} photos wait`} on this device and will be sent too.
        </Line>
      ) : null}
      {loose.length > 0 ? (
        <Line role="status">
          This device’s store does not answer. Leave this page open until{' '}
          {loose.length === 1 ? 'one entry is' : `${loose.length} entries are`} sent.
        </Line>
      ) : null}
      {link === 'fine' && others.length > 0 ? (
        <Line role="status">
          {others.length} {others.length === 1 ? 'entry' : 'entries'} of{' '}
          {others[0]?.user.split('@').join(' in ')} wait here for them to be in again.
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
`
