/** Between the app and the network: the app itself is on the device, whole, from the first visit on. */
import {
  CacheableResponsePlugin,
  ExpirationPlugin,
  NavigationRoute,
  NetworkFirst,
  Serwist,
  type PrecacheEntry,
} from 'serwist'

declare const self: ServiceWorkerGlobalScope & { __SW_MANIFEST: (PrecacheEntry | string)[] }

/** Pictures of drums that were looked at; their addresses never name another picture. `src/api/seen` empties it by this name. */
const PHOTOS = 'red-tally-photos-seen'

// A newer app is fetched beside the one at work and waits until the page takes it up: nothing changes under somebody's hands.
const worker = new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  precacheOptions: { cleanupOutdatedCaches: true },
  skipWaiting: false,
  clientsClaim: true,
})

// Every address is the one page, but what the server alone can answer.
worker.registerRoute(
  new NavigationRoute(worker.createHandlerBoundToUrl('/'), {
    denylist: [/^\/(api|static)\//, /^\/(healthz|readyz|sw\.js)$/],
  }),
)

// With the network the server says who may see a picture; without it, what was seen before is there.
worker.registerCapture(
  ({ url, request }) =>
    request.destination === 'image' &&
    url.origin === self.location.origin &&
    url.pathname.startsWith('/api/photos/'),
  new NetworkFirst({
    cacheName: PHOTOS,
    networkTimeoutSeconds: 5,
    plugins: [
      new CacheableResponsePlugin({ statuses: [200] }),
      new ExpirationPlugin({ maxEntries: 300, maxAgeSeconds: 30 * 24 * 3600, purgeOnQuotaError: true }),
    ],
  }),
)

worker.addEventListeners()
