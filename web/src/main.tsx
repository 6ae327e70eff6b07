import '@fontsource-variable/besley'
import '@fontsource-variable/instrument-sans'
import '@fontsource-variable/martian-mono'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './app/App'
import { restoreLetterKeys } from './ui/letters'
import { restoreTheme } from './ui/theme'
import { startWorker } from './app/worker'

restoreTheme()
restoreLetterKeys()
void startWorker()
const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  )
