import { Dialog } from './dialog';
import { keyHelpWords } from './words';

const keys: [string[], string][] = [
  [['/'], keyHelpWords.findAStudentOrA],
  [['?'], keyHelpWords.thisList],
  [['O'], keyHelpWords.observeOnAStudentsOr],
  [['I'], keyHelpWords.recordAnIncidentOnA],
  [['N'], keyHelpWords.writeANote],
  [['1', '…', '9'], keyHelpWords.whileObservingMarkTheNext],
  [['U'], keyHelpWords.whileObservingTakeTheLast],
  [['N'], keyHelpWords.whileObservingGoToThe],
  [['[', ']'], keyHelpWords.inARoundToThe],
  [['Enter'], keyHelpWords.whileObservingSave],
  [['C'], keyHelpWords.correctARecord],
  [['F8'], keyHelpWords.toWhatWasSaid],
  [['T'], keyHelpWords.onAGoalsPageThe],
  [['←', '→'], keyHelpWords.onAGraphFromPoint],
  [['Esc'], keyHelpWords.closeWhatIsOpen],
];

export function KeyHelp({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title={keyHelpWords.keys} onClose={onClose}>
      <div className="p-6">
        <h2 className="text-xl">{keyHelpWords.keys}</h2>
        <dl className="mt-4 grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-2.5">
          {keys.map(([names, does]) => (
            <div key={does} className="contents">
              <dt className="flex gap-1">
                {names.map((name) => (
                  <kbd key={name} className="keycap">
                    {name}
                  </kbd>
                ))}
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <form method="dialog" className="mt-6 text-right">
          <button type="submit" className="btn">
            {keyHelpWords.close}
          </button>
        </form>
      </div>
    </Dialog>
  );
}
