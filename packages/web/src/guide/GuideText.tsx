import Markdown from 'react-markdown';
import remarkMath from 'remark-math';
import { Typeset } from '../ui/Typeset';

/** What a guide says, written in Markdown with formulas between dollar signs; its links open beside the page. */
export function GuideText({ text }: { text: string }) {
  if (text.trim() === '') return null;
  return (
    <div className="guide-text">
      <Markdown
        remarkPlugins={[remarkMath]}
        disallowedElements={['img']}
        components={{
          a: ({ href, children }) => (
            <a href={href} target="_blank" rel="noreferrer">
              {children}
            </a>
          ),
          code: ({ className = '', children }) => {
            if (!className.includes('language-math')) return <code>{children}</code>;
            return <Typeset tex={String(children)} block={className.includes('math-display')} />;
          },
          // A formula on a line of its own comes as code that is set apart.
          pre: ({ children }) => <div className="set-apart">{children}</div>,
        }}
      >
        {text}
      </Markdown>
    </div>
  );
}
