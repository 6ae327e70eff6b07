import 'fake-indexeddb/auto'
import { configure } from '@testing-library/react'

// A machine that is busy with other tests is slow, not wrong.
configure({ asyncUtilTimeout: 20_000 })

// jsdom lacks CSS.escape, which the accessible parts use to find elements by id. Our ids need no more than this.
globalThis.CSS ??= { escape: (text: string) => text.replace(/[^\w-]/g, (char) => `\\${char}`) } as typeof CSS
