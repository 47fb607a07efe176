import { MarginTitle, Page } from './page';

/** In place of a page that would have to show a student's name or a plan's own words. */
export function Covered({ what }: { what: string }) {
  return (
    <Page
      marginName="Why"
      margin={
        <>
          <MarginTitle>Why</MarginTitle>
          <p className="text-small text-ink-2">The discreet view shows no names and no wordings, here as elsewhere.</p>
        </>
      }
    >
      <h1 className="text-3xl">{what} is written in the open</h1>
      <p className="mt-3 text-ink-2">Switch the discreet view off, at the top, to write it.</p>
    </Page>
  );
}
