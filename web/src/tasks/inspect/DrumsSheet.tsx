import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Num, Soft } from '../../ui/Page'
import type { Look, Walk } from './log/fold'
import { FindDrum } from './FindDrum'

interface Props {
  walk: Walk
  looks: Map<string, Look>
  at: string
  mayChange: boolean
  onGo: (tag: string) => void
  onAdded: () => void
  onClose: () => void
}

/** All drums of the walk and how far it is; a drum opens by scanning its tag or typing it, and is added if it is not here yet. */
export function DrumsSheet({ walk, looks, at, mayChange, onGo, onAdded, onClose }: Props) {
  const [problem, setProblem] = useState('')
  const open = async (typed: string) => {
    const tag = typed.trim()
    const here = walk.drums.find((drum) => drum.tag.toLowerCase() === tag.toLowerCase())
    if (here) return onGo(here.tag)
    if (!mayChange) return setProblem(`${tag} is not in this walk.`)
    try {
      const added = await unwrap(
        api.POST('/api/inspect/walks/{walk_id}/drums', {
          params: { path: { walk_id: walk.id } },
          body: { tag },
        }),
      )
      onAdded()
      onGo(added.tag)
    } catch (error) {
      setProblem(error instanceof ApiError ? error.body.message : 'That could not be read. Type the tag.')
    }
  }
  return (
    <Dialog title={walk.name} open wide onClose={onClose}>
      <FindDrum problem={problem} onTag={(tag) => void open(tag)} />
      <List>
        {walk.drums.map((drum) => {
          const look = looks.get(drum.tag)
          const verdict = walk.verdicts.find((each) => each.tag === drum.tag)
          return (
            <li key={drum.tag} aria-current={drum.tag === at ? 'true' : undefined}>
              <button type="button" onClick={() => onGo(drum.tag)}>
                <Num>{drum.tag}</Num>
                <b>{drum.name}</b>
                <Soft>
                  {look?.looked
                    ? (verdict?.words['drum'] ?? 'looked at')
                    : look?.notHere
                      ? 'not here'
                      : look?.marks.length
                        ? 'begun'
                        : ''}
                </Soft>
              </button>
            </li>
          )
        })}
      </List>
      <p>
        <Plain onPress={onClose}>Back</Plain>
      </p>
    </Dialog>
  )
}

const List = styled.ul`
  max-height: 48dvh;
  overflow: auto;
  border-top: 1px solid var(--rule);
  button {
    display: grid;
    grid-template-columns: 92px 150px 1fr;
    gap: 12px;
    align-items: baseline;
    width: 100%;
    min-height: 46px;
    padding: 6px 2px;
    border: 0;
    border-bottom: 1px solid var(--rule);
    background: transparent;
    text-align: left;
    cursor: pointer;
  }
  li[aria-current] button {
    background: var(--faint);
  }
  b {
    font: 600 17px var(--slab);
  }
  @media (max-width: 500px) {
    button {
      grid-template-columns: 76px 100px 1fr;
      gap: 8px;
    }
  }
`
