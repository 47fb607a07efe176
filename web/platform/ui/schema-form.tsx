import { type DefaultValue, type FormMetadata, getFormProps, type SubmissionResult, useForm } from '@conform-to/react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Form, useNavigation } from 'react-router';
import type { z } from 'zod';
import { NOT_SENT } from '../offline/unreachable';
import { FormMessage } from './fields';
import { readForm } from './read-form';
import { Unsaved } from './unsaved';
import { schemaFormWords } from './words';

interface SchemaFormOptions<Shape> {
  id?: string;
  /** What the server answered to the last try. */
  result: SubmissionResult<string[]> | null | undefined;
  defaultValue?: DefaultValue<Shape>;
  /** Says what is wrong already while it is typed, and not only after the first try. */
  validatesAtOnce?: boolean;
}

/** A form held against its schema here by the same reading as on the server: what fails says so at its field. */
export function useSchemaForm<Schema extends z.ZodType<Record<string, unknown>>>(
  schema: Schema,
  { result, validatesAtOnce, ...options }: SchemaFormOptions<z.output<Schema>>,
) {
  const [form, fields] = useForm<z.output<Schema>, z.output<Schema>, string[]>({
    ...options,
    lastResult: result ?? null,
    onValidate: ({ formData }) => readForm(formData, schema),
    ...(validatesAtOnce ? { shouldValidate: 'onInput' } : { shouldRevalidate: 'onInput' }),
  });
  return { form, fields, isBusy: useNavigation().state !== 'idle' };
}

interface SchemaFormProps<Shape extends Record<string, unknown>> {
  form: FormMetadata<Shape>;
  /** What it asks of a page that has several forms. */
  intent?: string;
  className?: string;
  /** Where it is sent; to the page's own address where it is not said. */
  action?: string | undefined;
  /** React Router’s form, or that of a fetcher where the page stays as it is. */
  as?: typeof Form;
  /** Whether so much is typed into it that one is asked before leaving it. */
  isLong?: boolean;
  /** Whether a file goes with it. */
  hasFiles?: boolean;
  children: ReactNode;
}

/** A form that is posted, with what is wrong with it as a whole at its head. */
export function SchemaForm<Shape extends Record<string, unknown>>(props: SchemaFormProps<Shape>) {
  const { form, intent, className, action, as: As = Form, isLong = false, hasFiles = false, children } = props;
  const { onSubmit, ...formProps } = getFormProps(form);
  const [isUnsaved, setUnsaved] = useState(false);
  const isRefused = form.status === 'error';
  const wasSent = useRef(false);
  // Whether what is typed in another form of the page would be lost, and that was said once.
  const [losesOther, setLosesOther] = useState(false);
  const { state } = useNavigation();
  useEffect(() => {
    if (state !== 'idle') setLosesOther(false);
  }, [state]);
  useEffect(() => {
    const typed = () => setUnsaved(true);
    // What was sent and refused, or did not get through, is not saved.
    if (isRefused) typed();
    const notSent = () => wasSent.current && typed();
    addEventListener(NOT_SENT, notSent);
    return () => removeEventListener(NOT_SENT, notSent);
  }, [isRefused]);
  return (
    <As
      method="post"
      {...formProps}
      {...(action && { action })}
      {...(hasFiles && { encType: 'multipart/form-data' as const })}
      className={className}
      onInput={() => setUnsaved(true)}
      data-unsaved={(isLong && isUnsaved) || undefined}
      onSubmit={(event) => {
        onSubmit(event);
        const others = [...document.querySelectorAll('form[data-unsaved]')].filter(
          (one) => one !== event.currentTarget,
        );
        setLosesOther(others.length > 0);
        if (!event.defaultPrevented && others.length > 0 && !losesOther) {
          event.preventDefault();
          return;
        }
        // What is held back changes the form itself: a row more, or a message at a field.
        setUnsaved(event.defaultPrevented);
        wasSent.current = !event.defaultPrevented;
      }}
    >
      {isLong && <Unsaved isUnsaved={isUnsaved} />}
      {intent && <input type="hidden" name="intent" value={intent} />}
      <FormMessage form={form} />
      {losesOther && (
        <p role="alert" className="alert block">
          {schemaFormWords.losesOther}
        </p>
      )}
      {children}
    </As>
  );
}
