// The intake form as typed, and its way to what the server takes.
import { sampleInput } from '@lastmark/contract/schemas';
import type { ModelInput, SampleInput, UnitInput } from '@lastmark/contract/types';
import { type FieldError, validate } from '@lastmark/contract/validate';
import { formatPlain, parseMoney } from '@lastmark/core/quantity';
import type { PortFacts } from '@lastmark/core/verdict';
import { typedSi } from '../../parts/fields.tsx';

export interface PriceText {
  readonly kind: ModelInput['prices'][number]['kind'];
  readonly amount: string;
  readonly currency: string;
  readonly date: string;
}

/** A port with an id that stays while its label is typed. */
export interface PortText extends PortFacts {
  readonly key: string;
}

type Typed = 'length' | 'width' | 'height' | 'mass';

export interface IntakeForm {
  readonly model: Omit<ModelInput, Typed | 'prices' | 'ports'> &
    Readonly<Record<Typed, string>> & { readonly prices: readonly PriceText[]; readonly ports: readonly PortText[] };
  readonly unit: UnitInput;
}

let serial = 0;
/** Key of a port in the form. */
export const portKey = (): string => {
  serial += 1;
  return `port-${Date.now()}-${serial}`;
};

export const EMPTY_UNIT: UnitInput = {
  revision: '',
  serial: '',
  dateCode: '',
  obtained: 'bought',
  disclosure: '',
  notes: '',
};

export const EMPTY_FORM: IntakeForm = {
  model: {
    maker: '',
    model: '',
    kind: 'wall',
    ports: [],
    length: '',
    width: '',
    height: '',
    mass: '',
    withPlug: true,
    plugForm: 'fixed',
    plugEarthed: false,
    plugBlocksNeighbour: false,
    inputRating: '',
    marks: [],
    prices: [],
  },
  unit: EMPTY_UNIT,
};

const typedOr = (value: number | null, quantity: 'length' | 'mass'): string =>
  value === null ? '' : formatPlain(value, quantity);

/** The form for what is stored. */
export function toForm({ model, unit }: SampleInput): IntakeForm {
  return {
    model: {
      ...model,
      length: typedOr(model.length, 'length'),
      width: typedOr(model.width, 'length'),
      height: typedOr(model.height, 'length'),
      mass: typedOr(model.mass, 'mass'),
      prices: model.prices.map((price) => ({ ...price, amount: String(price.amount) })),
      ports: model.ports.map((port) => ({ ...port, key: port.label })),
    },
    unit,
  };
}

/** What the server takes, or what is wrong with the form by field. */
export function fromForm({
  model,
  unit,
}: IntakeForm): { readonly input: SampleInput } | { readonly errors: readonly FieldError[] } {
  const labels = model.ports.map(({ label }) => label.trim());
  const input: SampleInput = {
    model: {
      ...model,
      maker: model.maker.trim(),
      model: model.model.trim(),
      length: typedSi(model.length, 'length'),
      width: typedSi(model.width, 'length'),
      height: typedSi(model.height, 'length'),
      mass: typedSi(model.mass, 'mass'),
      prices: model.prices.map((price) => ({ ...price, amount: parseMoney(price.amount).amount })),
      ports: model.ports.map(({ label, connector, twin }) => ({
        label: label.trim(),
        connector,
        twin: twin && labels.includes(twin) && twin !== label.trim() ? twin : null,
      })),
    },
    unit,
  };
  const checked = validate<SampleInput>(sampleInput, input);
  return checked.ok ? { input: checked.value } : { errors: checked.errors };
}

/** An error in the words of the form. */
export const formMessage = ({ message }: FieldError): string => message;

const words = (value: unknown): string => (typeof value === 'string' ? value || '(empty)' : JSON.stringify(value));

/** Fields that differ between two intakes. */
export function differences(mine: IntakeForm, theirs: IntakeForm): { field: string; mine: string; theirs: string }[] {
  const normal = (form: IntakeForm) => {
    const result = fromForm(form);
    const { model, unit } = 'input' in result ? result.input : form;
    return { ...model, ...unit } as Record<string, unknown>;
  };
  const a = normal(mine);
  const b = normal(theirs);
  return Object.keys(a).flatMap((field) =>
    JSON.stringify(a[field]) === JSON.stringify(b[field])
      ? []
      : [{ field, mine: words(a[field]), theirs: words(b[field]) }],
  );
}
