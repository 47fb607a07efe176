import { logFailure } from './log';

/** Streams that stand open: they are ended when the server is. */
const open = new Set<() => void>();

/** How often a line is sent that says nothing: so that nobody between takes the stream for dead. */
const BEAT = 15_000;
/** Then the browser asks again, and it is looked up anew who may see what. */
const LONGEST = 10 * 60_000;

/** More windows than anybody looks at: the oldest is ended. */
const MOST_OF_ONE = 8;
const openOf = new Map<string, Set<() => void>>();

export const endStreams = () => {
  for (const end of open) end();
};

interface Events {
  /** Whose it is. */
  of: string;
  /** Begins to listen; what it is given sends an event. Gives back what ends the listening. */
  begin: (send: (event: object) => void, end: () => void) => Promise<() => void>;
  signal: AbortSignal;
}

/** An answer of server-sent events, until the browser goes away, or for ten minutes. Never compressed. */
export function eventStream({ of, begin, signal }: Events): Response {
  const text = new TextEncoder();
  let end = () => {};
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      let isOver = false;
      let stopListening = () => {};
      const write = (line: string) => {
        if (!isOver) controller.enqueue(text.encode(line));
      };
      end = () => {
        if (isOver) return;
        isOver = true;
        clearInterval(beat);
        clearTimeout(longest);
        open.delete(end);
        own.delete(end);
        if (own.size === 0) openOf.delete(of);
        stopListening();
        controller.close();
      };
      const beat = setInterval(() => write('event: beat\ndata: {}\n\n'), BEAT);
      const longest = setTimeout(() => end(), LONGEST);
      open.add(end);
      const own = openOf.get(of) ?? new Set();
      openOf.set(of, own);
      own.add(end);
      const [oldest] = own;
      if (own.size > MOST_OF_ONE) oldest?.();
      signal.addEventListener('abort', () => end());
      write('retry: 2000\nevent: beat\ndata: {}\n\n');
      try {
        stopListening = await begin((event) => write(`data: ${JSON.stringify(event)}\n\n`), end);
        if (isOver) stopListening();
      } catch (error) {
        // The database cannot be listened to: the page asks by itself until it can.
        logFailure(error, '/live');
        end();
      }
    },
    cancel: () => end(),
  });
  return new Response(body, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform' },
  });
}
