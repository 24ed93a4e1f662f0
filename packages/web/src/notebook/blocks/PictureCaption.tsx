import { SharedLine } from '../SharedLine';
import { useNotebook } from '../context';
import { useSharedText } from '../useShared';

/** The words under a photograph or a film. @param what what they stand under, in lower case */
export function PictureCaption({ id, what }: { id: string; what: string }) {
  const notebook = useNotebook();
  return (
    <figcaption>
      <SharedLine
        shared={notebook.document.lineOf(id, 'caption')}
        label={`Caption of the ${what}`}
        placeholder="What does it show?"
        mayWrite={notebook.mayWrite}
      />
    </figcaption>
  );
}

/** The same words; nothing where none were typed. */
export function useCaption(id: string): string {
  const [caption] = useSharedText(useNotebook().document.lineOf(id, 'caption'));
  return caption;
}
