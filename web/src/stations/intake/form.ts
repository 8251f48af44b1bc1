// The intake form as typed, and its way to what the server takes.
import { sampleInput } from '@lastmark/contract/schemas';
import type { ModelInput, SampleInput, UnitInput } from '@lastmark/contract/types';
import { type FieldError, validate } from '@lastmark/contract/validate';
import type { CableFacts, End } from '@lastmark/core/cable';
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

/** What sits in a line, as typed. */
export interface CableText extends Pick<CableFacts, 'form' | 'braid' | 'strainRelief'> {
  readonly near: End;
  readonly far: End;
  readonly length: string;
  /** Empty for not measured. */
  readonly stiff: '' | 'droop' | 'bend radius';
  readonly over: string;
  readonly droop: string;
  readonly radius: string;
  readonly pack: string;
}

type Typed = 'length' | 'width' | 'height' | 'mass';

export interface IntakeForm {
  readonly model: Omit<ModelInput, Typed | 'prices' | 'ports' | 'cable'> &
    Readonly<Record<Typed, string>> & {
      readonly prices: readonly PriceText[];
      readonly ports: readonly PortText[];
      readonly cable: CableText;
    };
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
  returnBy: null,
  notes: '',
};

const EMPTY_CABLE: CableText = {
  form: 'cable',
  near: 'C plug',
  far: 'C plug',
  length: '',
  braid: false,
  strainRelief: 'short',
  stiff: '',
  over: '',
  droop: '',
  radius: '',
  pack: '1',
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
    cable: EMPTY_CABLE,
  },
  unit: EMPTY_UNIT,
};

const typedOr = (value: number | null, quantity: 'length' | 'mass'): string =>
  value === null ? '' : formatPlain(value, quantity);

const metres = (length: number): string => formatPlain(length, 'length', length < 0.5 ? 'mm' : 'm');

function toCableText({ form, length, ends, braid, strainRelief, stiffness, pack }: CableFacts): CableText {
  return {
    form,
    near: ends[0],
    far: ends[1],
    length: length === null ? '' : metres(length),
    braid,
    strainRelief,
    stiff: stiffness?.how ?? '',
    over: stiffness?.how === 'droop' ? metres(stiffness.over) : '',
    droop: stiffness?.how === 'droop' ? metres(stiffness.droop) : '',
    radius: stiffness?.how === 'bend radius' ? metres(stiffness.radius) : '',
    pack: String(pack),
  };
}

/** A length typed without a unit is what people write on cables: metres. */
const typedMetres = (text: string): number | null =>
  typedSi(/[a-z"]/i.test(text) || text.trim() === '' ? text : `${text} m`, 'length');

function fromCableText(text: CableText): CableFacts {
  const { form, near, far, braid, strainRelief, stiff, pack } = text;
  return {
    form,
    length: typedMetres(text.length),
    ends: [near, far],
    braid,
    strainRelief,
    stiffness:
      stiff === 'droop'
        ? {
            how: stiff,
            over: typedSi(text.over, 'length') ?? Number.NaN,
            droop: typedSi(text.droop, 'length') ?? Number.NaN,
          }
        : stiff === 'bend radius'
          ? { how: stiff, radius: typedSi(text.radius, 'length') ?? Number.NaN }
          : null,
    pack: /^\d+$/.test(pack.trim()) ? Number(pack) : Number.NaN,
  };
}

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
      cable: model.cable ? toCableText(model.cable) : EMPTY_CABLE,
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
      cable: model.kind === 'cable' ? fromCableText(model.cable) : null,
      ports: (model.kind === 'cable' ? [] : model.ports).map(({ label, connector, twin }) => ({
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
