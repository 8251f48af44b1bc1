// A form of typed text, kept by react-hook-form; with a key also as a draft in this browser until the server has it.
import { useCallback, useEffect, useState } from 'react';
import {
  type DefaultValues,
  type FieldPath,
  type FieldPathValue,
  type FieldValues,
  type UseFormReturn,
  useForm,
  useWatch,
} from 'react-hook-form';
import { readDraft, writeDraft } from '../useDraft.ts';

export interface Typed<Form extends FieldValues> extends UseFormReturn<Form> {
  /** What stands in the fields now. */
  readonly values: Form;
  /** Change several fields at once. */
  readonly set: (part: Partial<Form>) => void;
  /** Forget the draft: the server has it, or nobody wants it. */
  readonly forget: () => void;
}

/**
 * @param start what stands in the fields at first
 * @param draft name of the draft that survives a reload; left out for a form that is short to type again
 */
export function useTyped<Form extends FieldValues>(start: Form, draft?: string): Typed<Form> {
  const [first] = useState(() => ({ ...start, ...(draft === undefined ? null : readDraft<Form>(draft)) }));
  const form = useForm<Form>({ defaultValues: first as DefaultValues<Form> });
  const values = useWatch({ control: form.control }) as Form;
  useEffect(() => {
    if (draft !== undefined && form.formState.isDirty) writeDraft(draft, values);
  }, [draft, form.formState.isDirty, values]);
  const { setValue } = form;
  const set = useCallback(
    (part: Partial<Form>) => {
      for (const [name, value] of Object.entries(part))
        setValue(name as FieldPath<Form>, value as FieldPathValue<Form, FieldPath<Form>>, { shouldDirty: true });
    },
    [setValue],
  );
  const forget = useCallback(() => {
    if (draft !== undefined) writeDraft(draft, null);
  }, [draft]);
  return { ...form, values, set, forget };
}
