import type { Said } from '~/core/progress/sentences';
import { howComputedWords } from './words';

interface HowComputedProps {
  computed: Said[];
  /** How easily luck would meet the criterion; nothing where it cannot be told. */
  luck: string[];
  /** Where the numbers behind the page are. */
  data: string;
  /** What `analyse` is told to give the page’s figures from them. */
  command: string;
}

/** Methods and coefficients for whoever wants to check a page, and the numbers to check it with. */
export function HowComputed({ computed, luck, data, command }: HowComputedProps) {
  return (
    <details className="mt-8 max-w-3xl">
      <summary className="tap py-1.5 text-lg font-semibold link">{howComputedWords.howThisIsComputed}</summary>
      {luck.length > 0 && (
        <>
          <h3 className="mt-3 text-base">{howComputedWords.howEasilyLuckWouldMeet}</h3>
          {luck.map((sentence) => (
            <p key={sentence} className="mt-0.5 text-small text-ink-2">
              {sentence}
            </p>
          ))}
          <p className="mt-0.5 text-small text-ink-2">{howComputedWords.daysAreTakenToBe}</p>
        </>
      )}
      {computed.map(({ title, text }) => (
        <section key={title} className="mt-3">
          <h3 className="text-base">{title}</h3>
          <p className="mt-0.5 text-small text-ink-2">{text}</p>
        </section>
      ))}
      <h3 className="mt-3 text-base">{howComputedWords.checkItYourself}</h3>
      <p className="mt-0.5 text-small text-ink-2">
        <a href={data} download className="link">
          {howComputedWords.dataOfThisPage}
        </a>{' '}
        <a href={data.replace(/csv$/, 'xlsx')} download className="link">
          {howComputedWords.asASpreadsheet}
        </a>{' '}
        {howComputedWords.csvAndTheCommandThat}
      </p>
      <pre className="mt-1 overflow-x-auto rounded-field bg-wash px-3 py-2 text-small whitespace-pre-wrap">
        {`npm run --silent analyse -- series data.csv ${command}`}
      </pre>
    </details>
  );
}
