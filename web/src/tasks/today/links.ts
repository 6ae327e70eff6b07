import type { Schemas } from '../../api/client'

/** Where the one next action of a line is done. */
export function actionOf(item: Schemas['OwedOut']): string {
  switch (item.doing) {
    case 'go-on':
      return `/bench/${item.job_id}`
    case 'check':
      return `/drums/${item.tag}/start?procedure=settling-check&side=${item.side}`
    case 'change-head':
      return `/drums/${item.tag}/start?procedure=new-batter-head&side=batter&reason=age`
    case 'look':
      return `/drums/${item.tag}`
  }
}
