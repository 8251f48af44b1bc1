import { describe, expect, it } from 'vitest';
import { isEnough, lesser, ROLES } from './roles.ts';
import { ROUTES, type Route } from './routes.ts';

describe('roles', () => {
  it('may each do what the ones before may, and no more', () => {
    expect(ROLES.map((has) => ROLES.filter((needed) => isEnough(has, needed)).length)).toEqual([1, 2, 3, 4]);
    expect(lesser('admin', 'reader')).toBe('reader');
    expect(lesser('engineer', 'keeper')).toBe('engineer');
  });

  it('are asked for by every operation that writes, unless somebody who is not signed in must reach it', () => {
    const routes: [string, Route][] = Object.entries(ROUTES);
    const open = routes.filter(([, { needs }]) => needs === 'nobody').map(([name]) => name);
    expect(open.sort()).toEqual([
      'backFromProvider',
      'beginProvider',
      'getMe',
      'healthLive',
      'healthReady',
      'join',
      'signIn',
      'signOut',
    ]);
    const lenient = routes
      .filter(([, { method, needs }]) => method !== 'get' && needs === 'reader')
      .map(([name]) => name);
    // A reader may switch loads off, practise, look at a set, and mind their own account.
    for (const name of ['loadsOff', 'lookAtSet', 'startDrill', 'changePassword']) expect(lenient).toContain(name);
    for (const name of ['addReadings', 'sendCommand', 'startRun', 'issueReport', 'deleteSample'])
      expect(lenient).not.toContain(name);
  });

  it('keep instruments, limit sets and methods for those who keep the bench, and people for admins', () => {
    const needed = (name: keyof typeof ROUTES) => (ROUTES[name] as Route).needs;
    for (const name of [
      'createInstrument',
      'updateInstrument',
      'createInstrumentProfile',
      'updateInstrumentProfile',
      'createRig',
      'updateRig',
      'updateProfile',
      'createLimitSet',
      'updateLimitSet',
      'deleteLimitSet',
      'createMethod',
      'updateMethod',
      'retireMethod',
    ] as const)
      expect(needed(name), name).toBe('keeper');
    for (const name of ['listPeople', 'updatePerson', 'invite', 'withdrawInvitation', 'resetPerson'] as const)
      expect(needed(name), name).toBe('admin');
  });
});
