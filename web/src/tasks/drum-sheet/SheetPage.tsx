import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { serviceCard } from '../../domain/paper'
import { Plain, Quiet } from '../../ui/Button'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { Bearing } from '../../ui/Bearing'
import { Waiting } from '../../ui/Waiting'
import { NextWork } from './NextWork'
import { PitchPlot } from './PitchPlot'
import { SideState } from './SideState'
import { AsLeft } from './AsLeft'
import { Lent } from './Lent'
import { LookPhotos } from './LookPhotos'
import { PlannedWork } from './PlannedWork'
import { Standing } from './Standing'
import { Timeline } from './Timeline'
import { WhatStands } from './WhatStands'
import { WiresState } from './WiresState'

type Sheet = Schemas['Sheet']

const hoopWords = (hoops: string): string => (/hoops?$/.test(hoops) ? hoops : `${hoops} hoops`)

/** One drum: what is fitted, how it stands, what happened, what next. */
export function SheetPage() {
  const { tag = '' } = useParams()
  const session = useSession()
  const sheet = useQuery({
    queryKey: keys.sheet(tag),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}/sheet', { params: { path: { tag } } })),
  })
  if (sheet.error) return <Problem>{sheet.error.message}</Problem>
  if (!sheet.data) return <Waiting />
  return <Shown sheet={sheet.data} mayChange={mayChange(session.data)} />
}

function Shown({ sheet, mayChange: may }: { sheet: Sheet; mayChange: boolean }) {
  const navigate = useNavigate()
  const [side, setSide] = useState<'batter' | 'resonant'>('batter')
  const sound = useQuery({
    queryKey: keys.sound(sheet.tag),
    queryFn: () => unwrap(api.GET('/api/sound/{tag}', { params: { path: { tag: sheet.tag } } })),
  })
  const batter = sheet.sides.find((each) => each.side === side)
  const rods = batter?.rods ?? 0
  const [standing, setStanding] = useState(false)
  const nothing = sheet.sides.every((each) => !each.head)
  const facts = [
    sheet.kind_words,
    sheet.size,
    rods ? `${rods} rods` : 'rope',
    sheet.shell,
    sheet.hoops && hoopWords(sheet.hoops),
    sheet.thread,
  ]
  return (
    <Page>
      <Head>
        <h1>{sheet.name}</h1>
        <Num>{sheet.tag}</Num>
        <Soft>{facts.filter(Boolean).join(', ')}</Soft>
        <span data-end>
          {sheet.state === 'in'
            ? sheet.place
            : { out: 'out', repair: 'in repair', retired: 'retired' }[sheet.state]}
          {sheet.kits.length ? <Soft>, {sheet.kits.join(', ')}</Soft> : null}
        </span>
        <Deeds>
          {rods ? <Edit onPress={() => void navigate(`/drums/${sheet.tag}/sound`)}>Sound</Edit> : null}
          <Edit onPress={() => void window.open(serviceCard(sheet.tag), '_blank', 'noopener')}>Card</Edit>
          {may ? <Edit onPress={() => void navigate(`/drums/${sheet.tag}/edit`)}>Edit</Edit> : null}
        </Deeds>
      </Head>
      <Columns>
        <section aria-label="How it stands">
          {rods ? (
            <Plan>
              <Bearing
                rods={rods}
                lost={batter?.lost ?? []}
                badge={sheet.badge}
                size={168}
                wires={sheet.snare_bed || Boolean(sheet.wires)}
                port={Boolean(sheet.port) && side === 'resonant'}
                label={`${side} head from above, ${rods} rods${batter?.lost.length ? `, rod ${batter.lost.join(', ')} lost` : ''}`}
              />
            </Plan>
          ) : null}
          {sheet.sides.map((each) => (
            <SideState
              key={each.side}
              state={each}
              film={sound.data?.sides.find((one) => one.side === each.side) ?? null}
              chosen={each.side === side}
              onChoose={() => setSide(each.side)}
            />
          ))}
          {sheet.wires ? <WiresState wires={sheet.wires} /> : null}
          {may ? (
            <Stands onPress={() => setStanding(true)}>
              {nothing ? 'Say what is on it' : 'Something else is on it'}
            </Stands>
          ) : null}
          {standing ? <WhatStands sheet={sheet} onClose={() => setStanding(false)} /> : null}
          <PlannedWork tag={sheet.tag} mayChange={may} />
          <Lent tag={sheet.tag} />
          <Standing findings={sheet.findings} tag={sheet.tag} mayChange={may} />
          <LookPhotos tag={sheet.tag} />
          <AsLeft kept={sheet.kept} />
          {sheet.note ? <p>{sheet.note}</p> : null}
        </section>
        <section aria-label="History">
          <PitchPlot sheet={sheet} side={side} />
          <Timeline
            tag={sheet.tag}
            log={sheet.log}
            inHand={sheet.sides.filter((each) => each.job_id)}
            may={may}
          />
        </section>
      </Columns>
      {may ? <NextWork sheet={sheet} /> : null}
    </Page>
  )
}

const Stands = styled(Quiet)`
  margin-left: 2px;
`
const Deeds = styled.span`
  display: flex;
  gap: 10px;
`
const Edit = styled(Plain)`
  min-height: 44px;
  margin: -8px 0;
`
const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 372px minmax(0, 1fr);
  min-height: 0;
  > section {
    padding: 14px 28px 20px;
  }
  > section:first-child {
    border-right: 1px solid var(--rule);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > section {
      padding: 12px 16px;
    }
    > section:first-child {
      border-right: 0;
    }
  }
`
const Plan = styled.div`
  display: grid;
  place-items: center;
  padding-bottom: 8px;
`
