import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { Key, Main, Plain } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { LookAtIt } from './LookAtIt'
import type { Schemas } from '../../api/client'
import { useKeys } from '../../ui/useKeys'
import { worksOf, type Work } from './works'

const IN_SIGHT = 3
const ABOUT: [Work['about'], string][] = [
  ['in hand', 'In hand'],
  ['batter', 'Batter'],
  ['resonant', 'Resonant'],
  ['heads', 'Both heads'],
  ['wires', 'Wires'],
  ['hardware', 'Hardware'],
  ['drum', 'The whole drum'],
]

/** What can be done with this drum, the most pressing first and largest; the rest one press away. */
export function NextWork({ sheet }: { sheet: Schemas['Sheet'] }) {
  const navigate = useNavigate()
  const [all, setAll] = useState(false)
  const go = (to: string) => () => void navigate(to)
  const works = worksOf(sheet)
  const more = works.length > IN_SIGHT
  useKeys({ w: more ? () => setAll(true) : undefined })
  if (!works.length) return null
  return (
    <Foot>
      {works.slice(0, IN_SIGHT).map(({ words, to }, n) =>
        n === 0 ? (
          <Main key={words + to} onPress={go(to)}>
            {words}
          </Main>
        ) : (
          <Plain key={words + to} onPress={go(to)}>
            {words}
          </Plain>
        ),
      )}
      {more ? (
        <Plain onPress={() => setAll(true)}>
          All work <Key>W</Key>
        </Plain>
      ) : null}
      {sheet.state === 'retired' ? null : <LookAtIt tag={sheet.tag} />}
      <Dialog title={`Work on ${sheet.name}`} wide open={all} onClose={() => setAll(false)}>
        <All>
          {ABOUT.map(([about, title]) => {
            const these = works.filter((work) => work.about === about)
            return these.length ? (
              <section key={about} aria-label={title}>
                <h3>{title}</h3>
                {these.map(({ words, to, minutes }) => (
                  <Link key={words + to} to={to}>
                    {words} {minutes ? <small>{minutes} min</small> : null}
                  </Link>
                ))}
              </section>
            ) : null
          })}
        </All>
        <Plain onPress={() => setAll(false)}>Not now</Plain>
      </Dialog>
    </Foot>
  )
}

const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  @media (max-width: 700px) {
    position: static;
    padding: 12px 16px;
    > * {
      flex: 1 1 40%;
      scroll-margin-bottom: 70px; /* the rail lies over the foot of a phone */
    }
  }
`
const All = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 18px 36px;
  h3 {
    font: 600 17px var(--slab);
    padding-bottom: 4px;
  }
  a {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 14px;
    min-height: 48px;
    padding: 4px 2px;
    border-top: 1px solid var(--rule);
    font-weight: 550;
  }
  small {
    flex: none;
    color: var(--soft);
    font: 400 13px var(--mono);
  }
`
