import { noMailWords } from './words';

/** Says, before anything is sent, that nothing will be: of a school without a mail server. */
export function NoMail({ isWithoutMail }: { isWithoutMail: boolean }) {
  return isWithoutMail && <p className="mt-4 alert block max-w-3xl">{noMailWords.notSetUp}</p>;
}
