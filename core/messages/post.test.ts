import { describe, expect, it } from 'vitest';
import { messageHtml } from './html';
import { frequencyInput, messageKinds, retryAfter } from './message';
import { fieldsIn, fillIn, templateFields, templateInput, templateWarnings, usualTemplates } from './message-template';

const values = {
  student: 'Ada E.',
  sentence: '3 of 4: 75%.',
  note: null,
  reader: 'Aunt Ida',
  link: 'https://x',
  stop: 's',
};

describe('a message template', () => {
  it('is filled in; what has no value leaves no empty line', () => {
    expect(fillIn('Dear {reader},\n\n{sentence}\n{note}\n\n{link}', values)).toBe(
      'Dear Aunt Ida,\n\n3 of 4: 75%.\n\nhttps://x',
    );
    expect(fillIn('{constructor} {nothing}', values)).toBe('{constructor} {nothing}');
    // A value is not looked through for fields again.
    expect(fillIn('{note}', { note: '{link}', link: 'x' })).toBe('{link}');
  });

  it('warns of what would be empty, of what is no field, and of a child’s data in the subject', () => {
    const texts = templateWarnings({ subject: 'New for {student}', body: '{note} {sentense}' }, values).map(
      ({ text }) => text,
    );
    expect(texts).toEqual([
      '{student} would put this child’s data into the subject line.',
      '{note} would be empty here.',
      '{sentense} is no field: it would be sent as it stands.',
      'Without {stop} it is stopped by its header only.',
    ]);
  });

  it('has by default no child’s data in any subject, and only fields that there are', () => {
    for (const kind of messageKinds) {
      const { subject, body } = usualTemplates[kind];
      expect(fieldsIn(subject)).toEqual([]);
      for (const field of fieldsIn(body)) expect(Object.keys(templateFields)).toContain(field);
      expect(templateInput.safeParse(usualTemplates[kind]).success).toBe(true);
    }
  });

  it('has one line of subject: a line break would begin another header', () => {
    expect(templateInput.safeParse({ subject: 'Hello\r\nBcc: x@y.z', body: 'x' }).success).toBe(false);
  });
});

describe('messages', () => {
  it('are tried again ever later, and then come back', () => {
    expect([1, 2, 3, 4, 5, 6].map(retryAfter)).toEqual([1, 5, 15, 60, 240, null]);
  });

  it('need an address, and one that can be one', () => {
    const told = (changes: object) =>
      frequencyInput.safeParse({ id: '7f0f2c1e-5a0f-4d0c-8a43-111111111111', frequency: 'daily', ...changes }).error
        ?.issues[0]?.message;
    expect(told({})).toBe('Without an address nothing can be sent.');
    expect(told({ email: 'ida@home' })).toBe('This does not look like an email address.');
    expect(told({ email: ' ida@home.example ' })).toBeUndefined();
    expect(told({ frequency: 'byHand' })).toBeUndefined();
  });
});

describe('a message as HTML', () => {
  it('has its paragraphs, lines and links, and nothing of what was typed becomes markup', () => {
    const html = messageHtml('Hello <b>Ida</b> & “all”,\n\nsee https://x.example/a?b=1&c="2.\nBye.');
    expect(html).toContain('<p>Hello &lt;b&gt;Ida&lt;/b&gt; &amp; “all”,</p>');
    expect(html).toContain(
      '<a href="https://x.example/a?b=1&amp;c=">https://x.example/a?b=1&amp;c=</a>&quot;2.<br>Bye.',
    );
    // Nothing is fetched from anywhere, and no script is in it.
    expect(html).not.toMatch(/<img|<link|<script|url\(/);
    expect(messageHtml('javascript:alert(1)')).not.toContain('<a');
  });

  it('ends an address before the sign that ends its sentence', () => {
    expect(messageHtml('The report: https://x.example/r.')).toContain('href="https://x.example/r"');
    expect(messageHtml('(https://x.example/r)')).toContain('href="https://x.example/r"');
  });
});
