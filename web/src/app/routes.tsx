import { createBrowserRouter, type RouteObject } from 'react-router'
import { Lost } from './Lost'
import { Shell } from './Shell'

/** Each view's code arrives when it is first opened. */
const pages: RouteObject[] = [
  { index: true, lazy: async () => ({ Component: (await import('../tasks/today/TodayPage')).TodayPage }) },
  {
    path: 'drums',
    lazy: async () => ({ Component: (await import('../tasks/register/RegisterPage')).RegisterPage }),
  },
  {
    path: 'drums/new',
    lazy: async () => ({ Component: (await import('../tasks/drum-form/DrumFormPage')).DrumFormPage }),
  },
  {
    path: 'drums/bring',
    lazy: async () => ({ Component: (await import('../tasks/bring/BringPage')).BringPage }),
  },
  {
    path: 'drums/:tag',
    lazy: async () => ({ Component: (await import('../tasks/drum-sheet/SheetPage')).SheetPage }),
  },
  {
    path: 'drums/:tag/edit',
    lazy: async () => ({ Component: (await import('../tasks/drum-form/DrumFormPage')).DrumFormPage }),
  },
  {
    path: 'drums/:tag/sound',
    lazy: async () => ({ Component: (await import('../tasks/sound/SoundPage')).SoundPage }),
  },
  {
    path: 'drums/:tag/choose',
    lazy: async () => ({ Component: (await import('../tasks/choose/ChoosePage')).ChoosePage }),
  },
  {
    path: 'drums/:tag/start',
    lazy: async () => ({ Component: (await import('../tasks/start-job/StartPage')).StartPage }),
  },
  { path: 'bench', lazy: async () => ({ Component: (await import('../tasks/bench/JobsPage')).JobsPage }) },
  {
    path: 'bench/:job',
    lazy: async () => ({ Component: (await import('../tasks/bench/BenchPage')).BenchPage }),
  },
  {
    path: 'bench/:job/taps',
    lazy: async () => ({ Component: (await import('../tasks/heard/HeardPage')).HeardPage }),
  },
  {
    path: 'inspect',
    lazy: async () => ({ Component: (await import('../tasks/inspect/WalksPage')).WalksPage }),
  },
  {
    path: 'inspect/lives',
    lazy: async () => ({ Component: (await import('../tasks/inspect/LivesPage')).LivesPage }),
  },
  {
    path: 'inspect/rules',
    lazy: async () => ({ Component: (await import('../tasks/inspect/RulesPage')).RulesPage }),
  },
  {
    path: 'inspect/:walk',
    lazy: async () => ({ Component: (await import('../tasks/inspect/WalkPage')).WalkPage }),
  },
  {
    path: 'inspect/:walk/sum',
    lazy: async () => ({ Component: (await import('../tasks/inspect/SumPage')).SumPage }),
  },
  { path: 'kits', lazy: async () => ({ Component: (await import('../tasks/kits/KitsPage')).KitsPage }) },
  {
    path: 'kits/new',
    lazy: async () => ({ Component: (await import('../tasks/kits/KitFormPage')).KitFormPage }),
  },
  { path: 'kits/:kit', lazy: async () => ({ Component: (await import('../tasks/kits/KitPage')).KitPage }) },
  {
    path: 'kits/:kit/edit',
    lazy: async () => ({ Component: (await import('../tasks/kits/KitFormPage')).KitFormPage }),
  },
  {
    path: 'callouts',
    lazy: async () => ({ Component: (await import('../tasks/callout/CalloutsPage')).CalloutsPage }),
  },
  {
    path: 'callouts/:callout',
    lazy: async () => ({ Component: (await import('../tasks/callout/CalloutPage')).CalloutPage }),
  },
  {
    path: 'shelf',
    lazy: async () => ({ Component: (await import('../tasks/shelf/ShelfPage')).ShelfPage }),
  },
  {
    path: 'shelf/new',
    lazy: async () => ({ Component: (await import('../tasks/shelf/NewLinePage')).NewLinePage }),
  },
  {
    path: 'shelf/count',
    lazy: async () => ({ Component: (await import('../tasks/shelf/CountPage')).CountPage }),
  },
  {
    path: 'shelf/buying',
    lazy: async () => ({ Component: (await import('../tasks/shelf/BuyingPage')).BuyingPage }),
  },
  {
    path: 'shelf/lent',
    lazy: async () => ({ Component: (await import('../tasks/shelf/LentPage')).LentPage }),
  },
  {
    path: 'shelf/sheet',
    lazy: async () => ({ Component: (await import('../tasks/shelf/SheetPage')).SheetPage }),
  },
  {
    path: 'shelf/:line',
    lazy: async () => ({ Component: (await import('../tasks/shelf/LinePage')).LinePage }),
  },
  {
    path: 'names',
    lazy: async () => ({ Component: (await import('../tasks/names/NamesPage')).NamesPage }),
  },
  {
    path: 'changes',
    lazy: async () => ({ Component: (await import('../tasks/changes/ChangesPage')).ChangesPage }),
  },
  {
    path: 'people',
    lazy: async () => ({ Component: (await import('../tasks/people/PeoplePage')).PeoplePage }),
  },
  { path: 'you', lazy: async () => ({ Component: (await import('../tasks/you/YouPage')).YouPage }) },
  { path: 'ways', lazy: async () => ({ Component: (await import('../tasks/ways/WaysPage')).WaysPage }) },
]

export const router = createBrowserRouter([
  {
    path: '/join',
    HydrateFallback: () => null,
    lazy: async () => ({ Component: (await import('../tasks/sign-in/JoinPage')).JoinPage }),
  },
  {
    path: '/reset',
    HydrateFallback: () => null,
    lazy: async () => ({ Component: (await import('../tasks/sign-in/ResetPage')).ResetPage }),
  },
  {
    path: '/',
    Component: Shell,
    ErrorBoundary: Lost,
    HydrateFallback: () => null,
    children: [...pages, { path: '*', Component: Lost }],
  },
])
