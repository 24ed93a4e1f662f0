import { useNotebook } from '../context';
import { FileButton } from '../FileButton';
import { takeFilm } from './takeFilm';

/** Asks for a short film. */
export function FilmButton() {
  const notebook = useNotebook();
  return (
    <FileButton title="Film" accept="video/mp4,video/quicktime" take={(file) => takeFilm(notebook, file)} />
  );
}
