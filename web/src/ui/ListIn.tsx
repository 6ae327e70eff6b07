import { useRef, type ReactNode } from 'react'
import { ProgressBar } from 'react-aria-components'
import styled from 'styled-components'
import { counted } from '../domain/counted'
import { Main, Plain } from './Button'
import { Num, Problem, Soft } from './Page'

/** What a list comes to. */
interface Seen {
  good: number
  bad: number
  problems: { line: number; because: string; shown: string }[]
  shown: string[]
  taken: boolean
}

/** A list that is looked at or taken, step by step. */
interface List<S> {
  file: File | null
  seen: S | null
  doing: { what: 'look' | 'take'; read: number } | null
  stopped: 'look' | 'take' | null
  error: Error | null
  take: () => void
  stop: () => void
}

interface Props<S extends Seen> {
  list: List<S>
  /** Where everything that is there is saved from. */
  save: { href: string; words: string }
  /** Whether somebody may bring one in. */
  may: boolean
  /** What is said of such lists. */
  how: ReactNode
  choosing: string
  /** Below the choice: which column says what. */
  columns?: ReactNode
  onChoose: (file: File) => void
  /** What the rows come to. */
  told: (seen: S) => ReactNode
  /** How many the press takes, and what it says; null where there is nothing to press. */
  take: (seen: S) => { count: number; words: string } | null
  after?: ReactNode
}

const DOING = { look: 'Reading', take: 'Taking' }

/** A list out, and a list in: looked at first, its good rows taken, each bad one told. */
export function ListIn<S extends Seen>(props: Props<S>) {
  const { list, take } = props
  const choose = useRef<HTMLInputElement>(null)
  const { seen, file, doing, stopped } = list
  const offered = seen && !seen.taken && file ? take(seen) : null
  return (
    <Both>
      <section>
        <a href={props.save.href} download>
          <u>{props.save.words}</u>
        </a>
        {props.how}
        {props.may ? (
          <>
            <input
              ref={choose}
              type="file"
              accept=".csv,.xlsx,text/csv,text/plain"
              aria-label={props.choosing}
              hidden
              onChange={(event) => {
                const next = event.target.files?.[0]
                event.target.value = ''
                if (next) props.onChoose(next)
              }}
            />
            <Plain isDisabled={doing !== null} onPress={() => choose.current?.click()}>
              Choose a file
            </Plain>
          </>
        ) : null}
        {doing?.what === 'take' ? null : props.columns}
      </section>
      <section aria-label="What it comes to">
        {list.error ? <Problem>{list.error.message}</Problem> : null}
        {file ? (
          <h2 role="status">
            {file.name}:{' '}
            {doing
              ? DOING[doing.what].toLowerCase()
              : stopped
                ? 'stopped'
                : seen?.taken
                  ? 'taken'
                  : 'nothing changed yet'}
          </h2>
        ) : (
          <Soft>A file is looked at first; nothing changes until you say so.</Soft>
        )}
        {doing ? (
          <Progress
            doing={doing}
            of={doing.what === 'take' && seen ? seen.good + seen.bad : null}
            onStop={list.stop}
          />
        ) : null}
        {stopped ? (
          <p>
            {stopped === 'take'
              ? 'Nothing of it was taken.'
              : 'Choose the file again to read it from its beginning.'}
          </p>
        ) : null}
        {seen && !doing && !(stopped === 'look') ? (
          <>
            <p>{props.told(seen)}</p>
            {offered ? (
              <Main isDisabled={!offered.count} onPress={list.take}>
                {offered.words}
              </Main>
            ) : null}
            {seen.taken ? props.after : null}
            <Rows seen={seen} />
          </>
        ) : null}
      </section>
    </Both>
  )
}

function Progress(props: {
  doing: { what: 'look' | 'take'; read: number }
  of: number | null
  onStop: () => void
}) {
  const { doing, of } = props
  // From here on what was taken is there; nobody may be told it was stopped.
  const allRead = doing.what === 'take' && of !== null && doing.read >= of
  const words = `${counted(doing.read)}${of ? ` of ${counted(of)}` : ''} rows`
  return (
    <>
      <ProgressBar
        aria-label={DOING[doing.what]}
        valueLabel={words}
        {...(of ? { value: doing.read, maxValue: of } : { isIndeterminate: true })}
      >
        {({ percentage }) => (
          <Rule data-known={of ? '' : undefined}>
            <i style={{ width: `${percentage ?? 100}%` }} />
          </Rule>
        )}
      </ProgressBar>
      <p>
        <Num>{words}</Num>{' '}
        <Soft>
          {allRead ? 'Being stored.' : doing.what === 'take' ? 'All of it is taken at once, at its end.' : ''}
        </Soft>
      </p>
      {allRead ? null : <Plain onPress={props.onStop}>Stop</Plain>}
    </>
  )
}

function Rows({ seen }: { seen: Seen }) {
  return (
    <>
      {seen.problems.length ? (
        <>
          <h3>Rows that cannot be taken</h3>
          <ul>
            {seen.problems.map((each) => (
              <li key={each.line}>
                <Num>row {each.line}</Num> {each.because} <Soft>{each.shown}</Soft>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {seen.shown.length ? (
        <ul>
          {seen.shown.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      ) : null}
    </>
  )
}

/** A stroke drawn along a rule, as far as the rows are read. */
const Rule = styled.div`
  width: min(420px, 80vw);
  height: 8px;
  border-bottom: 1px solid var(--rule);
  i {
    display: block;
    height: 100%;
    background: var(--ink);
    transition: width 0.2s;
  }
  &:not([data-known]) i {
    background: repeating-linear-gradient(90deg, var(--ink) 0 6px, transparent 6px 14px);
    opacity: 0.5;
  }
  @media (prefers-reduced-motion: reduce) {
    i {
      transition: none;
    }
  }
`

const Both = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 460px minmax(0, 1fr);
  > section {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 12px;
    padding: 18px 28px;
    font-size: 15.5px;
    min-width: 0;
  }
  > section:first-child {
    border-right: 1px solid var(--rule);
  }
  h2 {
    font-size: 20px;
  }
  h3 {
    font-size: 17px;
  }
  ul {
    align-self: stretch;
  }
  li {
    padding: 6px 0;
    border-top: 1px solid var(--rule);
  }
  a {
    min-height: 44px;
    display: flex;
    align-items: center;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section {
      padding: 14px 16px;
    }
    > section:first-child {
      border-right: 0;
    }
  }
`
