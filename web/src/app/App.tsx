import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { RouterProvider } from 'react-router/dom'
import { ApiError } from '../api/client'
import { GlobalStyle } from './GlobalStyle'
import { router } from './routes'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 3 && error instanceof ApiError && error.unreachable,
      networkMode: 'always',
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
