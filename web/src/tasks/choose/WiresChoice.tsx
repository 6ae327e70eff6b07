import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Problem, Soft } from '../../ui/Page'
import { Lines } from './Answer'
import { NotThese, Reasons } from './Reasons'
import type { Asked } from './Wish'

type Clamps = '' | 'cord' | 'strap' | 'both'

const CLAMPS = [
  { value: '', words: 'not known' },
  { value: 'cord', words: 'cord' },
  { value: 'strap', words: 'strap' },
  { value: 'both', words: 'both' },
] as const

const clampsOf = (clamps: Clamps): ('cord' | 'strap')[] =>
  clamps === 'both' ? ['cord', 'strap'] : clamps ? [clamps] : []

const shown = (line: Schemas['WiresLine']): string =>
  `${line.wires}, ${line.size}: ${line.free ? `${line.free} free${line.shelf ? `, ${line.shelf}` : ''}` : 'none free'}`

interface Props {
  tag: string
  asked: Asked
  onStart: (() => void) | null
}

/** Which wires go under a drum: two or three sets beside each other, what the shelf has of them, and what must not go on. */
export function WiresChoice({ tag, asked, onStart }: Props) {
  const [clamps, setClamps] = useState<Clamps>('')
  const query = { use: asked.use, sound: asked.sound, needs: asked.needs, clamps: clampsOf(clamps) }
  const found = useQuery({
    queryKey: ['choose-wires', tag, query],
    queryFn: () => unwrap(api.GET('/api/heads/choose-wires/{tag}', { params: { path: { tag }, query } })),
    placeholderData: keepPreviousData,
  })
  return (
    <>
      <Choice<Clamps> label="Its strainer clamps" value={clamps} onChange={setClamps} options={CLAMPS} />
      {found.error ? <Problem>{found.error.message}</Problem> : null}
      {found.data ? (
        <>
          <Soft as="p">Under it now: {found.data.now || 'not known'}</Soft>
          <Answers>
            {found.data.answers.map((answer, n) => (
              <Reasons
                key={answer.words}
                words={answer.words}
                first={n === 0}
                good={answer.speaks_for}
                bad={answer.against}
              >
                <Lines>
                  {answer.lines.length ? (
                    answer.lines.map((line) => (
                      <li key={line.stock_item}>
                        <span>{shown(line)}</span>
                        {onStart && line.free ? <Plain onPress={onStart}>Fit them</Plain> : null}
                      </li>
                    ))
                  ) : (
                    <li>
                      <Soft>Not on the shelf in its size.</Soft>
                    </li>
                  )}
                </Lines>
              </Reasons>
            ))}
          </Answers>
          {found.data.others.length ? (
            <p>Also on the shelf, and not wrong: {found.data.others.map(shown).join('; ')}.</p>
          ) : null}
          <NotThese found={found.data.excluded} />
        </>
      ) : null}
    </>
  )
}

export const Answers = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 0 26px;
  padding-top: 12px;
`
