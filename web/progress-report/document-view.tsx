import type { ReactNode } from 'react';
import { type RichParagraph, type RichText, runsOf } from '~/core/words/rich-text';
import type { ShownBlock, ShownDocument } from './shown-document';
import { documentViewWords } from './words';

interface DocumentViewProps {
  paper: ShownDocument;
  /** What stands in place of own words while they are being written, by their place among the paper’s. */
  children?: (block: ShownBlock, at: number) => ReactNode;
}

/** A document on the screen: the same blocks, in the same order, as in its PDF. */
export function DocumentView({ paper, children }: DocumentViewProps) {
  return (
    <article aria-label={paper.title} className="max-w-3xl">
      {paper.blocks.map((block, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a block is its place
        <div key={at}>{children?.(block, at) ?? <Block block={block} />}</div>
      ))}
    </article>
  );
}

function Block({ block }: { block: ShownBlock }) {
  switch (block.kind) {
    case 'heading':
      if (block.level === 1) return <h2 className="mt-4 text-2xl">{block.text}</h2>;
      if (block.level === 2) return <h3 className="mt-8 border-b border-rule pb-1 text-xl">{block.text}</h3>;
      return <h4 className="mt-3 text-base font-semibold">{block.text}</h4>;
    case 'text':
      return <p className={block.quiet ? 'mt-1 text-small text-ink-2' : 'mt-1.5'}>{block.text}</p>;
    case 'rich':
      return <RichWords words={block.words} />;
    case 'facts':
      return (
        <dl className="mt-3 grid grid-cols-[8rem_minmax(0,1fr)] gap-x-4 gap-y-1 text-small">
          {block.facts.map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="font-semibold">{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      );
    case 'drawing':
      return (
        <figure className="mt-4 break-inside-avoid">
          <img
            src={block.src}
            alt={block.caption}
            width={480}
            height={170}
            className="w-full max-w-xl rounded-field bg-white p-2"
          />
          <figcaption className="mt-1 text-small text-ink-2">{block.caption}</figcaption>
        </figure>
      );
    case 'table':
    case 'sheet':
    case 'pageBreak':
      return null;
    case 'signatures':
      return (
        <div className="mt-12 flex break-inside-avoid flex-wrap gap-x-8 gap-y-10">
          {block.names.map((name) => (
            <p key={name} className="w-52 border-t border-ink-2 pt-1 text-small">
              {documentViewWords.date(name)}
            </p>
          ))}
        </div>
      );
  }
}

const words = (paragraph: RichParagraph) =>
  runsOf(paragraph).map(({ text, bold, italic }, at) => {
    if (text === '\n') {
      // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place
      return <br key={at} />;
    }
    const inner = italic ? <em>{text}</em> : text;
    return (
      // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place
      <span key={at}>{bold ? <strong>{inner}</strong> : inner}</span>
    );
  });

/** Own words, as text: whatever was typed, none of it is markup. */
function RichWords({ words: { content } }: { words: RichText }) {
  return (
    <div className="rich mt-3 border-l-2 border-fern pl-4">
      {content.map((block, at) => {
        // biome-ignore-start lint/suspicious/noArrayIndexKey: a block is its place
        if (block.type === 'paragraph') return <p key={at}>{words(block)}</p>;
        const items = block.content.map(({ content: inside }, i) => (
          <li key={i}>
            {inside.map((paragraph, j) => (
              <p key={j}>{words(paragraph)}</p>
            ))}
          </li>
        ));
        return block.type === 'bulletList' ? <ul key={at}>{items}</ul> : <ol key={at}>{items}</ol>;
        // biome-ignore-end lint/suspicious/noArrayIndexKey: a block is its place
      })}
    </div>
  );
}
