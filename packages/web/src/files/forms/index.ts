import { csv } from './csv';
import { type ExportForm } from './form';
import { png } from './png';
import { svg } from './svg';

export { type ExportForm, type PictureWish } from './form';

/** Every form in which something leaves as a file, in the order in which they are offered; the last of a kind is the usual one. */
const forms: readonly ExportForm[] = [csv, svg, png];

type FormOf<Of extends ExportForm['of']> = Extract<ExportForm, { of: Of }>;

/** The forms of one thing, in their order. */
export const formsOf = <Of extends ExportForm['of']>(of: Of): readonly FormOf<Of>[] =>
  forms.filter((form): form is FormOf<Of> => form.of === of);
