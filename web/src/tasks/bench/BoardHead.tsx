import { Link } from 'react-router'
import styled from 'styled-components'
import { elapsed } from '../../domain/dates'
import { benchSheet } from '../../domain/paper'
import { Key, Quiet } from '../../ui/Button'
import { Head, Num, Soft } from '../../ui/Page'
import { stepNow } from './cursor'
import type { Bench } from './log/types'
import { SayLine } from './say/SayLine'
import type { Say } from './say/useSay'
import { useNow } from '../../ui/useNow'

function what(bench: Bench): string {
  const now = stepNow(bench)?.side
  const title = bench.title.charAt(0).toLowerCase() + bench.title.slice(1)
  return bench.heads.length > 1 && now ? `${title}, ${now} in hand` : title
}

interface Props {
  bench: Bench
  say: Say
  /** Do the rest otherwise; null where nothing may be changed. */
  onWays: (() => void) | null
  onAside: (() => void) | null
}

/** Which drum, what is done to it, and for how long already. */
export function BoardHead({ bench, say, onWays, onAside }: Props) {
  const now = useNow(1000)
  return (
    <Head>
      <h1>
        <Link to={`/drums/${bench.tag}`}>{bench.name}</Link>
      </h1>
      <Num>{bench.tag}</Num>
      <Soft>
        {bench.kind_words}, {bench.size}, {bench.head.rods ? `${bench.head.rods} rods` : 'rope'},{' '}
        {what(bench)}
      </Soft>
      <SayLine say={say} />
      {onWays ? (
        <Low onPress={onWays}>
          Ways <Key>J</Key>
        </Low>
      ) : null}
      <a href={benchSheet(bench.id)} target="_blank" rel="noreferrer">
        Paper
      </a>
      {onAside ? <Low onPress={onAside}>Put aside</Low> : null}
      {bench.state === 'closed' ? null : (
        <Num data-end aria-label="time on this job">
          {elapsed(now - new Date(bench.opened_at).getTime())}
        </Num>
      )}
    </Head>
  )
}

/** As high as a thumb needs, without making the line higher. */
const Low = styled(Quiet)`
  margin: -9px -10px;
`
