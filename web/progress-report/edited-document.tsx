import { lazy, Suspense } from 'react';
import type { DraftWords } from '~/core/progress-report/input';
import { noWords, type RichText } from '~/core/words/rich-text';
import { DocumentView } from './document-view';
import type { ShownDocument } from './shown-document';
import { editedDocumentWords } from './words';

const WordsEditor = lazy(() => import('./words-editor'));

interface EditedDocumentProps {
  paper: ShownDocument;
  studentId: string;
  goals: readonly { id: string; name: string }[];
  words: DraftWords;
  /** @param place  the goal that the words are about; null for the whole */
  onChange: (place: string | null, words: RichText) => void;
}

/** The document with an editor wherever own words will stand. */
export function EditedDocument({ paper, studentId, goals, words, onChange }: EditedDocumentProps) {
  const nameOf = (id: string) => goals.find((goal) => goal.id === id)?.name ?? '';
  return (
    <div className="pb-24">
      <DocumentView paper={paper}>
        {(block) => {
          if (block.kind !== 'rich') return null;
          const { place } = block;
          return (
            <Suspense
              fallback={<p className="min-h-20 text-small text-ink-2">{editedDocumentWords.theEditorIsBeingFetched}</p>}
            >
              <WordsEditor
                label={
                  place === null
                    ? editedDocumentWords.yourWordsForTheWhole
                    : editedDocumentWords.yourWordsAbout(nameOf(place))
                }
                studentId={studentId}
                words={(place === null ? words.whole : words.goals[place]) ?? noWords}
                onChange={(to) => onChange(place, to)}
              />
            </Suspense>
          );
        }}
      </DocumentView>
    </div>
  );
}
