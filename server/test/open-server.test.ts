// A server that others can reach: what it refuses to start with, TLS, the policy of its pages, and how fast anybody may ask.
import { readFileSync, rmSync } from 'node:fs';
import { request as tlsRequest } from 'node:https';
import { join } from 'node:path';
import express from 'express';
import { createPool } from 'mysql2/promise';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
// @ts-expect-error plain script without types
import { scratch } from '../../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../../scripts/lib/stage.mjs';
import { readConfig } from '../src/config.ts';
import { pace } from '../src/http/pace.ts';
import type { ProblemError } from '../src/http/problem.ts';

const TLS = join(import.meta.dirname, '..', 'testing', 'tls');
const CERT = join(TLS, 'cert.pem');
const KEY = join(TLS, 'key.pem');

describe('settings', () => {
  const read = (env: Record<string, string>) => readConfig({ DATABASE_URL: 'mysql://x@localhost/x', ...env });

  it('tell people apart beyond loopback, and on it when asked to', () => {
    expect(read({}).people).toBe(false);
    expect(read({ LASTMARK_PEOPLE: '1' }).people).toBe(true);
    for (const HOST of ['0.0.0.0', '::', '192.0.2.7', 'bench.lan', '127.0.0.1.evil', ''])
      expect(read({ HOST }).people, HOST).toBe(true);
    for (const HOST of ['localhost', '127.0.0.1', '127.8.9.10', '::1']) expect(read({ HOST }).people, HOST).toBe(false);
  });

  it('refuse a server that others can reach and that lets in anybody, and say what to do', () => {
    expect(() => read({ HOST: '0.0.0.0', LASTMARK_PEOPLE: '0' })).toThrow(
      /HOST is 0\.0\.0\.0.*Leave LASTMARK_PEOPLE out, so that people sign in, or leave HOST out/s,
    );
  });

  it('take certificate and key together, from files that can be read', () => {
    expect(read({}).tls).toBeNull();
    expect(read({ LASTMARK_TLS_CERT: CERT, LASTMARK_TLS_KEY: KEY }).tls?.cert).toContain('BEGIN CERTIFICATE');
    expect(() => read({ LASTMARK_TLS_CERT: CERT })).toThrow('go together');
    expect(() => read({ LASTMARK_TLS_CERT: '/nowhere.pem', LASTMARK_TLS_KEY: KEY })).toThrow(
      /LASTMARK_TLS_CERT: "\/nowhere\.pem" cannot be read/,
    );
  });

  it.each(['-1', '1.5', 'one', '11'])('believe no strange number of proxies: %s', (LASTMARK_PROXIES) => {
    expect(() => read({ LASTMARK_PROXIES })).toThrow('give a number from 0 to 10');
  });
});

describe('over TLS', () => {
  const folder = scratch('tls');
  let running: { server: { kill: (signal: string) => void }; exited: Promise<void>; port: number; code: string };
  beforeAll(async () => {
    const server = inject('databaseUrl');
    const admin = createPool(server);
    await admin.query('DROP DATABASE IF EXISTS lastmark_tls');
    await admin.query('CREATE DATABASE lastmark_tls CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
    await admin.end();
    const env = { LASTMARK_PEOPLE: '1', LASTMARK_TLS_CERT: CERT, LASTMARK_TLS_KEY: KEY };
    running = await forkServer(server.replace(/\/lastmark$/, '/lastmark_tls'), folder, { env });
  });
  afterAll(async () => {
    running.server.kill('SIGTERM');
    await running.exited;
    rmSync(folder, { recursive: true, force: true });
  });

  interface Answer {
    readonly status: number;
    readonly headers: Readonly<Record<string, string | string[] | undefined>>;
    readonly text: string;
  }
  const ask = (path: string, body?: object, version?: 'TLSv1.1'): Promise<Answer> =>
    new Promise((resolve, reject) => {
      const asked = tlsRequest(
        {
          host: '127.0.0.1',
          port: running.port,
          path,
          method: body ? 'POST' : 'GET',
          ca: readFileSync(CERT),
          headers: body ? { 'Content-Type': 'application/json' } : {},
          // Offered by this side whatever its own system thinks of it: it is the server that refuses.
          ...(version ? { minVersion: version, maxVersion: version, ciphers: 'DEFAULT@SECLEVEL=0' } : {}),
        },
        (response) => {
          let text = '';
          response.setEncoding('utf8');
          response.on('data', (part) => {
            text += part;
          });
          response.on('end', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, text }));
        },
      );
      asked.on('error', reject);
      asked.end(body ? JSON.stringify(body) : undefined);
    });

  it('answers with its own certificate, tells browsers to stay, and ties sessions to the host', async () => {
    const live = await ask('/api/health/live');
    expect([live.status, live.headers['strict-transport-security']]).toEqual([200, 'max-age=31536000']);
    const joined = await ask('/api/join', {
      secret: running.code,
      signIn: 'ada',
      name: 'Ada Marrow',
      password: 'a lamp in every hut',
    });
    expect(joined.status).toBe(201);
    expect(joined.headers['set-cookie']?.[0]).toMatch(
      /^__Host-lastmark_session=.*; Path=\/; HttpOnly; SameSite=Strict; .*; Secure$/,
    );
    await expect(ask('/api/health/live', undefined, 'TLSv1.1')).rejects.toThrow(/alert protocol version/);
    await expect(fetch(`http://127.0.0.1:${running.port}/api/health/live`)).rejects.toThrow();
  });

  it('shows pages under a policy that lets no style or script be written into them, anew each time', async () => {
    const policyOf = ({ headers }: Answer) => String(headers['content-security-policy']);
    const [one, other] = [await ask('/'), await ask('/samples/anything')];
    const nonce = /style-src 'self' 'nonce-([^']{22,})'/.exec(policyOf(one))?.[1] ?? '';
    expect(nonce).not.toBe('');
    expect(one.text).toContain(`<meta property="csp-nonce" content="${nonce}" />`);
    expect(policyOf(other)).not.toContain(nonce);
    expect(policyOf(one)).not.toMatch(/unsafe|\*|http:/);
    for (const part of ["default-src 'self'", "object-src 'none'", "frame-ancestors 'none'", "base-uri 'self'"])
      expect(policyOf(one)).toContain(part);
    expect(one.headers['cache-control']).toBe('no-store');
    expect(one.headers['referrer-policy']).toBe('no-referrer');
    expect(one.text).not.toMatch(/<style|style=|<script>|\son\w+=/);
  });
});

describe('pace', () => {
  it('lets an address ask so much a minute; Loads off, live numbers and health always', async () => {
    const app = express();
    app.use(pace((request) => request.get('X-Session') ?? null, 5));
    app.use((_request, response) => void response.json({}));
    app.use(((error: unknown, _request, response, _next) => {
      const { status, again } = (error as ProblemError).problem;
      response.status(status).json({ again });
    }) as express.ErrorRequestHandler);
    for (let turn = 0; turn < 5; turn += 1) expect((await request(app).get('/api/samples')).status).toBe(200);
    const late = await request(app).get('/api/samples');
    expect([late.status, late.body]).toEqual([429, { again: 10 }]);
    expect((await request(app).get('/practice/api/samples')).status).toBe(429);
    // Whoever is known counts by themselves, behind the same address.
    for (const session of ['one', 'other'])
      for (let turn = 0; turn < 5; turn += 1)
        expect((await request(app).get('/api/samples').set('X-Session', session)).status).toBe(200);
    expect((await request(app).get('/api/samples').set('X-Session', 'one')).status).toBe(429);
    for (const path of ['/api/loads-off', '/practice/api/loads-off', '/api/live', '/api/health/live', '/assets/x.js'])
      expect([path, (await request(app).get(path)).status]).toEqual([path, 200]);
  });
});
