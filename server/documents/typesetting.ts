import { inThread } from '../platform/threads';

export interface Typeset {
  pdf: Buffer;
  pages: number;
}

/** A document of a hundred pages takes seconds. */
const pagesSet = inThread<{ template: string; content: string }, { pdf: Uint8Array; pages: number }>('setPages', {
  seconds: 120,
  isReading: false,
});

/**
 * Sets pages from a template of Typst and what is filled in, as a PDF that keeps to PDF/UA-1 (ISO 14289-1): tagged, with bookmarks.
 *
 * @param content  reaches the template as `sys.inputs.content`, as JSON
 * @throws Error when the template fails, or what is filled in breaks the standard; Busy
 */
export async function typeset(template: string, content: unknown): Promise<Typeset> {
  const { pdf, pages } = await pagesSet({ template, content: JSON.stringify(content) });
  return { pdf: Buffer.from(pdf), pages };
}
