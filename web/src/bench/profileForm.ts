// What the form of a profile holds, and the profile it makes.
import type { InstrumentProfileInput, StoredInstrumentProfile } from '@lastmark/contract/types';
import {
  type InstrumentProfile,
  LINE_ENDS,
  parsePattern,
  readPattern,
  sayReading,
  USUAL_WIRE,
  type Wire,
} from '@lastmark/core/instrument';
import { typedSi } from '../parts/fields.tsx';

export interface ProfileFormValues {
  title: string;
  commands: Record<string, string>;
  /** Patterns by action. */
  replies: Record<string, string>;
  /** An example reply by action. */
  examples: Record<string, string>;
  /** Names, parted by commas. */
  channels: string;
  end: Wire['end'];
  /** Empty for an instrument without an error queue. */
  errors: string;
  patience: string;
  pause: string;
  /** A line each. */
  hello: string;
}

const inSeconds = (seconds: number): string => `${seconds} s`;

export function profileForm(profile: StoredInstrumentProfile): ProfileFormValues {
  const { commands, examples = [], channels = [], wire = USUAL_WIRE } = profile;
  return {
    title: profile.builtIn ? `${profile.title}, copy` : profile.title,
    commands: Object.fromEntries(commands.map(({ action, command }) => [action, command])),
    replies: Object.fromEntries(commands.flatMap(({ action, reply }) => (reply ? [[action, reply]] : []))),
    examples: Object.fromEntries(examples.map(({ action, reply }) => [action, reply])),
    channels: channels.join(', '),
    end: wire.end,
    errors: wire.errors ?? '',
    patience: inSeconds(wire.patience),
    pause: inSeconds(wire.pause),
    hello: wire.hello.join('\n'),
  };
}

/** How an example is read: what was understood, and what was not. Null without a pattern or an example. */
export function tried(
  pattern: string,
  reply: string,
): { readonly reads: string; readonly problems: readonly string[] } | null {
  if (pattern.trim() === '' || reply.trim() === '') return null;
  const parsed = parsePattern(pattern);
  if (!parsed.ok) return { reads: '', problems: [parsed.reason] };
  const { values, problems } = readPattern(parsed, reply);
  return { reads: sayReading(values), problems };
}

const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

function wireOf({ end, errors, patience, pause, hello }: ProfileFormValues): Wire {
  return {
    end: LINE_ENDS.find((one) => one === end) ?? 'LF',
    errors: errors.trim() === '' ? null : errors.trim(),
    patience: typedSi(patience, 'duration') ?? USUAL_WIRE.patience,
    pause: typedSi(pause, 'duration') ?? 0,
    hello: linesOf(hello),
  };
}

/** What is kept: empty actions are left out, an example is kept with what it reads now. */
export function profileInput(kind: InstrumentProfile['class'], form: ProfileFormValues): InstrumentProfileInput {
  const filled = Object.entries(form.commands).filter(([, command]) => command.trim() !== '');
  const replies = new Map(Object.entries(form.replies).filter(([, reply]) => reply.trim() !== ''));
  const wire = wireOf(form);
  const channels = form.channels
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean);
  const examples = filled.flatMap(([action]) => {
    const reply = (form.examples[action] ?? '').trim();
    const read = tried(replies.get(action) ?? '', reply);
    return read && read.problems.length === 0 ? [{ action, reply, reads: read.reads }] : [];
  });
  return {
    title: form.title.trim(),
    class: kind,
    commands: filled.map(([action, command]) => {
      const reply = replies.get(action)?.trim();
      return { action, command: linesOf(command).join('\n'), ...(reply ? { reply } : {}) };
    }),
    ...(examples.length > 0 ? { examples } : {}),
    ...(channels.length > 0 ? { channels } : {}),
    ...(JSON.stringify(wire) === JSON.stringify(USUAL_WIRE) ? {} : { wire }),
  };
}

/** The same as the core knows it. */
export function profileFrom(input: InstrumentProfileInput): InstrumentProfile {
  return {
    ...input,
    commands: Object.fromEntries(input.commands.map(({ action, command }) => [action, command])),
    replies: Object.fromEntries(input.commands.flatMap(({ action, reply }) => (reply ? [[action, reply]] : []))),
  };
}

/** A profile as the one file it travels in. */
export function profileFile({ id: _, builtIn: __, version: ___, ...profile }: StoredInstrumentProfile): Blob {
  return new Blob([JSON.stringify({ form: PROFILE_FORM, profile }, null, 2)], { type: 'application/json' });
}

const PROFILE_FORM = 'instrument profile 1';

/** The profile in such a file. @throws with a sentence when it is none; what is in it is checked when it is kept */
export function profileIn(text: string): InstrumentProfileInput {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new Error('This is no profile: the file is not JSON.');
  }
  const found = read as { form?: unknown; profile?: unknown } | null;
  if (found?.form !== PROFILE_FORM || typeof found.profile !== 'object' || found.profile === null)
    throw new Error('This is no instrument profile. Choose a file that was saved at Profiles.');
  return found.profile as InstrumentProfileInput;
}

/** How an instrument's own profile reads a reply to a line that was typed; null where it knows no such line. */
export function understood(
  profile: InstrumentProfileInput | undefined,
  line: string,
  reply: string,
): ReturnType<typeof tried> {
  const known = profile?.commands.find(({ command }) => command.split('\n').at(-1)?.trim() === line.trim());
  return known?.reply ? tried(known.reply, reply) : null;
}
