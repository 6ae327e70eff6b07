import styled from 'styled-components'
import { askToKeep, useRoom } from '../../api/device'
import { useOutbox } from '../../api/outbox'
import { useTaken } from '../../api/photos'
import { inMegabytes } from '../../domain/bytes'
import { Plain } from '../../ui/Button'
import { Soft } from '../../ui/Page'

const many = (count: number, one: string, several: string): string =>
  `${count} ${count === 1 ? one : several}`

/** What waits here to be sent, in words. */
function waits(entries: number, photos: number): string {
  const parts = [
    ...(entries ? [many(entries, 'entry', 'entries')] : []),
    ...(photos ? [many(photos, 'photo', 'photos')] : []),
  ]
  if (!parts.length) return 'Nothing waits to be sent.'
  return `${parts.join(' and ')} ${entries + photos === 1 ? 'waits' : 'wait'} to be sent.`
}

/** Whether Red Tally goes on here without network, how much it keeps, and whether the browser has promised to keep it. */
export function ThisDevice() {
  const room = useRoom()
  const entries = useOutbox().entries.filter(({ state }) => state === 'waiting').length
  const photos = useTaken().filter(({ state }) => state === 'waiting').length
  const opens = window.isSecureContext && 'serviceWorker' in navigator
  return (
    <>
      <h2>This device</h2>
      <List>
        <li>
          {opens
            ? 'Red Tally opens here without network, with what was seen here before. The browser’s menu puts it among the apps.'
            : 'Over plain http Red Tally does not open without network: browsers allow that over https only, or on the machine itself.'}
        </li>
        <li>{waits(entries, photos)}</li>
        <li>
          It keeps {inMegabytes(room.used)} here
          {room.left === null ? '.' : `; there is room for ${inMegabytes(room.left)} more.`}
        </li>
        {room.promised === null ? null : room.promised ? (
          <li>The browser has promised to keep all that, however short of room the device is.</li>
        ) : (
          <li>
            The browser may throw that away when the device is short of room.{' '}
            <Soft>It promises more to what is among the apps or used often.</Soft>
            <Plain onPress={() => void askToKeep()}>Ask it again</Plain>
          </li>
        )}
      </List>
    </>
  )
}

const List = styled.ul`
  padding-bottom: 22px;
  li {
    padding: 10px 0;
    border-bottom: 1px solid var(--rule);
  }
  button {
    display: block;
    margin-top: 8px;
  }
`
