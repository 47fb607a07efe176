import { z } from 'zod';

/** Words with little form, as an editor makes them: paragraphs, lists, bold and italic. The shape is ProseMirror’s JSON. */
const mark = z.object({ type: z.enum(['bold', 'italic']) });
const text = z.object({ type: z.literal('text'), text: z.string().max(4000), marks: z.array(mark).max(2).optional() });
const inline = z.union([text, z.object({ type: z.literal('hardBreak') })]);
const paragraph = z.object({ type: z.literal('paragraph'), content: z.array(inline).max(400).optional() });
const item = z.object({ type: z.literal('listItem'), content: z.array(paragraph).max(20) });
const list = z.object({ type: z.enum(['bulletList', 'orderedList']), content: z.array(item).max(60) });

export const richText = z.object({
  type: z.literal('doc'),
  content: z
    .array(z.union([paragraph, list]))
    .max(100)
    .default([]),
});
export type RichText = z.infer<typeof richText>;
export type RichBlock = RichText['content'][number];
export type RichParagraph = z.infer<typeof paragraph>;

export interface Run {
  text: string;
  bold: boolean;
  italic: boolean;
}

/** The runs of a paragraph, each with its form; a line break is a run of its own. */
export function runsOf({ content = [] }: RichParagraph): Run[] {
  return content.map((node) => {
    if (node.type === 'hardBreak') return { text: '\n', bold: false, italic: false };
    const has = (type: 'bold' | 'italic') => node.marks?.some((one) => one.type === type) ?? false;
    return { text: node.text, bold: has('bold'), italic: has('italic') };
  });
}

/** Words without their form. */
export function plainText({ content }: RichText): string {
  const ofParagraph = (node: RichParagraph) =>
    runsOf(node)
      .map((run) => run.text)
      .join('');
  return content
    .map((block) =>
      block.type === 'paragraph'
        ? ofParagraph(block)
        : block.content.map(({ content: inside }) => `– ${inside.map(ofParagraph).join(' ')}`).join('\n'),
    )
    .join('\n')
    .trim();
}

export const isEmptyText = (words: RichText): boolean => plainText(words) === '';

export const noWords: RichText = { type: 'doc', content: [] };
