import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Head, Page, Problem, Soft } from '../../ui/Page'

const PARTS: [string, string][] = [
  ['head', 'Heads'],
  ['wires', 'Snare wires'],
  ['hardware', 'Shell and hardware'],
]

/** The rules verdicts come from, and which of them this workshop does not believe. */
export function RulesPage() {
  const rules = useQuery({
    queryKey: keys.rules,
    queryFn: () => unwrap(api.GET('/api/inspect/rules')),
    staleTime: 0,
  })
  if (rules.error) return <Problem>{rules.error.message}</Problem>
  const all = rules.data ?? []
  const doubted = all.filter((rule) => rule.overruled > 0)
  return (
    <Page>
      <Head>
        <h1>Rules</h1>
        <Soft>
          Common practice, no published source. Makers’ instructions and qualified people come first. How long
          heads last is set in the workshop’s ways.
        </Soft>
      </Head>
      {doubted.length ? <Rules title="Decided otherwise here" rules={doubted} /> : null}
      {PARTS.map(([part, title]) => (
        <Rules key={part} title={title} rules={all.filter((rule) => rule.part === part && !rule.overruled)} />
      ))}
    </Page>
  )
}

function Rules({ title, rules }: { title: string; rules: Schemas['RuleOut'][] }) {
  if (!rules.length) return null
  return (
    <Table aria-label={title}>
      <h2>{title}</h2>
      <ul>
        {rules.map((rule) => (
          <li key={rule.id}>
            <b>{rule.verdict_words}</b>
            <p>
              {rule.words} <Soft>When: {rule.when}.</Soft>
            </p>
            {rule.overruled ? (
              <em>
                {rule.overruled} {rule.overruled === 1 ? 'time' : 'times'}: {rule.reasons.join('; ')}
              </em>
            ) : null}
          </li>
        ))}
      </ul>
    </Table>
  )
}

const Table = styled.section`
  padding: 16px 28px 6px;
  max-width: 1100px;
  h2 {
    font-size: 20px;
    padding-bottom: 6px;
  }
  li {
    display: grid;
    grid-template-columns: 230px minmax(0, 1fr);
    gap: 2px 20px;
    padding: 9px 0;
    border-top: 1px solid var(--rule);
  }
  em {
    grid-column: 2;
    font-style: normal;
    font-weight: 600;
  }
  @media (max-width: 700px) {
    padding: 14px 16px 6px;
    li {
      grid-template-columns: minmax(0, 1fr);
    }
    em {
      grid-column: 1;
    }
  }
`
