import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { Bold, Italic, List, ListOrdered } from 'lucide-react';
import type { ReactNode } from 'react';
import { plainText, type RichText } from '~/core/words/rich-text';
import { NamesInNote } from '../students/names-in-note';
import { wordsEditorWords } from './words';

interface WordsEditorProps {
  label: string;
  studentId: string;
  words: RichText;
  onChange: (words: RichText) => void;
}

/** Paragraphs and lists, bold and italic: nothing that a document could not hold. */
const extensions = [
  StarterKit.configure({
    heading: false,
    codeBlock: false,
    code: false,
    blockquote: false,
    horizontalRule: false,
    strike: false,
    underline: false,
    link: false,
  }),
];

/** A few own words with little form. */
export default function WordsEditor({ label, studentId, words, onChange }: WordsEditorProps) {
  const editor = useEditor({
    extensions,
    content: words.content.length > 0 ? words : '',
    immediatelyRender: false,
    // The page’s own style sheet has what it needs.
    injectCSS: false,
    editorProps: {
      attributes: {
        role: 'textbox',
        'aria-label': label,
        'aria-multiline': 'true',
        // On paper the words alone are left of it.
        class: 'rich textarea h-auto min-h-20 w-full text-base print:min-h-0 print:border-0 print:p-0',
      },
    },
    onUpdate: ({ editor: changed }) => onChange(changed.getJSON() as RichText),
  });
  const active = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now?.isActive('bold') ?? false,
      italic: now?.isActive('italic') ?? false,
      bullets: now?.isActive('bulletList') ?? false,
      numbers: now?.isActive('orderedList') ?? false,
    }),
  });
  if (!editor) return <p className="min-h-20 text-small text-ink-2">{wordsEditorWords.theEditorIsBeingFetched}</p>;
  const run = () => editor.chain().focus();
  return (
    <div className="mt-3">
      <p aria-hidden className="no-print mb-1 text-small font-semibold">
        {label}
      </p>
      <div role="toolbar" aria-label={wordsEditorWords.formOf(label)} className="no-print mb-1 flex gap-1">
        <Tool name={wordsEditorWords.bold} isOn={active?.bold} onPress={() => run().toggleBold().run()}>
          <Bold size={16} aria-hidden />
        </Tool>
        <Tool name={wordsEditorWords.italic} isOn={active?.italic} onPress={() => run().toggleItalic().run()}>
          <Italic size={16} aria-hidden />
        </Tool>
        <Tool name={wordsEditorWords.list} isOn={active?.bullets} onPress={() => run().toggleBulletList().run()}>
          <List size={16} aria-hidden />
        </Tool>
        <Tool
          name={wordsEditorWords.numberedList}
          isOn={active?.numbers}
          onPress={() => run().toggleOrderedList().run()}
        >
          <ListOrdered size={16} aria-hidden />
        </Tool>
      </div>
      <EditorContent editor={editor} />
      <div className="no-print">
        <NamesInNote studentId={studentId} text={plainText(words)} />
      </div>
    </div>
  );
}

interface ToolProps {
  name: string;
  isOn: boolean | undefined;
  onPress: () => void;
  children: ReactNode;
}

function Tool({ name, isOn = false, onPress, children }: ToolProps) {
  return (
    <button
      type="button"
      aria-label={name}
      aria-pressed={isOn}
      onClick={onPress}
      className="btn btn-sm size-9 p-0 aria-pressed:btn-neutral pointer-coarse:size-11"
    >
      {children}
    </button>
  );
}
