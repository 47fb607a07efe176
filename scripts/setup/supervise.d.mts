export interface Program {
  name: string;
  command: string;
  args: string[];
  env?: NodeJS.ProcessEnv;
  isNeeded?: boolean;
  onMessage?: (message: unknown) => void;
}
export interface Options {
  cwd?: string;
  say?: (sentence: string) => void;
  pace?: number;
}
export const NO_USE: number;
export function supervise(
  programs: Program[],
  options?: Options,
): { ended: Promise<number>; stop: (code?: number) => Promise<void> };
