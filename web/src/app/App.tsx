import { QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { RouterProvider } from 'react-router/dom'
import { ApiError } from '../api/client'
import { keys } from '../api/keys'
import { askOrRemember, note } from '../api/seen'
import { enterAs, type Session } from '../api/session'
import { GlobalStyle } from './GlobalStyle'
import { router } from './routes'

const queries = new QueryClient({
  queryCache: new QueryCache({
    onSuccess(data, query) {
      if (query.queryKey[0] === keys.session[0]) enterAs(data as Session)
      note(query as never)
    },
  }),
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 3 && error instanceof ApiError && error.unreachable && !error.notSeen,
      networkMode: 'always',
      persister: askOrRemember,
    },
    mutations: { networkMode: 'always' },
  },
})

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <RouterProvider router={router} />
    </QueryClientProvider>
  )
}
