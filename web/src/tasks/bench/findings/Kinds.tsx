import styled from 'styled-components'
import type { Schemas } from '../../../api/client'
import { Plain } from '../../../ui/Button'
import { Label } from '../parts'

type Kind = Schemas['CanBeFound']

const PLACES: Record<Kind['where'], string> = {
  rod: 'At a rod',
  head: 'The head',
  hoop: 'The hoop',
  edge: 'The edge',
  shell: 'The shell',
  wires: 'The wires',
  strainer: 'Strainer and butt plate',
  hardware: 'Hardware',
  inside: 'Inside',
  stand: 'The stand',
  rope: 'The rope',
  any: 'Anywhere',
}

/** Places this step looks at come first. */
export function Kinds({
  known,
  first,
  onKind,
}: {
  known: Kind[]
  first: readonly Kind['where'][]
  onKind: (kind: Kind) => void
}) {
  const places = [...new Set([...first, ...known.map((each) => each.where)])].filter((where) =>
    known.some((each) => each.where === where),
  )
  if (!known.length)
    return <Label>The list comes with the next connection; a note can be kept meanwhile.</Label>
  return (
    <List>
      {places.map((where) => (
        <section key={where} aria-label={PLACES[where]}>
          <h3>{PLACES[where]}</h3>
          <div>
            {known
              .filter((each) => each.where === where)
              .map((each) => (
                <Plain key={each.id} onPress={() => onKind(each)}>
                  {each.words}
                </Plain>
              ))}
          </div>
        </section>
      ))}
    </List>
  )
}

const List = styled.div`
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-height: 46dvh;
  overflow: auto;
  section > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    padding-top: 6px;
  }
  section button {
    min-height: 48px;
  }
  h3 {
    font: 600 15.5px var(--slab);
  }
`
