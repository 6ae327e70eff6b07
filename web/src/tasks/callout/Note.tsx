import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { noteOfCallout } from '../../domain/paper'
import { Main, Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { useDraft } from '../../ui/useDraft'
import type { Book, Callout, Standing } from './log/fold'
import { letterOf, openKeys, type Letter, type LetterForm } from './log/letter'
import type { Enter } from './useCallout'

interface Props {
  callout: Callout
  book: Book
  form: LetterForm
  stands: Standing
  /** When the show was. */
  on: Date
  enter: Enter
  may: boolean
  /** Some of it lies on this device only: the server's PDF would lack it. */
  waiting: boolean
}

/** The note to whom the kit belongs: kind, precise, kept; to send, to print, or to show as it is. Written here, with or without network. */
export function Note({ callout, book, form, stands, on, enter, may, waiting }: Props) {
  const letter = useMemo(() => letterOf(form, book, stands, on), [form, book, stands, on])
  const kept = stands.words.get('') ?? ''
  const [{ words }, setDraft, forget] = useDraft(`callout:${callout.id}`, { words: kept })
  const keep = () => {
    if (words !== kept) enter({ kind: 'worded', drum: '', words })
    forget()
  }
  const owing = openKeys(book, stands).size
  return (
    <Paper aria-label="Note to the owner">
      <Written letter={letter} />
      {may ? (
        <Words onBlur={keep}>
          <Field
            label="A word of your own to them"
            value={words}
            onChange={(said) => setDraft({ words: said })}
            rows={3}
          />
        </Words>
      ) : null}
      <Send {...{ callout, stands, enter, may, letter, owing, waiting }} />
    </Paper>
  )
}

function Written({ letter }: { letter: Letter }) {
  return (
    <>
      <h2>{letter.subject}</h2>
      <p>Hello,</p>
      {letter.opening.map((words) => (
        <p key={words}>{words}</p>
      ))}
      {letter.drums.map((drum) => (
        <section key={drum.tag || 'stands'}>
          <h3>{drum.name}</h3>
          <Said head="Wrong" lines={drum.broken} />
          <Said head="Done tonight" lines={drum.done} />
          <Said head="Lent" lines={drum.lent} />
          {drum.buy.length ? (
            <dl>
              <dt>Worth buying</dt>
              {drum.buy.map((what) => (
                <dd key={what}>
                  {what} <i>price</i>
                </dd>
              ))}
            </dl>
          ) : null}
          {drum.words ? <p>{drum.words}</p> : null}
        </section>
      ))}
      {letter.words ? <p>{letter.words}</p> : null}
      {letter.fine.length ? <p>Fine: {letter.fine.join(', ')}.</p> : null}
      {letter.closing.map((words) => (
        <p key={words}>{words}</p>
      ))}
      <p>
        With kind regards
        <br />
        {letter.signed}
      </p>
    </>
  )
}

function Said({ head, lines }: { head: string; lines: string[] }) {
  if (!lines.length) return null
  return (
    <dl>
      <dt>{head}</dt>
      {lines.map((words) => (
        <dd key={words}>{words}</dd>
      ))}
    </dl>
  )
}

interface SendProps {
  callout: Callout
  stands: Standing
  enter: Enter
  may: boolean
  letter: Letter
  owing: number
  waiting: boolean
}

function Send({ callout, stands, enter, may, letter, owing, waiting }: SendProps) {
  const queries = useQueryClient()
  const [copied, setCopied] = useState('')
  const text = () => {
    const data = { title: letter.subject, text: letter.text }
    if (navigator.share as unknown) void navigator.share(data).catch(() => undefined)
    else
      void navigator.clipboard
        .writeText(letter.text)
        .then(() => setCopied('Copied: paste it into a message.'))
        .catch(() => setCopied('This browser does not copy. Take the PDF.'))
  }
  const work = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/callouts/{key}/work', {
          params: { path: { key: callout.id } },
          body: { due_on: new Date().toLocaleDateString('sv') },
        }),
      ),
    onSuccess: () => {
      enter({ kind: 'answered', words: 'the work is planned here' })
      void queries.invalidateQueries({ queryKey: keys.planned })
    },
  })
  return (
    <Foot>
      <div>
        <Plain onPress={text}>Text to send</Plain>
        {waiting ? (
          <Soft>The PDF comes once the network is back.</Soft>
        ) : (
          <a href={noteOfCallout(callout.id)} target="_blank" rel="noreferrer">
            PDF
          </a>
        )}
      </div>
      {copied ? <p role="status">{copied}</p> : null}
      {work.error ? <Problem>{work.error.message}</Problem> : null}
      {work.data ? <p role="status">{work.data.words.join('. ')}.</p> : null}
      {stands.reported ? (
        <p>
          The owner has it since {shortDate(new Date(stands.reported.at))}
          {stands.answered ? ', and answered.' : owing ? '; not answered yet.' : '.'}
        </p>
      ) : null}
      {may && !stands.reported ? (
        <Main onPress={() => enter({ kind: 'reported' })}>The owner has it</Main>
      ) : may && owing && !stands.answered ? (
        <Main onPress={() => enter({ kind: 'answered', words: '' })}>They answered</Main>
      ) : null}
      {may && owing && !stands.answered && !waiting ? (
        <Plain onPress={() => work.mutate()} isDisabled={work.isPending}>
          These are ours: plan the work
        </Plain>
      ) : null}
    </Foot>
  )
}

const Paper = styled.section`
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 18px 28px 24px;
  max-width: 66ch;
  font-size: 17px;
  line-height: 1.5;
  h2 {
    font-size: 21px;
  }
  h3 {
    padding-top: 6px;
    font-size: 18px;
  }
  dl {
    display: grid;
    grid-template-columns: 112px minmax(0, 1fr);
    gap: 1px 12px;
    padding-top: 2px;
  }
  dt {
    grid-column: 1;
    color: var(--soft);
    font-size: 15px;
  }
  dd {
    grid-column: 2;
  }
  i {
    float: right;
    width: 110px;
    border-bottom: 1px solid var(--rule);
    font-style: normal;
    font-size: 14px;
    color: var(--soft);
  }
  @media (max-width: 700px) {
    padding: 12px 16px 90px;
    dl {
      grid-template-columns: minmax(0, 1fr);
    }
    dd {
      grid-column: 1;
    }
  }
`
const Words = styled.div`
  padding-top: 6px;
`
const Foot = styled.footer`
  display: grid;
  gap: 10px;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
  > div {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }
  a {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    min-height: 48px;
    border: 1.5px solid var(--ink);
    border-radius: 2px;
    font: 600 17px var(--slab);
  }
  button {
    justify-content: center;
  }
`
