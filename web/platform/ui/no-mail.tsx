import { noMailWords } from './words';

interface NoMailProps {
  /** Of the school that one works at. */
  isWithoutMail: boolean;
}

/** Says, before anything is sent, that nothing will be: of a school without a mail server. */
export function NoMail({ isWithoutMail }: NoMailProps) {
  if (!isWithoutMail) return null;
  return <p className="mt-4 alert block max-w-3xl">{noMailWords.notSetUp}</p>;
}
