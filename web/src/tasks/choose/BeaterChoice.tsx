import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { Problem, Soft } from '../../ui/Page'
import { NotThese, Reasons } from './Reasons'
import { Answers } from './WiresChoice'
import type { Asked } from './Wish'

/** What strikes a bass drum, and the patch it lands on: what each does to head and sound. */
export function BeaterChoice({ tag, asked }: { tag: string; asked: Asked }) {
  const query = { sound: asked.sound }
  const found = useQuery({
    queryKey: ['choose-beater', tag, query],
    queryFn: () => unwrap(api.GET('/api/heads/choose-beater/{tag}', { params: { path: { tag }, query } })),
    placeholderData: keepPreviousData,
  })
  if (found.error) return <Problem>{found.error.message}</Problem>
  if (!found.data) return null
  return (
    <>
      <Soft as="p">It lands on: {found.data.now || 'a head nobody entered; taken for one ply'}</Soft>
      <Answers>
        {found.data.answers.map((answer, n) => (
          <Reasons
            key={answer.words}
            words={answer.words}
            first={n === 0}
            good={answer.speaks_for}
            bad={answer.against}
          />
        ))}
      </Answers>
      <NotThese found={found.data.excluded} />
    </>
  )
}
