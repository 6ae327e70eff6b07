import { useEffect } from 'react'
import { Link, useRouteError } from 'react-router'
import { Head, Page, Problem } from '../ui/Page'
import { seekNewer } from './worker'

/** An address that leads nowhere, or a view that broke. Entries on this device are untouched by it. */
export function Lost() {
  const error = useRouteError()
  const unfetched =
    error instanceof Error && /dynamically imported module|importing a module/i.test(error.message)
  const broke = error instanceof Error && !unfetched
  const unknown = !broke && !unfetched
  useEffect(() => {
    if (unknown) void seekNewer()
  }, [unknown])
  return (
    <Page>
      <Head>
        <h1>{broke ? 'This view broke' : unfetched ? 'Not on this device yet' : 'Nothing here'}</h1>
      </Head>
      <Problem>
        {broke
          ? 'What you entered is kept on this device. Reload the page; if it breaks again, tell whoever runs this what you did last.'
          : unfetched
            ? 'This view was not opened on this device before, so it needs the network. Try again when the server answers. '
            : 'There is no view at this address. '}
        <Link to="/" reloadDocument={broke}>
          <u>Go to Today</u>
        </Link>
      </Problem>
    </Page>
  )
}
