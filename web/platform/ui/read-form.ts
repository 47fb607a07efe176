import { parseWithZod } from '@conform-to/zod/v4';
import { configureCoercion } from '@conform-to/zod/v4/future';
import type { z } from 'zod';
import { readable } from '~/core/words/readable';
import { refusal } from '~/core/words/refusal';

const answers: Record<string, boolean> = { on: true, off: false };

/** How a form's texts become what a schema asks for: “0,5” is a number too, and “off” is an answer. */
const { coerceFormValue } = configureCoercion({
  type: {
    number: (text) => Number(text.trim().replace(',', '.')),
    boolean: (text) => {
      const answer = answers[text];
      if (answer === undefined) throw new Error('neither on nor off');
      return answer;
    },
  },
});

/** Holds a form against its schema, here as on the server. */
export function readForm<Schema extends z.ZodType>(form: FormData, schema: Schema) {
  return parseWithZod(form, { schema: readable(coerceFormValue(schema)), disableAutoCoercion: true, error: refusal });
}

/** A part of a form as it stands now; null while it is not complete. */
export function readValue<Schema extends z.ZodType>(value: unknown, schema: Schema): z.infer<Schema> | null {
  const parsed = coerceFormValue(schema).safeParse(value);
  return parsed.success ? (parsed.data as z.infer<Schema>) : null;
}
