import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { dayOf, shortDate } from '../../domain/dates'
import { Key, Plain } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'

/** "Night market, Saturday 5 December, upper deck", as far as it is known. */
const when = (kit: Schemas['KitLine']): string =>
  [kit.occasion, kit.day ? shortDate(dayOf(kit.day)) : '', kit.at].filter(Boolean).join(', ')

/** The kits there are, those that play soonest first. */
export function KitsPage() {
  const navigate = useNavigate()
  const may = mayChange(useSession().data)
  const kits = useQuery({
    queryKey: keys.kits,
    queryFn: () => unwrap(api.GET('/api/kits')),
    staleTime: 0,
  })
  const begin = () => void navigate('/kits/new')
  useKeys({ n: may ? begin : undefined })
  return (
    <Page>
      <Head>
        <h1>Kits</h1>
        <Soft>Drums that play together: where each should stand so that none sings at another.</Soft>
        {may ? (
          <span data-end>
            <Plain onPress={begin}>
              A new kit <Key>N</Key>
            </Plain>
          </span>
        ) : null}
      </Head>
      {kits.error ? <Problem>{kits.error.message}</Problem> : null}
      {kits.data && !kits.data.length ? (
        <Empty>
          No kit yet. Put the drums of one together, and see at once how they stand to each other.
        </Empty>
      ) : null}
      <List>
        {kits.data?.map((kit) => (
          <li key={kit.id}>
            <Link to={`/kits/${kit.id}`}>
              <b>{kit.name}</b>
              <span>
                {kit.drums.length} {kit.drums.length === 1 ? 'drum' : 'drums'}
              </span>
              <span>
                {when(kit) ? <strong>{when(kit)}</strong> : null}
                <Soft>{kit.drums.join(', ')}</Soft>
              </span>
            </Link>
          </li>
        ))}
      </List>
    </Page>
  )
}

const List = styled.ul`
  li {
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    grid-template-columns: minmax(0, 320px) 110px minmax(0, 1fr);
    align-items: baseline;
    gap: 18px;
    padding: 15px 28px;
  }
  a:hover {
    background: var(--lifted);
  }
  b {
    font: 600 20px var(--slab);
  }
  strong {
    display: block;
    font-weight: 600;
  }
  @media (max-width: 700px) {
    a {
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 2px 12px;
      padding: 12px 16px;
    }
    a > :last-child {
      grid-column: 1 / -1;
    }
  }
`
