import { Dialog } from './dialog';

const keys: [string[], string][] = [
  [['/'], 'Find a student or a goal'],
  [['?'], 'This list'],
  [['O'], 'Observe, on a student’s or a goal’s page'],
  [['I'], 'Record an incident, on a student’s page'],
  [['1', '…', '9'], 'While observing: mark the next opportunity at this level'],
  [['U'], 'While observing: take the last one back'],
  [['N'], 'While observing: go to the next goal'],
  [['[', ']'], 'In a round: to the student before, to the next'],
  [['Enter'], 'While observing: save'],
  [['T'], 'On a goal’s page: the graph’s numbers as a table'],
  [['←', '→'], 'On a graph: from point to point'],
  [['Esc'], 'Close what is open'],
];

export function KeyHelp({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <div className="p-6">
        <h2 className="text-xl">Keys</h2>
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
            Close
          </button>
        </form>
      </div>
    </Dialog>
  );
}
