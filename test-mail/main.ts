// The test mail server: an SMTP server on loopback that accepts, sends back, defers or delays by its rules, and shows what it
// got on a page. It takes a message with the same Message-ID once.
import { setTimeout as pause } from 'node:timers/promises';
import { simpleParser } from 'mailparser';
import { SMTPServer, type SMTPServerAddress } from 'smtp-server';
import { keepArrived, type TestMailRule, testMailRules } from '~/server/messages/test-mail';
import { connect } from '~/server/platform/db/database';

const { DATABASE_URL = '', TEST_MAIL_PORT = '4325' } = process.env;
const db = connect(DATABASE_URL, { poolSize: 4 });

class Refusal extends Error {
  constructor(
    readonly responseCode: number,
    words: string,
  ) {
    super(words);
  }
}

const ruleFor = async ({ address }: SMTPServerAddress): Promise<TestMailRule | undefined> =>
  (await testMailRules(db)).find((rule) => address.toLowerCase().includes(rule.address.toLowerCase()));

async function follow(rule: TestMailRule | undefined): Promise<void> {
  if (!rule) return;
  if (rule.does === 'delay') await pause(1000 * rule.seconds);
  if (rule.does === 'bounce') throw new Refusal(550, rule.words || 'No such mailbox here');
  if (rule.does === 'defer') throw new Refusal(451, rule.words || 'Try again later');
}

const server = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  logger: false,
  maxClients: 20,
  onRcptTo(address, _session, done) {
    ruleFor(address)
      .then(follow)
      .then(
        () => done(),
        (refusal: Error) => done(refusal),
      );
  },
  onData(stream, session, done) {
    simpleParser(stream)
      .then((mail) =>
        keepArrived(db, {
          messageId: mail.messageId ?? `${session.id}`,
          recipient: session.envelope.rcptTo.map(({ address }) => address).join(', '),
          subject: mail.subject ?? '',
          body: mail.text ?? '',
          headers: Object.fromEntries(
            mail.headerLines.map(({ key, line }) => [key, line.slice(key.length + 1).trim()]),
          ),
          arrivedAt: new Date(),
        }),
      )
      .then(
        () => done(),
        (failure: Error) => done(failure),
      );
  },
});

server.on('error', (error: NodeJS.ErrnoException) => {
  // A connection that breaks off is the other side’s affair; a port that is taken is ours.
  if (error.code !== 'EADDRINUSE') return;
  console.error(`Port ${TEST_MAIL_PORT} is taken; choose another with TEST_MAIL_PORT=… npm start`);
  // Another start would not help: see `scripts/setup/supervise.mjs`.
  process.exit(78);
});
const listening = server.listen(Number(TEST_MAIL_PORT), '127.0.0.1', () => {
  const address = listening.address();
  process.send?.({ listening: typeof address === 'object' && address ? address.port : Number(TEST_MAIL_PORT) });
});
process.once('SIGTERM', () => process.exit(0));
process.once('disconnect', () => process.exit(0));
