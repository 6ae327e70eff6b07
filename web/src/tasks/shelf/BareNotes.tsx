import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { newId } from '../../domain/ids'
import { Plain } from '../../ui/Button'
import { TapCatcher, toPcm } from '../../ui/ear/catcher'
import { openMicrophone, whyNot, type Open } from '../../ui/ear/microphone'
import { Field } from '../../ui/Field'
import { Num, Soft } from '../../ui/Page'
import type { Line } from './useShelf'

/** One tap from the microphone, then it is closed again. */
function useOneTap(onTap: (samples: Float32Array, rate: number) => void) {
  const open = useRef<Open | null>(null)
  const told = useRef(onTap)
  const [listening, setListening] = useState(false)
  const [words, setWords] = useState('')
  useEffect(() => {
    told.current = onTap
  })
  const stop = useCallback(() => {
    open.current?.close()
    open.current = null
    setListening(false)
  }, [])
  useEffect(() => stop, [stop])
  const start = () => {
    let catcher: TapCatcher | null = null
    setWords('')
    openMicrophone((block, rate) => {
      catcher ??= new TapCatcher(rate)
      const { tap } = catcher.feed(block)
      if (!tap || !open.current) return
      stop()
      told.current(tap, rate)
    }, stop)
      .then((opened) => {
        open.current = opened
        setListening(true)
        setWords('Hold it by the edge, free of everything, and tap the middle once.')
      })
      .catch((error: unknown) => setWords(whyNot(error)))
  }
  return { listening, words, start, stop }
}

/** The note of a bare head, tapped before it is fitted: kept with its line, and what it foretells (C9). */
export function BareNotes({ line, mayChange }: { line: Line; mayChange: boolean }) {
  const queries = useQueryClient()
  const [typed, setTyped] = useState('')
  const path = { line: line.row.id }
  const take = (kept: Line) => {
    setTyped('')
    queries.setQueryData(keys.stockLine(line.row.id), kept)
  }
  const keep = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/shelf/lines/{line}/bare', { params: { path }, body: { id: newId(), typed } })),
    onSuccess: take,
  })
  const hear = useMutation({
    mutationFn: ({ samples, rate }: { samples: Float32Array; rate: number }) =>
      unwrap(
        api.POST('/api/shelf/lines/{line}/heard', {
          params: { path, query: { id: newId(), rate: Math.round(rate) } },
          body: toPcm(samples) as never,
          bodySerializer: (body: unknown) => body as BodyInit,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    onSuccess: take,
  })
  const ear = useOneTap((samples, rate) => hear.mutate({ samples, rate }))
  const problem = keep.error instanceof ApiError ? keep.error.message : undefined
  return (
    <Box aria-label="Its note, bare">
      <h2>Its note, bare</h2>
      {line.foretells ? <p>{line.foretells}</p> : null}
      {line.bare.map((each) => (
        <p key={each.at}>
          <Num>{each.hz.toFixed(1)} Hz</Num>{' '}
          <Soft>
            {each.note}, {each.heard ? 'heard' : 'typed'} by {each.by}
          </Soft>
        </p>
      ))}
      {mayChange ? (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (typed.trim()) keep.mutate()
          }}
        >
          <Plain isDisabled={hear.isPending} onPress={() => (ear.listening ? ear.stop() : ear.start())}>
            {ear.listening ? 'Stop' : 'Listen'}
          </Plain>
          <Field label="or type it" value={typed} onChange={setTyped} error={problem} name="bare" />
          <Plain type="submit" isDisabled={!typed.trim()}>
            Keep
          </Plain>
        </form>
      ) : null}
      <Soft role="status">
        {hear.error
          ? hear.error.message
          : ear.words || 'Its own note foretells its character: lower is darker.'}
      </Soft>
    </Box>
  )
}

const Box = styled.section`
  padding-top: 6px;
  font-size: 15px;
  h2 {
    font-size: 18px;
    padding-bottom: 4px;
  }
  form {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto;
    align-items: end;
    gap: 10px;
    padding: 6px 0;
  }
`
