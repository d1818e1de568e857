import express from 'express';
import request from 'supertest';
import { makeLog, namedRequest } from './log';

const lines: Record<string, unknown>[] = [];
const log = makeLog({ write: (line) => void lines.push(JSON.parse(line) as Record<string, unknown>) });
const server = express()
  .use(namedRequest)
  .get('/', async (_request, response) => {
    await new Promise((resolve) => setTimeout(resolve, 5));
    log.error(Object.assign(new Error('No room.'), { parameters: ['what Petra said'] }), 'It failed.');
    response.end();
  });

beforeEach(() => lines.splice(0));

describe('the log', () => {
  it('names the request that it speaks of, as the answer does', async () => {
    const answers = await Promise.all([request(server).get('/'), request(server).get('/')]);
    const named = answers.map((a) => a.headers['immeld-request'] as string);
    expect(new Set(named).size).toBe(2);
    expect(lines.map((line) => line['request']).sort()).toEqual([...named].sort());
  });

  it('says what happened and where, and nothing of what somebody wrote', async () => {
    await request(server).get('/');
    expect(lines[0]).toMatchObject({ msg: 'It failed.', err: { type: 'Error', message: 'No room.' } });
    expect(JSON.stringify(lines)).not.toContain('Petra');
    expect(lines[0]!['time']).toMatch(/^\d{4}-\d{2}-\d{2}T[\d:.]+Z$/);
  });

  it('says what belongs to no request without one', () => {
    log.info('Hello.');
    expect(lines[0]).not.toHaveProperty('request');
  });
});
