import type { Schemas } from '../../api/client'

/** Where the one next action of a line is done. */
export function actionOf(item: Schemas['OwedOut']): string {
  switch (item.doing) {
    case 'go-on':
      return `/bench/${item.job_id}`
    case 'decide':
      return `/inspect/${item.walk_id}?at=${encodeURIComponent(item.tag)}`
    case 'give-back':
      return '/shelf/lent'
    case 'call-out':
      return `/callouts/${item.callout_id}`
    case 'note':
      return `/callouts/${item.callout_id}?at=note`
    case 'buy':
      return item.kind === 'to-fetch' ? '/shelf' : '/shelf/buying'
    case 'start':
      return `/drums/${item.tag}/start?work=${item.work}&part=${item.part ?? ''}${item.kind === 'aged-head' ? '&reason=age' : ''}`
  }
}
