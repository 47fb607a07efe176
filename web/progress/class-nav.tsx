import { SubNav } from '../platform/ui/sub-nav';
import { classNavWords } from './words';

const views = [
  { to: '/class', label: classNavWords.totals },
  { to: '/class/works', label: classNavWords.works },
  { to: '/class/forms', label: classNavWords.forms },
  { to: '/class/feedback', label: classNavWords.feedback },
  { to: '/class/work-samples', label: classNavWords.workSamples },
  { to: '/class/cards', label: classNavWords.cards },
];

/** The pages about a class as a whole. */
export const ClassNav = () => <SubNav label={classNavWords.class} views={views} />;
