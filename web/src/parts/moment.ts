// When something was, as people read it: day and minute, by the clock of whoever looks.

/** @example momentText('2026-03-02T09:05:11.000Z') // '2026-03-02 09:05' in Greenwich */
export function momentText(iso: string): string {
  const at = new Date(iso);
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}:${two(at.getMinutes())}`;
}

const LOGGED = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?Z$/;

/** A value as the log keeps it: a moment as people read it, everything else as it stands. */
export const loggedText = (value: string): string => (LOGGED.test(value) ? momentText(value) : value);

/** A browser by what it calls itself. @example browserText('… Firefox/128.0') // 'Firefox on Linux' */
export function browserText(agent: string): string {
  const [, name] =
    [
      [/Edg\//, 'Edge'],
      [/Firefox\//, 'Firefox'],
      [/Chrome\//, 'Chrome or Chromium'],
      [/Safari\//, 'Safari'],
    ].find(([sign]) => (sign as RegExp).test(agent)) ?? [];
  const [, system] =
    [
      [/Android/, 'Android'],
      [/iPhone|iPad/, 'iOS'],
      [/Windows/, 'Windows'],
      [/Mac OS/, 'macOS'],
      [/Linux|X11/, 'Linux'],
    ].find(([sign]) => (sign as RegExp).test(agent)) ?? [];
  if (!name) return agent.slice(0, 40) || 'no name';
  return system ? `${name} on ${system}` : String(name);
}
