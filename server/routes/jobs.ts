import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import type { JobQueue } from '../jobs/queue';
import { serve } from './serve';

const HEARTBEAT_MS = 15_000;

export function jobRoutes(queue: JobQueue): Router {
  const router = Router();

  serve(router, ENDPOINTS.listJobs, async () => ({ items: await queue.list() }));

  serve(router, ENDPOINTS.jobEvents, async ({ request, response }) => {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      Connection: 'keep-alive',
    });
    response.flushHeaders();
    const stop = queue.listen((job) => response.write(`event: job\ndata: ${JSON.stringify(job)}\n\n`));
    const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
    request.on('close', () => {
      clearInterval(heartbeat);
      stop();
      response.end();
    });
  });

  serve(router, ENDPOINTS.cancelJob, ({ params }) => queue.cancel(params.id));
  serve(router, ENDPOINTS.retryJob, ({ params }) => queue.retry(params.id));
  serve(router, ENDPOINTS.pauseJob, ({ params }) => queue.pause(params.id));
  serve(router, ENDPOINTS.resumeJob, ({ params }) => queue.resume(params.id));
  serve(router, ENDPOINTS.moveJobToFront, ({ params }) => queue.moveToFront(params.id));
  serve(router, ENDPOINTS.orderJobs, async ({ body }) => ({ items: await queue.putInOrder(body.ids) }));

  return router;
}
