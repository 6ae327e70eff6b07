import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { DayField } from '../../ui/DayField'
import { Num, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import type { Chosen } from './planning'

type Work = Schemas['ProposedOut']

interface Props {
  walk: string
  drum: Schemas['ToPlan']
  left: boolean
  chosen: (work: Work) => Chosen | undefined
  mayChange: boolean
  onChange: (work: Work, change: Partial<Chosen>) => void
  onLeave: (left: boolean) => void
}

const headWords = (head: Schemas['HeadChoice']): string =>
  `${head.head}${head.free ? `, ${head.free} free${head.shelf ? ` at ${head.shelf}` : ''}` : ', none free'}`

/** One drum's work: which of it, by when, with which head. */
export function PlanRow({ walk, drum, left, chosen, mayChange, onChange, onLeave }: Props) {
  return (
    <Row data-left={left || undefined}>
      <h2>
        <Link to={`/inspect/${walk}?at=${encodeURIComponent(drum.tag)}`}>{drum.name}</Link>
        <Soft>
          <Num>{drum.tag}</Num> {drum.kind_words}, {drum.size}
        </Soft>
      </h2>
      <p>{drum.headline}</p>
      {left
        ? null
        : drum.works.map((work) => {
            const each = chosen(work)
            if (!each) return null
            return (
              <Piece key={work.work + work.part} data-off={!each.on || undefined}>
                <label>
                  <input
                    type="checkbox"
                    checked={each.on}
                    disabled={!mayChange}
                    onChange={(event) => onChange(work, { on: event.target.checked })}
                  />
                  {work.title}
                </label>
                {each.on ? (
                  <>
                    <DayField
                      label={`${drum.name}, ${work.title}: due`}
                      hideLabel
                      value={each.due}
                      disabled={!mayChange}
                      onChange={(due) => due && onChange(work, { due })}
                    />
                    {work.new_heads.map((side) => {
                      const fits = drum.heads[side] ?? []
                      return (
                        <Select
                          key={side}
                          label={`${side} head`}
                          value={String(each.heads[side] ?? '')}
                          onChange={(value) =>
                            onChange(work, { heads: { ...each.heads, [side]: value ? Number(value) : null } })
                          }
                          options={[
                            ...fits.map((head): [string, string] => [
                              String(head.stock_item),
                              headWords(head),
                            ]),
                            ['', fits.length ? 'to be bought' : 'none on the shelf: to be bought'],
                          ]}
                        />
                      )
                    })}
                  </>
                ) : null}
              </Piece>
            )
          })}
      {mayChange ? (
        <Plain aria-pressed={left} onPress={() => onLeave(!left)}>
          {left ? 'Left as it is ✓' : 'Leave it as it is'}
        </Plain>
      ) : null}
    </Row>
  )
}

const Row = styled.article`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 16px;
  align-items: baseline;
  padding: 12px 28px;
  border-bottom: 1px solid var(--rule);
  h2 {
    font-size: 20px;
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px 12px;
  }
  h2 span {
    font: 400 14px var(--text);
    letter-spacing: 0;
  }
  > p {
    grid-column: 1 / -1;
  }
  > button {
    grid-area: 1 / 2;
    min-height: 44px;
    margin: -8px 0;
    border-color: transparent;
    font: 500 14.5px var(--text);
    padding: 0 8px;
  }
  &[data-left] > p {
    color: var(--soft);
  }
  @media (max-width: 700px) {
    padding: 12px 16px;
    grid-template-columns: minmax(0, 1fr);
    > button {
      grid-area: auto;
      justify-self: start;
      padding: 0;
    }
  }
`
const Piece = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: minmax(180px, 1fr) 150px minmax(180px, 1.4fr);
  gap: 4px 16px;
  align-items: end;
  padding: 4px 0;
  > label:first-child {
    display: flex;
    align-items: center;
    gap: 12px;
    min-height: 48px;
    font-weight: 600;
    cursor: pointer;
  }
  input[type='checkbox'] {
    width: 24px;
    height: 24px;
    accent-color: var(--ink);
  }
  &[data-off] > label:first-child {
    color: var(--soft);
    text-decoration: line-through;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) 140px;
    > label:nth-child(n + 3) {
      grid-column: 1 / -1;
    }
  }
`
