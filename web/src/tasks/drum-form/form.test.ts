import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { fresh, fromForm, toForm } from './form'
import { mergedForm } from './merge'

const choices: Schemas['Choices'] = {
  places: ['boat shed'],
  owners: ['Marrow Quay'],
  kits: [],
  threads: ['M6'],
  hoops: ['wood'],
  kinds: {},
  next_tag: 'MQ-099',
}

describe('the drum form', () => {
  it('begins with the next tag and the first of each choice', () => {
    expect(fresh(choices)).toMatchObject({
      tag: 'MQ-099',
      place: 'boat shed',
      owner: 'Marrow Quay',
      thread: 'M6',
    })
  })

  it('sends whole numbers and lists', () => {
    const { body, problems } = fromForm({
      ...fresh(choices),
      rods_batter: ' 8 ',
      lost_batter: '3, 5',
      kits: 'pit kit, , ring ',
    })
    expect(problems).toEqual({})
    expect(body).toMatchObject({
      rods_batter: 8,
      lost_batter: [3, 5],
      lost_resonant: [],
      kits: ['pit kit', 'ring'],
    })
  })

  it('marks what is no number and sends nothing', () => {
    const { body, problems } = fromForm({ ...fresh(choices), rods_batter: 'eight', lost_resonant: '3; 4' })
    expect(body).toBeNull()
    expect(Object.keys(problems).sort()).toEqual(['lost_resonant', 'rods_batter'])
  })

  it('shows a saved drum as it was filled in', () => {
    const { body } = fromForm({ ...fresh(choices), name: 'Grebe', lost_batter: '2', kits: 'a, b' })
    expect(fromForm(toForm(body as Schemas['DrumIn'])).body).toMatchObject({ ...body, seen: body })
  })

  it('keeps what this person wrote and takes what others changed meanwhile', () => {
    const { body } = fromForm({ ...fresh(choices), name: 'Grebe', place: 'boat shed' })
    const began = body as Schemas['DrumIn']
    const mine = { ...toForm(began), name: 'Little Grebe', note: 'dent at rod 2' }
    const theirs = { ...began, name: 'Great Grebe', place: 'stage' }
    const now = mergedForm(mine, theirs)
    expect(now).toMatchObject({ name: 'Little Grebe', note: 'dent at rod 2', place: 'stage', seen: theirs })
  })
})
