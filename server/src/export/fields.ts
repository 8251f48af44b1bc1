// What the columns of the readings are, as a table schema (Table Schema, Frictionless Standards): type, unit, meaning.

export interface TableField {
  readonly name: string;
  readonly type: 'string' | 'number' | 'integer' | 'boolean' | 'datetime';
  readonly description: string;
}

const FIELDS: readonly (readonly [name: string, type: TableField['type'], description: string])[] = [
  ['reading', 'string', 'ULID of the reading'],
  ['point', 'string', 'ULID of the moment it belongs to'],
  ['taken_at', 'datetime', 'When it was taken, UTC, ISO 8601'],
  ['quantity', 'string', 'What was read: voltage, current, power, …'],
  ['place', 'string', 'Where: mains, port, load-end, display'],
  ['port', 'string', 'Label of the port; empty at the mains'],
  ['value', 'number', 'The value, in the SI unit of its line'],
  ['unit', 'string', 'SI unit of value and uncertainty'],
  [
    'standard_uncertainty',
    'number',
    'Standard uncertainty from the instrument, k = 1; empty where its accuracy is not stated',
  ],
  ['samples', 'integer', 'How many samples the value is the mean of'],
  ['spread', 'number', 'Standard deviation of one sample'],
  ['typed', 'string', 'As it was typed, or written by the meter'],
  ['mains', 'string', 'Supply, such as 230 V 50 Hz'],
  ['load_percent', 'number', 'Load as a part of the rated current, %'],
  ['attached', 'string', 'What was attached at no load'],
  ['loading', 'string', 'Name of the loading'],
  ['evidence', 'string', 'What it can prove: load, device, wall, display'],
  ['rig', 'string', 'Name of the rig'],
  ['instrument', 'string', 'Name of the instrument'],
  ['source', 'string', 'keypad, or the file and its lines'],
  ['calibration_overdue', 'boolean', 'Whether the calibration of its instrument was overdue'],
];

export const readingFields = (): readonly TableField[] =>
  FIELDS.map(([name, type, description]) => ({ name, type, description }));
