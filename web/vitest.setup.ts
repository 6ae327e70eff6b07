import 'fake-indexeddb/auto'

// jsdom lacks CSS.escape, which the accessible parts use to find elements by id. Our ids need no more than this.
globalThis.CSS ??= { escape: (text: string) => text.replace(/[^\w-]/g, (char) => `\\${char}`) } as typeof CSS
