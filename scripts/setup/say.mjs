/** Ends the command with one sentence that a person can act on. */
export function giveUp(sentence) {
  console.error(`\n${sentence}`);
  process.exit(1);
}
