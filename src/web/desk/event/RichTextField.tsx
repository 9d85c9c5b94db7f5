import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react'
import StarterKit from '@tiptap/starter-kit'
import { useState } from 'react'
import { useSettled } from '../useSettled'
import { cleanPasted } from './pasted'
import { usePlainText } from './queries'
import { t } from './words'

interface RichTextFieldProps {
  labelledBy: string
  value: string
  onChange: (html: string) => void
}

/** A text with emphasis, lists and real links. The server sanitises what comes out of it. */
export function RichTextField({ labelledBy, value, onChange }: RichTextFieldProps) {
  const [address, setAddress] = useState<string | null>(null)
  const editor = useEditor({
    // The content security policy allows no style element; the rules stand in our own style sheet.
    injectCSS: false,
    extensions: [
      StarterKit.configure({
        heading: false,
        code: false,
        codeBlock: false,
        horizontalRule: false,
        link: { openOnClick: false, autolink: true, defaultProtocol: 'https', protocols: ['http', 'https', 'mailto', 'tel'] },
      }),
    ],
    content: value,
    editorProps: {
      transformPastedHTML: cleanPasted,
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-labelledby': labelledBy, class: 'rich-text' },
    },
    onUpdate: ({ editor: changed }) => onChange(changed.isEmpty ? '' : changed.getHTML()),
  })
  const marks = useEditorState({
    editor,
    selector: ({ editor: current }: { editor: Editor | null }) => ({
      bold: current?.isActive('bold') ?? false,
      italic: current?.isActive('italic') ?? false,
      // Its text is shown below, so that what is typed there has to come by here.
      html: current?.getHTML() ?? '',
      list: current?.isActive('bulletList') ?? false,
      link: current?.isActive('link') ?? false,
    }),
  })
  if (!editor) return null

  const openLink = () => setAddress(String(editor.getAttributes('link').href ?? 'https://'))
  const setLink = () => {
    const href = (address ?? '').trim()
    const chain = editor.chain().focus().extendMarkRange('link')
    if (href === '' || href === 'https://') chain.unsetLink().run()
    else if (editor.state.selection.empty && !editor.isActive('link'))
      chain
        .insertContent({ type: 'text', text: href.replace(/^https?:\/\//, ''), marks: [{ type: 'link', attrs: { href } }] })
        .run()
    else chain.setLink({ href }).run()
    setAddress(null)
  }
  const isAddress =
    address !== null && /^(https?:\/\/[^\s.]+\.|https?:\/\/localhost|https?:\/\/\d|mailto:|tel:)\S*/.test(address.trim())

  return (
    <div className="rich-field">
      <div className="rich-tools" role="toolbar" aria-label={t('textTools')}>
        <ToolButton name={t('toolBold')} isOn={marks.bold} onPress={() => editor.chain().focus().toggleBold().run()} />
        <ToolButton name={t('toolItalic')} isOn={marks.italic} onPress={() => editor.chain().focus().toggleItalic().run()} />
        <ToolButton name={t('toolList')} isOn={marks.list} onPress={() => editor.chain().focus().toggleBulletList().run()} />
        <ToolButton name={t('toolLink')} isOn={marks.link} onPress={openLink} />
      </div>
      {address !== null && (
        <div className="rich-link">
          <label htmlFor="link-address">{t('linkTo')}</label>
          <input
            id="link-address"
            className="form-control"
            autoFocus
            value={address}
            onChange={(event) => setAddress(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') {
                event.preventDefault()
                if (isAddress) setLink()
              }
              if (event.key === 'Escape') setAddress(null)
            }}
          />
          <button type="button" className="btn btn-outline-ink" disabled={!isAddress} onClick={setLink}>
            {t('setTheLink')}
          </button>
          {marks.link && (
            <button
              type="button"
              className="btn btn-quiet"
              onClick={() => (editor.chain().focus().extendMarkRange('link').unsetLink().run(), setAddress(null))}
            >
              {t('takeItOff')}
            </button>
          )}
          {address.trim() !== 'https://' && !isAddress && <span className="refusal">{t('aLinkBeginsWithHttps')}</span>}
        </div>
      )}
      <EditorContent editor={editor} />
      <PlainForm html={editor.isEmpty ? '' : marks.html} />
    </div>
  )
}

/** What programs that show no HTML get of it. */
function PlainForm({ html }: { html: string }) {
  const [isOpen, setOpen] = useState(false)
  const settled = useSettled(html)
  const plain = usePlainText(settled, isOpen && settled !== '')
  if (html === '') return null
  return (
    <div className="plain-form">
      <button type="button" className="as-link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {t('plainForm')}
      </button>
      {isOpen && <pre>{plain.data?.text ?? ''}</pre>}
    </div>
  )
}

function ToolButton({ name, isOn, onPress }: { name: string; isOn: boolean; onPress: () => void }) {
  return (
    <button type="button" aria-pressed={isOn} onClick={onPress}>
      {name}
    </button>
  )
}
