// A profile maps the actions of a class to one maker's command strings. It is data: a bench copies and edits it.

import { ACTIONS, type ActionShape, type ProfileClass } from './actions.ts';
import { ProfileError } from './problem.ts';
import { replyProblems } from './reply.ts';

export interface InstrumentProfile {
  readonly title: string;
  readonly class: ProfileClass;
  /**
   * Command string by action; values stand in braces: `CURR {amps}`. Several lines are sent one after the other, the last
   * one asks. An action left out cannot be done.
   */
  readonly commands: Readonly<Record<string, string>>;
  /** How a reply is read, where it is not plain numbers in the order of its action; by action, see `parsePattern`. */
  readonly replies?: Readonly<Record<string, string>> | undefined;
  /** Replies with what they must be read as: the profile's own tests. */
  readonly examples?: readonly ReplyExample[] | undefined;
  /** What {channel} is called, from the first on; numbers where left out. */
  readonly channels?: readonly string[] | undefined;
  readonly wire?: Wire | undefined;
}

export interface ReplyExample {
  readonly action: string;
  /** As it came. */
  readonly reply: string;
  /** "volts 20.02, amps 2.25" in plain units. */
  readonly reads: string;
}

/** What ends a line. */
export const LINE_ENDS = ['LF', 'CR LF', 'CR'] as const;

/** How lines go to and fro. */
export interface Wire {
  readonly end: (typeof LINE_ENDS)[number];
  /** The question for its error queue; null for an instrument that has none. */
  readonly errors: string | null;
  /** How long a reply may take, s. */
  readonly patience: number;
  /** Pause after a command before the next, s. */
  readonly pause: number;
  /** Sent once after connecting, line by line. */
  readonly hello: readonly string[];
}

export const USUAL_WIRE: Wire = { end: 'LF', errors: 'SYST:ERR?', patience: 2, pause: 0, hello: [] };

const PLACE = /\{(\w+)\}/g;

/** What is wrong with a profile, sentence by sentence; empty when nothing is. */
export function profileProblems(profile: InstrumentProfile): readonly string[] {
  const { class: kind, commands, replies = {} } = profile;
  const shapes = ACTIONS[kind];
  const ofCommands = Object.entries(commands).flatMap(([action, command]) => {
    const shape = shapes[action];
    if (!shape) return [`A ${kind} has no action "${action}".`];
    const named = [...command.matchAll(PLACE)].map(([, name = '']) => name);
    const unknown = named.filter((name) => !shape.takes.includes(name));
    const lacking = shape.takes.filter((name) => !named.includes(name));
    return [
      ...(command.trim() === '' ? [`"${action}" has no command.`] : []),
      ...((command.includes('\r') || command.split('\n').some((line) => line.trim() === '')) && command.trim() !== ''
        ? [`"${action}" has an empty line or a return in it.`]
        : []),
      ...unknown.map((name) => `"${action}" has {${name}}, which it is not given.`),
      ...lacking.map((name) => `"${action}" lacks {${name}}.`),
      ...(shape.reply !== 'none' && !command.includes('?') && !(action in replies)
        ? [`"${action}" asks nothing: a query has a question mark.`]
        : []),
    ];
  });
  return [...ofCommands, ...replyProblems(profile)];
}

const shapeOf = (profile: InstrumentProfile, action: string): ActionShape => {
  const shape = ACTIONS[profile.class][action];
  if (!shape) throw new ProfileError(`A ${profile.class} has no action "${action}".`);
  return shape;
};

/**
 * The command of an action with its values in place.
 * @param values SI numbers, or words such as a face
 * @throws ProfileError when the profile or a value does not allow it
 */
export function commandFor(
  profile: InstrumentProfile,
  action: string,
  values: Readonly<Record<string, number | string>> = {},
): string {
  shapeOf(profile, action);
  const command = profile.commands[action];
  if (command === undefined) throw new ProfileError(`The profile "${profile.title}" cannot do "${action}".`);
  return command.replace(PLACE, (_, name: string) => {
    const value =
      name === 'channel' ? (profile.channels?.[Number(values.channel) - 1] ?? values.channel) : values[name];
    if (value === undefined) throw new ProfileError(`"${action}" needs ${name}.`);
    if (typeof value === 'number') {
      if (!Number.isFinite(value)) throw new ProfileError(`${name} is not a finite number.`);
      return String(Number(value.toPrecision(9)));
    }
    // A word goes as it is, and may not smuggle in a second command.
    if (!/^[A-Za-z0-9_ -]{1,24}$/.test(value)) throw new ProfileError(`${name} is no plain word.`);
    return value;
  });
}
