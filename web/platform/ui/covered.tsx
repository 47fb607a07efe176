import { MarginTitle, Page } from './page';
import { coveredWords } from './words';

/** In place of a page that would have to show a student's name or a plan's own words. */
export function Covered({ what }: { what: string }) {
  return (
    <Page
      marginName={coveredWords.why}
      margin={
        <>
          <MarginTitle>{coveredWords.why}</MarginTitle>
          <p className="text-small text-ink-2">{coveredWords.theDiscreetViewShowsNo}</p>
        </>
      }
    >
      <h1 className="text-3xl">{coveredWords.isWrittenInTheOpen(what)}</h1>
      <p className="mt-3 text-ink-2">{coveredWords.switchTheDiscreetViewOff}</p>
    </Page>
  );
}
