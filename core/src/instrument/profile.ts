// A profile maps the actions of a class to one maker's command strings. It is data: a bench copies and edits it.

import { ACTIONS, type ActionShape, type ProfileClass, type ReplyFormat } from './actions.ts';
import { scpiNumber } from './number.ts';

export interface InstrumentProfile {
  readonly title: string;
  readonly class: ProfileClass;
  /** Command string by action; values stand in braces: `CURR {amps}`. An action left out cannot be done. */
  readonly commands: Readonly<Record<string, string>>;
}

const PLACE = /\{(\w+)\}/g;

/** What is wrong with a profile, sentence by sentence; empty when nothing is. */
export function profileProblems({ class: kind, commands }: InstrumentProfile): readonly string[] {
  const shapes = ACTIONS[kind];
  return Object.entries(commands).flatMap(([action, command]) => {
    const shape = shapes[action];
    if (!shape) return [`A ${kind} has no action "${action}".`];
    const named = [...command.matchAll(PLACE)].map(([, name = '']) => name);
    const unknown = named.filter((name) => !shape.takes.includes(name));
    const lacking = shape.takes.filter((name) => !named.includes(name));
    return [
      ...(command.trim() === '' ? [`"${action}" has no command.`] : []),
      ...(/[\r\n]/.test(command) ? [`"${action}" runs over a line.`] : []),
      ...unknown.map((name) => `"${action}" has {${name}}, which it is not given.`),
      ...lacking.map((name) => `"${action}" lacks {${name}}.`),
      ...(shape.reply !== 'none' && !command.includes('?')
        ? [`"${action}" asks nothing: a query has a question mark.`]
        : []),
    ];
  });
}

/** Why an action cannot be sent. */
export class ProfileError extends Error {}

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
    const value = values[name];
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

/** How the reply of an action is to be read. @throws ProfileError for an action the class does not have */
export const replyOf = (profile: InstrumentProfile, action: string): ReplyFormat => shapeOf(profile, action).reply;

/** A reply as its format wants it. @throws ProfileError for one that does not fit */
export function readReply(format: ReplyFormat, text: string): number | readonly number[] | readonly string[] | string {
  const numbers = text.split(',').map(scpiNumber);
  switch (format) {
    case 'number': {
      const [value] = numbers;
      if (value === undefined || Number.isNaN(value) || numbers.length > 1)
        throw new ProfileError(`"${text.slice(0, 40)}" is no number.`);
      return value;
    }
    case 'numbers':
      return numbers;
    case 'words': {
      const words = text.split(',').map((word) => word.trim().toUpperCase());
      if (words.length === 1 && words[0] === '0') return [];
      if (!words.every((word) => /^[0-9A-F]{8}$/.test(word)))
        throw new ProfileError(`"${text.slice(0, 40)}" is no list of words.`);
      return words;
    }
    default:
      return text;
  }
}
