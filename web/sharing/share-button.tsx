import { Share2 } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { shareWords } from './words';

const ShareDialog = lazy(() => import('./share-dialog'));

/** Opens the dialog in which a report is shared. */
export function ShareButton({ studentId }: { studentId: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <button type="button" aria-haspopup="dialog" className="btn btn-primary" onClick={() => setOpen(true)}>
        <Share2 size={16} aria-hidden />
        {shareWords.shareReport}
      </button>
      {isOpen && (
        <Suspense>
          <ShareDialog studentId={studentId} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
