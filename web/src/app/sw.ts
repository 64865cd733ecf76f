/// <reference lib="webworker" />
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { sendForEveryone, syncTag } from '../device/background'

declare const self: ServiceWorkerGlobalScope

// Everything the practice page uses, and nothing of the server's answers: those are kept
// by src/device, which forgets them at sign-out.
precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }))

// The page that installed it is led by it at once: the first visit, too, may lose its network.
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

// What waits on the device goes up when the network is back, the page open or not.
self.addEventListener('sync', (event) => {
  const sync = event as ExtendableEvent & { tag: string }
  if (sync.tag === syncTag) sync.waitUntil(sendForEveryone())
})
