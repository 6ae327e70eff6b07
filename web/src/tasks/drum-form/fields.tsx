import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { between, likelyDepth, likelyDiameter, likelyPitch, likelyPort } from '../../domain/likely'
import { Field } from '../../ui/Field'
import { Select } from '../../ui/Select'
import type { DrumForm } from './form'
import { Group } from './Group'

interface Part {
  form: DrumForm
  set: (next: Partial<DrumForm>) => void
  errors: Record<string, string>
  choices: Schemas['Choices']
  unit: 'in' | 'mm'
}

const same = (names: string[]): [string, string][] => names.map((name) => [name, name])

function useText({ form, set, errors }: Part) {
  return (name: keyof DrumForm & string) => ({
    name,
    value: String(form[name]),
    onChange: (value: string) => set({ [name]: value }),
    error: errors[name],
  })
}

const ofKind = ({ form, choices }: Part): [string, string] => [form.kind, choices.kinds[form.kind] ?? 'drum']

export function IdentityFields(part: Part) {
  const text = useText(part)
  const across = likelyDiameter(...ofKind(part), part.unit)
  const deep = likelyDepth(...ofKind(part), part.unit)
  const kinds = Object.entries(part.choices.kinds)
  return (
    <Group title="Which drum">
      <Field label="Tag" required {...text('tag')} />
      <Field label="Name" required {...text('name')} />
      <Select label="Kind" {...text('kind')} options={kinds} />
      <Field
        label={`Diameter, ${part.unit}`}
        required
        {...text('diameter')}
        likely={across}
        inputMode="decimal"
      />
      <Field label={`Depth, ${part.unit}`} required {...text('depth')} likely={deep} inputMode="decimal" />
      <Field label="Shell" {...text('shell')} />
    </Group>
  )
}

const RODS = between(4, 12, 'A head usually has 4 to 12 rods.')
const HOURS = between(0, 40, 'A drum is seldom played more than 40 hours a week.')

export function BuildFields(part: Part) {
  const text = useText(part)
  return (
    <Group title="Rods, hoops, edge">
      <Field label="Rods, batter side" required {...text('rods_batter')} likely={RODS} inputMode="numeric" />
      <Field
        label="Rods, resonant side"
        required
        {...text('rods_resonant')}
        likely={RODS}
        inputMode="numeric"
      />
      <Field label="Lost rods, batter" {...text('lost_batter')} hint="numbers, clockwise from the badge" />
      <Field label="Lost rods, resonant" {...text('lost_resonant')} />
      <Field label="Thread" {...text('thread')} list="threads" />
      <Field label="Hoops" {...text('hoops')} list="hoops" />
      <Select
        label="Badge"
        {...text('badge')}
        options={[
          ['between', 'between the last rod and rod 1'],
          ['at-rod', 'in line with rod 1'],
          ['none', 'no badge; mark rod 1 yourself'],
        ]}
      />
      <Select
        label="Snare bed"
        value={part.form.snare_bed ? 'yes' : 'no'}
        onChange={(value) => part.set({ snare_bed: value === 'yes' })}
        options={[
          ['no', 'none'],
          ['yes', 'in the resonant edge'],
        ]}
      />
      {part.form.snare_bed ? (
        <Field label="Rods beside the bed" {...text('bed_rods')} hint="resonant side, such as 1, 2, 5, 6" />
      ) : null}
      <Field
        label={`Port, ${part.unit}`}
        {...text('port')}
        likely={likelyPort(part.unit)}
        inputMode="decimal"
        hint="empty: no port"
      />
      {part.form.port ? (
        <Field label="Rods beside the port" {...text('port_rods')} hint="their readings are trusted less" />
      ) : null}
      <datalist id="threads">
        {part.choices.threads.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
      <datalist id="hoops">
        {part.choices.hoops.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
    </Group>
  )
}

export function PitchFields(part: Part) {
  const text = useText(part)
  const likely = likelyPitch(...ofKind(part))
  return (
    <Group title="Usual pitch at the rods">
      <Field
        label="Batter"
        {...text('wanted_batter')}
        likely={likely}
        hint="175, or F3 +5; empty: not known"
      />
      <Field label="Resonant" {...text('wanted_resonant')} likely={likely} />
    </Group>
  )
}

export function PlaceFields(part: Part) {
  const text = useText(part)
  return (
    <Group title="Where and whose">
      <Field label="Place" required {...text('place')} list="places" />
      <Field label="Owner" required {...text('owner')} list="owners" />
      <Field label="Kits" {...text('kits')} hint="separated by commas" />
      <Select
        label="State"
        {...text('state')}
        options={[
          ['in', 'in'],
          ['out', 'out'],
          ['repair', 'in repair'],
          ['retired', 'retired'],
        ]}
      />
      <Wide>
        <Field label="Played, hours a week" {...text('hours_week')} likely={HOURS} inputMode="decimal" />
        <Field label="Note" {...text('note')} rows={2} />
      </Wide>
      {(['places', 'owners'] as const).map((id) => (
        <datalist key={id} id={id}>
          {same(part.choices[id]).map(([each]) => (
            <option key={each} value={each} />
          ))}
        </datalist>
      ))}
    </Group>
  )
}

const Wide = styled.div`
  grid-column: 1 / -1;
`
