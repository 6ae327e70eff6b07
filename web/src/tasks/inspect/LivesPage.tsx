import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Empty, Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { LifeCurve } from './LifeCurve'

/** What rests on the workshop’s own heads, and what still on its setting. */
function restsOn(life: Schemas['LifeOut']): string {
  if (life.ended === 0) return 'none came off yet: this is what the workshop’s ways say'
  const share = Math.round(life.own * 10)
  return share >= 9 ? 'by our own heads' : `${share} of 10 parts our own heads, the rest what the ways say`
}

/** How long heads last here, which are likely to be changed next, and what that comes to for buying ahead. */
export function LivesPage() {
  const lives = useQuery({
    queryKey: keys.lives,
    queryFn: () => unwrap(api.GET('/api/heads/lives')),
    staleTime: 60_000,
  })
  if (lives.error) return <Problem>{lives.error.message}</Problem>
  const found = lives.data
  return (
    <Page>
      <Head>
        <h1>How long heads last here</h1>
        <Soft>
          Counted from the heads that came off and those still on. The band holds the truth 19 times in 20.
        </Soft>
      </Head>
      {found && !found.groups.length ? (
        <Empty>No head is on record yet. Fit one on the Bench, or say on a drum’s page what is on it.</Empty>
      ) : null}
      <Columns>
        <section aria-label="Lives">
          {found?.groups.map((life) => (
            <Row key={life.words}>
              <LifeCurve life={life} />
              <div>
                <h2>{life.words}</h2>
                <p>
                  Half are changed by month <Num>{Math.round(life.median)}</Num>, four of five between{' '}
                  <Num>{Math.round(life.early)}</Num> and <Num>{Math.round(life.late)}</Num>. {life.said}
                </p>
                <Soft>{restsOn(life)}</Soft>
              </div>
            </Row>
          ))}
        </section>
        <section aria-label="Next">
          <h2>Likely within three months</h2>
          <ul>
            {found?.likely.slice(0, 12).map((each) => (
              <li key={each.tag + each.side}>
                <Link to={`/drums/${each.tag}`}>
                  <b>{each.name}</b>
                  <span>{Math.round(each.chance * 10)} of 10</span>
                  <Soft>
                    {each.side} {each.head}, {Math.round(each.months)} months on
                  </Soft>
                </Link>
              </li>
            ))}
          </ul>
          <h2>To have by then</h2>
          <ul>
            {found?.ahead.slice(0, 10).map((each) => (
              <li key={each.what}>
                <b>{each.what}</b>
                <span>about {Math.max(1, Math.round(each.count))}</span>
              </li>
            ))}
          </ul>
        </section>
      </Columns>
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  > section + section {
    border-left: 1px solid var(--rule);
    padding: 16px 28px 24px;
  }
  > section + section h2 {
    font-size: 17px;
    padding: 10px 0 6px;
    border-bottom: 1px solid var(--ink);
  }
  li {
    border-bottom: 1px solid var(--rule);
  }
  li:has(> b),
  li > a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 12px;
    padding: 7px 0;
  }
  li b {
    font: 600 16px var(--slab);
  }
  li a > span:last-child {
    grid-column: 1 / -1;
    font-size: 14px;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section + section {
      border-left: 0;
      border-top: 1px solid var(--rule);
      padding: 14px 16px;
    }
  }
`
const Row = styled.article`
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 6px 24px;
  align-items: center;
  padding: 12px 28px;
  border-bottom: 1px solid var(--rule);
  h2 {
    font-size: 18px;
  }
  p {
    padding: 2px 0;
    font-size: 15.5px;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
    padding: 12px 16px;
  }
`
