import { Link, useRouteError } from 'react-router'
import { Head, Page, Problem } from '../ui/Page'

/** An address that leads nowhere, or a view that broke. Entries on this device are untouched by it. */
export function Lost() {
  const error = useRouteError()
  const broke = error instanceof Error
  return (
    <Page>
      <Head>
        <h1>{broke ? 'This view broke' : 'Nothing here'}</h1>
      </Head>
      <Problem>
        {broke
          ? 'What you entered is kept on this device. Reload the page; if it breaks again, tell whoever runs this what you did last.'
          : 'There is no view at this address. '}
        <Link to="/" reloadDocument={broke}>
          <u>Go to Today</u>
        </Link>
      </Problem>
    </Page>
  )
}
