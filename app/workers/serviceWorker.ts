/** Serves the app without a network, sends what waits when the network is back, takes in what is shared from a phone. */
import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { captureOf } from '../offline/captures';
import { CaptureStore } from '../offline/captureStore';
import { Outbox, SYNC_TAG } from '../offline/outbox';

type Waiting = Event & { waitUntil: (work: Promise<unknown>) => void };
type Fetching = Waiting & { request: Request; respondWith: (answer: Promise<Response>) => void };
declare const self: Omit<typeof globalThis, 'addEventListener'> & {
  __WB_MANIFEST: { url: string; revision: string | null }[];
  skipWaiting: () => Promise<void>;
  addEventListener: <E extends Event>(type: string, listen: (event: E) => void) => void;
};

const SHARE_ADDRESS = '/shared';

// Already at the first visit the page can do without the network.
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(self.__WB_MANIFEST);
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), {
    denylist: [/^\/api\//, /^\/packs\//, /^\/shared/, /^\/s\//],
  }),
);

async function sendWaiting(): Promise<void> {
  const store = await CaptureStore.open();
  const outbox = new Outbox(store);
  await outbox.wake();
  outbox.stop();
  const isLeft = (await store.list()).some((c) => c.state === 'waiting');
  store.close();
  // The browser tries a sync again that was not fulfilled.
  if (isLeft) throw new Error('Something still waits.');
}

/** The share sheet of a phone sends a form with the sounds. They are kept here first, then sent like all others. */
async function takeShared(request: Request): Promise<Response> {
  const form = await request.formData();
  const store = await CaptureStore.open();
  for (const value of form.getAll('sounds')) {
    if (value instanceof File) await store.addFile(captureOf(value), value);
  }
  store.close();
  return Response.redirect('/tray?shared=1', 303);
}

self.addEventListener<Waiting & { tag: string }>('sync', (event) => {
  if (event.tag === SYNC_TAG) event.waitUntil(sendWaiting());
});
self.addEventListener<Fetching>('fetch', (event) => {
  const isShare = event.request.method === 'POST' && new URL(event.request.url).pathname === SHARE_ADDRESS;
  if (isShare) event.respondWith(takeShared(event.request));
});
self.addEventListener<MessageEvent>('message', ({ data }) => {
  if (data === 'take-over') void self.skipWaiting();
});
