import { useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { mayChange, useSession } from '../../api/session'
import { shortDate } from '../../domain/dates'
import { Plain } from '../../ui/Button'
import { Head, Num, Owed, Page, Problem, Soft } from '../../ui/Page'
import { StockStrokes } from '../../ui/StockStrokes'
import { Waiting } from '../../ui/Waiting'
import { BareNotes } from './BareNotes'
import { KeepSheet } from './KeepSheet'
import { MoveSheet } from './MoveSheet'
import { Movements } from './Movements'
import { useLine, useTakeBack, type Line } from './useShelf'
import { DEEDS, type Deed } from './deeds'

/** One line of the shelf: what lies where, whose it is, and everything that happened to it. */
export function LinePage() {
  const { line: id = '' } = useParams()
  const line = useLine(Number(id))
  if (line.error) return <Problem>{line.error.message}</Problem>
  if (!line.data) return <Waiting />
  return <Shown line={line.data} />
}

function Shown({ line }: { line: Line }) {
  const may = mayChange(useSession().data)
  const [deed, setDeed] = useState<Deed | 'keep' | null>(null)
  const { row } = line
  const back = useTakeBack(row.id)
  return (
    <Page>
      <Head>
        <h1>{line.called}</h1>
        <Soft>
          {row.place ? `usually in ${row.place}` : 'no usual place'}
          {row.minimum ? `, ${row.minimum} to be kept there` : ''}
        </Soft>
        <Link to="/shelf" data-end>
          <u>Shelf</u>
        </Link>
      </Head>
      <Columns>
        <section aria-label="How it stands">
          <Count>
            <StockStrokes
              free={row.free}
              promised={Math.min(row.promised, row.there)}
              short={Boolean(row.owed)}
            />
            <b>{row.there} there</b>
            {row.owed ? <Owed>{row.owed}</Owed> : null}
          </Count>
          {row.used ? <p>For an emergency only: a seated film does not sit on another edge (C10).</p> : null}
          {line.note ? <p>{line.note}</p> : null}
          <dl>
            {line.heaps.map((heap) => (
              <div key={heap.place + heap.batch}>
                <dt>
                  <Num>{heap.place || 'no place'}</Num>
                  {heap.batch ? <Soft>, batch {heap.batch}</Soft> : null}
                </dt>
                <dd>{heap.count}</dd>
              </div>
            ))}
            {line.promises.map((each) => (
              <div key={each.tag + each.place}>
                <dt>
                  promised to{' '}
                  <Link to={`/drums/${each.tag}`}>
                    <u>{each.name}</u>
                  </Link>
                  <Soft>
                    , {each.place}, {each.by} {shortDate(new Date(each.at))}
                  </Soft>
                </dt>
                <dd>1</dd>
              </div>
            ))}
            {line.loans.map((each) => (
              <div key={each.id}>
                <dt>
                  <Link to="/shelf/lent">
                    <Owed>lent to {each.to_words}</Owed>
                  </Link>
                </dt>
                <dd>{each.number}</dd>
              </div>
            ))}
            {line.going_back.map((each) => (
              <div key={each.id}>
                <dt>
                  <Link to="/shelf/buying">
                    <u>to go back: {each.what}</u>
                  </Link>
                </dt>
                <dd>{each.count}</dd>
              </div>
            ))}
          </dl>
          {line.codes.length ? (
            <Soft>
              Its labels: <Num>{line.codes.join(', ')}</Num>
            </Soft>
          ) : null}
          {row.sort === 'head' && !row.used ? <BareNotes line={line} mayChange={may} /> : null}
          {may ? (
            <Deeds role="group" aria-label="What happened">
              {DEEDS.map((each) => (
                <Plain key={each.deed} onPress={() => setDeed(each.deed)}>
                  {each.words}
                </Plain>
              ))}
              <Plain onPress={() => setDeed('keep')}>Place, minimum</Plain>
            </Deeds>
          ) : null}
        </section>
        <section aria-label="Movements">
          {back.error ? <Problem>{back.error.message}</Problem> : null}
          <Movements
            moves={line.movements}
            onBack={may && !back.isPending ? (act) => back.mutate(act) : null}
          />
        </section>
      </Columns>
      {deed && deed !== 'keep' ? <MoveSheet line={line} deed={deed} onClose={() => setDeed(null)} /> : null}
      {deed === 'keep' ? <KeepSheet line={line} onClose={() => setDeed(null)} /> : null}
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  > section {
    padding: 16px 28px 24px;
  }
  > section:first-child {
    display: flex;
    flex-direction: column;
    gap: 12px;
    border-right: 1px solid var(--rule);
  }
  dl > div {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
  dd {
    font: 500 15px var(--mono);
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
const Count = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  b {
    font: 650 22px var(--slab);
  }
`
const Deeds = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  button {
    font-size: 16px;
    padding: 0 14px;
  }
`
